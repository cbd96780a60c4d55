import type { CalendarState } from '../contract/desk-types.ts'
import type { Work } from './work.ts'

/** Takes in what has been read of another calendar, or why it could not be. */
export function calendarRead({ house, changes }: Work, state: CalendarState): Record<string, never> {
  // It may have been taken out of the practice while it was read.
  const wanted = house.pack?.practice.calendars?.some(
    (calendar) => calendar.id === state.id && calendar.url === state.url,
  )
  if (wanted) changes.push({ type: 'calendar', state })
  return {}
}
