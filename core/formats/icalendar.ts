import ICAL from 'ical.js'
import type { Instant } from '../time/index.ts'

/** An empty calendar to be filled and written. */
export function newCalendar(method?: string): ICAL.Component {
  const calendar = new ICAL.Component('vcalendar')
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//acolhida//acolhida//EN')
  if (method) calendar.updatePropertyWithValue('method', method)
  return calendar
}

/** An instant as iCalendar writes it, in UTC. */
export const utcTime = (at: Instant): ICAL.Time => ICAL.Time.fromJSDate(new Date(at), true)

/** The text of a calendar: lines folded and ended as RFC 5545 §3.1 asks. */
export const writeCalendar = (calendar: ICAL.Component): string => `${calendar.toString()}\r\n`
