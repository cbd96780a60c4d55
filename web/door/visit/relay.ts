import type { Unwanted } from '@acolhida/core/booking'
import {
  type AgreedVersion,
  type BookPathBody,
  type DoorQuote,
  door,
  type EnquireBody,
  type HalfBody,
  type JoinBody,
  type LineDoes,
  type PayPathBody,
  type PlanPathBody,
  type SendBody,
  type StationBody,
  type TakeBody,
  type Wanted,
  type WantedMoves,
  type WantedOpenings,
  type WantedPart,
  type WantedStart,
} from '@acolhida/core/contract'
import type { Attached } from '@acolhida/core/questions'
import type { Instant, Language } from '@acolhida/core/time'
import { ask } from '../../relay-client/ask.ts'
import { call, newKey } from '../../relay-client/client.ts'

/** The door's calls to the relay, one for each thing a client can do. */
export const doorRelay = {
  view: (slug: string, key: string | undefined) => ask(door.view, { to: { slug }, query: { with: key } }),
  read: (slug: string, body: Wanted) => ask(door.read, { to: { slug }, body }),
  /** What is decided by the questions up to one. */
  part: (slug: string, body: WantedPart) => ask(door.part, { to: { slug }, body }),
  /** Length and price as far as the answers so far tell them. */
  soFar: (slug: string, body: Wanted, signal?: AbortSignal): Promise<DoorQuote> =>
    ask(door.soFar, { to: { slug }, body, ...(signal ? { signal } : {}) }),
  /** Gives a file that answers a question. */
  file: (slug: string, about: Record<string, string>, file: File) =>
    call<Attached>(`/api/door/${encodeURIComponent(slug)}/files?${new URLSearchParams(about)}`, {
      bytes: file,
    }),
  openings: (slug: string, body: WantedOpenings, signal: AbortSignal) =>
    ask(door.openings, { to: { slug }, body, signal }),
  keep: (slug: string, body: WantedStart) => ask(door.keep, { to: { slug }, body }),
  renew: (slug: string, visit: string) => ask(door.renew, { to: { slug }, body: { visit } }),
  send: (slug: string, body: SendBody, key: string) => ask(door.send, { to: { slug }, body, key }),
  enquire: (slug: string, body: EnquireBody, key: string) => ask(door.enquire, { to: { slug }, body, key }),
  /** Gets in line; where one stands; what is done there; and the freed time taken. */
  join: (slug: string, body: JoinBody, key: string) => ask(door.join, { to: { slug }, body, key }),
  line: (secret: string) => ask(door.line, { to: { secret } }),
  inLine: (secret: string, body: LineDoes, key: string) => ask(door.inLine, { to: { secret }, body, key }),
  take: (secret: string, body: TakeBody, key: string) => ask(door.take, { to: { secret }, body, key }),
  my: (secret: string, booking: string | undefined) => ask(door.my, { to: { secret }, query: { booking } }),
  /** Everything that is theirs; that somebody looks at it; what is done there, and kept half done. */
  yours: (secret: string) => ask(door.yours, { to: { secret } }),
  opens: (secret: string) => ask(door.opens, { to: { secret }, body: {}, key: newKey() }),
  doStation: (secret: string, body: StationBody, key: string) =>
    ask(door.doStation, { to: { secret }, body, key }),
  planPath: (secret: string, body: PlanPathBody) => ask(door.planPath, { to: { secret }, body }),
  bookPath: (secret: string, body: BookPathBody, key: string) =>
    ask(door.bookPath, { to: { secret }, body, key }),
  half: (secret: string, body: HalfBody) => ask(door.half, { to: { secret }, body, key: newKey() }),
  /** Gives a file that is brought, or answers a question of what there is to do. */
  courseFile: (secret: string, about: Record<string, string>, file: File) =>
    call<Attached>(`/api/yours/${encodeURIComponent(secret)}/files?${new URLSearchParams(about)}`, {
      bytes: file,
    }),
  /** Asks for a page of the till; and, come back from it, what has become of that. */
  payPath: (secret: string, body: PayPathBody) => ask(door.payPath, { to: { secret }, body }),
  yoursCameBack: (secret: string) => ask(door.yoursCameBack, { to: { secret }, body: {} }),
  pay: (secret: string, booking: string | undefined, body: { what: 'pay' | 'card'; amount: number }) =>
    ask(door.pay, { to: { secret }, query: { booking }, body }),
  /** To which times a booking could be moved. */
  moves: (secret: string, booking: string | undefined, body: WantedMoves, signal: AbortSignal) =>
    ask(door.moves, { to: { secret }, query: { booking }, body, signal }),
}

/** What can be done through a private link; what binds or costs something, on what was shown. */
export type LinkAct =
  | { do: 'prove' | 'withdraw' | 'came-back' | 'come' }
  | { do: 'prepare'; done: boolean }
  | { do: 'unwant'; what: Unwanted; on: boolean }
  | { do: 'speak'; language: Language }
  | { do: 'refuse' }
  | { do: 'reply' | 'plead'; text: string }
  | { do: 'agree'; name: string; agreed: AgreedVersion[] }
  | { do: 'accept'; start: Instant; place: string; shown: string }
  | { do: 'cancel'; shown: string }
  | { do: 'move'; start: Instant; place: string; shown: string }

/** @param booking another one of the same person */
export function actThrough(secret: string, booking: string | undefined, act: LinkAct) {
  const call = { to: { secret }, query: { booking }, key: newKey() }
  switch (act.do) {
    case 'prove':
      return ask(door.prove, { ...call, body: {} })
    case 'withdraw':
      return ask(door.withdraw, { ...call, body: {} })
    case 'came-back':
      return ask(door.cameBack, { ...call, body: {} })
    case 'come':
      return ask(door.come, { ...call, body: {} })
    case 'prepare':
      return ask(door.prepare, { ...call, body: { done: act.done } })
    case 'unwant':
      return ask(door.unwant, { ...call, body: { what: act.what, on: act.on } })
    case 'speak':
      return ask(door.speak, { ...call, body: { language: act.language } })
    case 'refuse':
      return ask(door.refuse, { ...call, body: { text: '' } })
    case 'reply':
    case 'plead':
      return ask(door[act.do], { ...call, body: { text: act.text } })
    case 'agree':
      return ask(door.agree, { ...call, body: { name: act.name, agreed: act.agreed } })
    case 'accept': {
      const { do: _, ...body } = act
      return ask(door.accept, { ...call, body })
    }
    case 'move': {
      const { do: _, ...body } = act
      return ask(door.move, { ...call, body })
    }
    case 'cancel':
      return ask(door.cancel, { ...call, body: { text: '', shown: act.shown } })
  }
}
