/** What goes out and comes in as iCalendar. Apart from the rest, for ical.js is large. */
export { uidOf, writeBookings } from './bookings.ts'
export { BadCalendar } from './content.ts'
export { type FoundHours, readHoursFile, writeHoursFile } from './hours-file.ts'
