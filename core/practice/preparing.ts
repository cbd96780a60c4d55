import { after, before, type Instant, type Zone } from '../time/index.ts'
import type { Preparation, PreparationDue } from './preparation.ts'
import type { Practice, Service } from './types.ts'

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
