/** What goes out and comes in as iCalendar. Apart from the rest, for ical.js is large. */
export { availabilityIn } from './availability.ts'
export { uidOf, writeBookings } from './bookings.ts'
export { type FoundHours, readHoursFile, writeHoursFile } from './hours-file.ts'
export { BadCalendar, parseCalendar } from './icalendar.ts'
