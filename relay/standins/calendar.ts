import { addDays, dateAt, type Instant, zone } from '@acolhida/core/time'

/** The stand-in for another calendar of the practitioner: a text that can be edited and read from an address. */
export class StandinCalendar {
  text: string

  /** Begins with a weekly choir and a dentist on the day after tomorrow. */
  constructor(now: Instant) {
    const here = zone('Europe/Lisbon')
    const day = (days: number): string => addDays(dateAt(here, now), days).replaceAll('-', '')
    this.text = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//acolhida//stand-in//EN',
      'BEGIN:VEVENT',
      'UID:dentist@calendar.example.org',
      'SUMMARY:Dentist',
      `DTSTART;TZID=Europe/Lisbon:${day(2)}T140000`,
      `DTEND;TZID=Europe/Lisbon:${day(2)}T150000`,
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:choir@calendar.example.org',
      'SUMMARY:Choir',
      `DTSTART;TZID=Europe/Lisbon:${day(1)}T170000`,
      'DURATION:PT2H',
      'RRULE:FREQ=WEEKLY',
      'END:VEVENT',
      'END:VCALENDAR',
      '',
    ].join('\r\n')
  }
}
