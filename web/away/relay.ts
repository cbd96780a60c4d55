import type { DeskDoes } from '@acolhida/core/booking'
import type { WantedMoves } from '@acolhida/core/contract'
import { away } from '@acolhida/core/contract'
import { ask } from '../relay-client/ask.ts'
import { newKey } from '../relay-client/client.ts'

/** What is asked of the relay away from the desk. */
export const awayRelay = {
  word: (secret: string) => ask(away.word, { to: { secret } }),
  decide: (secret: string, command: DeskDoes, seen: string) =>
    ask(away.decideWord, { to: { secret }, key: newKey(), body: { command, seen } }),
  times: (secret: string, body: WantedMoves) => ask(away.wordTimes, { to: { secret }, body }),
  day: (bearer: string) => ask(away.day, { bearer }),
  decideOn: (bearer: string, booking: string, command: DeskDoes, seen: string) =>
    ask(away.decideDay, { bearer, key: newKey(), body: { booking, command, seen } }),
}
