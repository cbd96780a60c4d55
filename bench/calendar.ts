import { busyTimes } from '@acolhida/core/formats/busy'
import { DAY, formatInstant, HOUR, type Instant, instant, parseInstant, zone } from '@acolhida/core/time'
import ICAL from 'ical.js'
import { sideBySide } from './side-by-side.ts'

const FROM = parseInstant('2026-11-24T00:00Z')
const TO = instant(FROM + 60 * DAY)
const utc = (at: number): string => formatInstant(at as Instant).replaceAll(/[-:]/g, '')

/** 20,000 events, 2,000 of them repeating over five years; UTC throughout, so that both sides mean the same. */
function file(): string {
  const lines = ['BEGIN:VCALENDAR', 'VERSION:2.0']
  for (let i = 0; i < 20_000; i++) {
    const repeats = i % 10 === 0
    const start = parseInstant('2024-01-01T08:00Z') + (i % 1_800) * DAY + (i % 9) * HOUR
    lines.push('BEGIN:VEVENT', `UID:${i}`, `DTSTART:${utc(start)}`, `DTEND:${utc(start + HOUR)}`)
    if (repeats) lines.push(`RRULE:FREQ=WEEKLY;UNTIL=${utc(start + 5 * 365 * DAY)}`)
    lines.push('END:VEVENT')
  }
  return [...lines, 'END:VCALENDAR', ''].join('\r\n')
}

/**
 * Everything expanded with plain ical.js, and what meets the span picked out of it.
 * @param stops whether it leaves an event alone once the span is over, as anybody would who knows what is asked
 */
function plain(text: string, stops: boolean): string[] {
  const found: string[] = []
  for (const component of new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent')) {
    // Without this, ical.js looks for exceptions of each event among all others: minutes instead of seconds.
    const event = new ICAL.Event(component, { strictExceptions: true, exceptions: [] })
    const add = (start: ICAL.Time, end: ICAL.Time): void => {
      const a = start.toUnixTime() * 1000
      const z = end.toUnixTime() * 1000
      if (z > FROM && a < TO) found.push(`${a}/${z}`)
    }
    if (!event.isRecurring()) {
      add(event.startDate, event.endDate)
      continue
    }
    const times = event.iterator()
    for (let next = times.next(); next; next = times.next()) {
      if (stops && next.toUnixTime() * 1_000 >= TO) break
      const { startDate, endDate } = event.getOccurrenceDetails(next)
      add(startDate, endDate)
    }
  }
  return found.sort()
}

/** A large calendar read by the core, and by plain ical.js. */
export async function benchCalendar(): Promise<void> {
  const text = file()
  const core = (): string[] =>
    busyTimes(text, FROM, TO, zone('UTC'))
      .entries.map((entry) => `${entry.start}/${entry.end}`)
      .sort()
  const works = { core, stopping: () => plain(text, true), expanding: () => plain(text, false) }
  const answers = Object.values(works).map((work) => JSON.stringify(work()))
  if (new Set(answers).size > 1) throw new Error('The core and plain ical.js do not agree.')
  const spent = await sideBySide(works, 3, 0)
  const s = (us: number): string => `${(us / 1e6).toFixed(2)} s`
  console.log(
    `a calendar of 20,000 events, 2,000 repeating over 5 years: ${core().length} busy times in 60 days, the same set`,
  )
  console.log(
    `  core ${s(spent.core)} of CPU; ical.js stopping after the span ${s(spent.stopping)}: ratio ${(spent.core / spent.stopping).toFixed(2)} (goal at most 0.5); expanding everything ${s(spent.expanding)}: ratio ${(spent.core / spent.expanding).toFixed(2)}`,
  )
}
