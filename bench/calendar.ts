import { busyTimes } from '@acolhida/core/formats/busy'
import { DAY, formatInstant, HOUR, type Instant, instant, parseInstant, zone } from '@acolhida/core/time'
import ICAL from 'ical.js'

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

/** Everything expanded with plain ical.js, and what meets the span picked out of it. */
function plain(text: string): string[] {
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
      const { startDate, endDate } = event.getOccurrenceDetails(next)
      add(startDate, endDate)
    }
  }
  return found.sort()
}

/** A large calendar read by the core, and by plain ical.js expanding everything. */
export function benchCalendar(): void {
  const text = file()
  const time = <T>(work: () => T): [T, number] => {
    const began = performance.now()
    const result = work()
    return [result, performance.now() - began]
  }
  const [ours, oursTime] = time(() => busyTimes(text, FROM, TO, zone('UTC')))
  const [theirs, theirTime] = time(() => plain(text))
  const same =
    JSON.stringify(ours.entries.map((one) => `${one.start}/${one.end}`).sort()) === JSON.stringify(theirs)
  console.log(
    `a calendar of 20,000 events, 2,000 repeating over 5 years: ${theirs.length} busy times in 60 days; the same set: ${same}`,
  )
  if (!same) throw new Error('The core and plain ical.js do not agree.')
  console.log(
    `  core ${(oursTime / 1000).toFixed(2)} s, ical.js expanding everything ${(theirTime / 1000).toFixed(2)} s: ratio ${(oursTime / theirTime).toFixed(2)} (goal at most 1)`,
  )
}
