import type { Entry } from '../openings/index.ts'
import { formatInstant, type Instant } from '../time/index.ts'

const SECOND = 1000
/** DATE-TIME has whole seconds (RFC 5545 §3.3.5): a second in which one is busy at all is busy. */
const secondFrom = (at: number): Instant => (Math.floor(at / SECOND) * SECOND) as Instant
const secondTo = (at: number): Instant => (Math.ceil(at / SECOND) * SECOND) as Instant
const utc = (at: Instant): string => formatInstant(secondFrom(at)).replaceAll(/[-:]/g, '')

/** Lines no longer than 75 octets, continued with a space (RFC 5545 §3.1). Only ASCII is written here. */
const fold = (line: string): string => line.replace(/(.{74})(?=.)/g, '$1\r\n ')

/**
 * When the practitioner is busy, and nothing else: a VFREEBUSY component (RFC 5545 §3.6.4) with the entries of
 * the diary that meet the span, joined where they touch, in ascending order.
 */
export function freeBusy(
  slug: string,
  entries: readonly Entry[],
  from: Instant,
  to: Instant,
  now: Instant,
): string {
  const periods: { start: Instant; end: Instant }[] = []
  for (const entry of [...entries].sort((a, b) => a.start - b.start)) {
    const start = secondFrom(Math.max(entry.start, from))
    const end = secondTo(Math.min(entry.end, to))
    if (end <= start) continue
    const last = periods.at(-1)
    if (last && start <= last.end) last.end = Math.max(last.end, end) as Instant
    else periods.push({ start, end })
  }
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//acolhida//acolhida//EN',
    'BEGIN:VFREEBUSY',
    `UID:free-busy@${slug}.acolhida`,
    `DTSTAMP:${utc(now)}`,
    `DTSTART:${utc(from)}`,
    `DTEND:${utc(secondTo(to))}`,
    ...periods.map(({ start, end }) => `FREEBUSY;FBTYPE=BUSY:${utc(start)}/${utc(end)}`),
    'END:VFREEBUSY',
    'END:VCALENDAR',
  ]
  return `${lines.map(fold).join('\r\n')}\r\n`
}
