import { type Does, doneIn, type House, languageAt, lookIn } from '@acolhida/core/house'
import type { Instant } from '@acolhida/core/time'
import type { Request } from 'express'
import type { Here, Once } from '../house/here.ts'

/** The languages a browser wants, the most wanted first (RFC 9110, §12.5.4). */
export const wantedBy = (req: Request): string[] => req.acceptsLanguages().filter((one) => one !== '*')

/** A place where calls are answered in one language. */
export interface Theirs {
  look<T>(view: (house: House, now: Instant) => T): T
  call<B, A>(does: Does<B, A>, body: B, once?: Once, bytes?: Uint8Array): A
}

/** Answers as whoever calls reads: in the first language they want that the practice speaks. */
export function theirs(req: Request, here: Here): Theirs {
  const language = (): string => languageAt(here.keeper.house, wantedBy(req))
  return {
    look: (view) => here.look((house, now) => lookIn(house, language(), (spoken) => view(spoken, now))),
    call: (does, body, once, bytes) => here.call(doneIn(language(), does), body, once, bytes),
  }
}
