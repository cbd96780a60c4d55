import type { LocalDate } from '../time/index.ts'
import type { Service } from './types.ts'

/** Whether a service is at the door on a date of the practice: it is on, and in season. */
export function offeredOn(service: Service, today: LocalDate): boolean {
  const { on, season } = service
  if (!on || !season) return on
  const within = (!season.from || season.from <= today) && (!season.to || today <= season.to)
  return within === season.on
}
