import ICAL from 'ical.js'
import { dayNumber, type Instant, instant, type LocalDate, type Zone, zone } from '../time/index.ts'

/** An iCalendar file that can't be read at all. */
export class BadCalendar extends Error {
  constructor(what: string, reason: string) {
    super(`${what}: ${reason}`)
    this.name = 'BadCalendar'
  }
}

/** Whether a line has a name, perhaps parameters (in which a colon stands only between quotes), and a colon. */
function isLine(line: string): boolean {
  const name = /^[A-Za-z0-9-]+/.exec(line)?.[0].length ?? 0
  if (name === 0 || (line[name] !== ':' && line[name] !== ';')) return false
  let quoted = false
  for (let i = name; i < line.length; i++) {
    if (line[i] === '"') quoted = !quoted
    else if (line[i] === ':' && !quoted) return true
  }
  return false
}

/** Leaves out lines that are none, so that one broken line does not cost the whole calendar. */
function wellFormed(source: string, skipped: string[]): string {
  const lines = source
    .replace(/^\uFEFF/, '')
    .replace(/\r?\n[ \t]/g, '')
    .split(/\r?\n/)
  return lines
    .filter((line) => {
      const good = line === '' || isLine(line)
      if (!good) skipped.push(`the line “${line.slice(0, 60)}”`)
      return good && line !== ''
    })
    .join('\r\n')
}

/**
 * Reads a text as one iCalendar object (RFC 5545), leaving out what is no line at all.
 * @throws BadCalendar when it is none
 */
export function parseCalendar(source: string, what: string, skipped: string[]): ICAL.Component {
  let calendar: ICAL.Component
  try {
    calendar = new ICAL.Component(ICAL.parse(wellFormed(source, skipped)))
  } catch (error) {
    throw new BadCalendar(what, `is not iCalendar: ${(error as Error).message}`)
  }
  if (calendar.name !== 'vcalendar') throw new BadCalendar(what, 'holds no VCALENDAR')
  return calendar
}

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

/** The zone a date of a component names; a duration, and each repetition, keep that of the start. */
export const namedZone = (component: ICAL.Component, property: string): string | undefined =>
  component.getFirstProperty(property)?.getFirstParameter('tzid') || undefined

/** Reads times of one calendar: by the zone's own VTIMEZONE if the name is not in the tz database. */
export function reader(
  calendar: ICAL.Component,
  home: Zone,
): (time: ICAL.Time, named: string | undefined) => Instant {
  const own = new Map(
    calendar.getAllSubcomponents('vtimezone').map((component) => {
      const zone = new ICAL.Timezone(component)
      return [zone.tzid, zone] as const
    }),
  )
  return (time, named) => {
    const resolved = time.zone?.tzid
    const name = resolved && resolved !== 'floating' ? resolved : (named ?? 'floating')
    if (name === 'UTC' || name === 'Z') return instant(time.toUnixTime() * 1000)
    const day = dayNumber(`${pad(time.year, 4)}-${pad(time.month)}-${pad(time.day)}` as LocalDate)
    const minutes = time.isDate ? 0 : time.hour * 60 + time.minute + time.second / 60
    if (name === 'floating') return home.toInstant(day, minutes)
    try {
      return zone(name).toInstant(day, minutes)
    } catch {
      const described = own.get(name)
      if (!described) return home.toInstant(day, minutes)
      const there = time.clone()
      there.zone = described
      return instant(there.toUnixTime() * 1000)
    }
  }
}

const pad = (n: number, width = 2): string => String(n).padStart(width, '0')
