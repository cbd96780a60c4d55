import type { TextBlock } from '../terms/types.ts'
import { after, before, type Duration, type Instant, type Zone } from '../time/index.ts'
import type { Practice, Service } from './types.ts'

/** From where it is counted by when something is to be done: back from the start, on from the end, or on from the giving. */
export const DUE_FROM = ['start', 'end', 'given'] as const
/** By when something is to be done: so long before a session begins, after it has ended, or after it was given. */
export interface PreparationDue {
  from: (typeof DUE_FROM)[number]
  by: Duration
}

/** What a client does with each kind of preparation. */
interface OwnOfPreparation {
  /** A letter, read. */
  read: { text: TextBlock[] }
  /** A document, signed by the agreement machinery. */
  sign: { terms: string }
  /** A questionnaire, answered; sealed for the desk. */
  answer: { questionnaire: string }
  /** A file, brought. */
  bring: { text: string }
  /** Something elsewhere, ticked. */
  tick: { text: string; address?: string }
}
export type PreparationKind = keyof OwnOfPreparation

/** What a client reads, signs, fills, brings or ticks before or after a session. */
export type Preparation = {
  [K in PreparationKind]: Whole<Common & { is: K } & OwnOfPreparation[K]>
}[PreparationKind]
type Whole<T> = { [P in keyof T]: T[P] }

interface Common {
  id: string
  /** As the client reads it. */
  name: string
  /** About how long it takes. */
  minutes?: number
  due: PreparationDue
  /** Given to each person once, however often they book. */
  once?: boolean
}

export const preparationOf = (practice: Practice, id: string): Preparation | undefined =>
  practice.preparations?.find((one) => one.id === id)

/** What goes out with each booking of a service, in its order; what is gone from the practice is left out. */
export const preparationsOf = (practice: Practice, service: Service): Preparation[] =>
  (service.prepares ?? []).flatMap((id) => preparationOf(practice, id) ?? [])

/** The services with whose bookings something goes out. */
export const servicesWith = (practice: Practice, preparation: string): Service[] =>
  practice.services.filter(({ prepares }) => prepares?.includes(preparation))

/** When a session is; and when something was given. */
export interface PreparationMoments {
  given: Instant
  start?: Instant
  end?: Instant
}

/**
 * By when something is to be done. Nothing where it hangs on a session that there is none of. What is given later than
 * so long before the session is due when that begins.
 */
export function preparationDue(
  { from, by }: PreparationDue,
  { given, start, end }: PreparationMoments,
  there: Zone,
): Instant | undefined {
  if (from === 'given') return after(given, by, there)
  if (from === 'end') return end === undefined ? undefined : after(end, by, there)
  if (start === undefined) return undefined
  const due = before(start, by, there)
  return due > given ? due : start
}
