import ICAL from 'ical.js'
import * as rrule from 'rrule'

// Node.js takes that package as CommonJS, with everything under its default; a bundler takes it as it is.
const { RRule }: typeof rrule = 'RRule' in rrule ? rrule : Reflect.get(rrule, 'default')

/** Gives one start after another, in order; nothing at the end. */
export interface Recurring {
  next(): ICAL.Time | null | undefined
}

/**
 * Whether ical.js follows a rule as RFC 5545 means it. It does not know week numbers, and takes the 20th Monday of a
 * year for every Monday from then on.
 */
function isFollowed(rule: ICAL.Recur): boolean {
  if (rule.freq !== 'YEARLY') return true
  const parts = rule.parts as { BYWEEKNO?: number[]; BYDAY?: string[]; BYMONTH?: number[] }
  const numbered = parts.BYDAY?.some((day) => /\d/.test(day)) ?? false
  return parts.BYWEEKNO === undefined && !(numbered && parts.BYMONTH === undefined)
}

/** The starts of a rule by another library, which knows no zones: wall times go in and out as if they were UTC. */
function* otherwise(rule: ICAL.Recur, first: ICAL.Time): Generator<ICAL.Time> {
  const begin = new Date(
    Date.UTC(first.year, first.month - 1, first.day, first.hour, first.minute, first.second),
  )
  const { until, ...options } = RRule.parseString(rule.toString())
  const all = new RRule({ ...options, dtstart: begin })
  // What ends a rule is an instant; it is judged where the zone is known.
  const end = rule.until
  for (let at = all.after(begin, true); at; at = all.after(at)) {
    const time = first.clone()
    time.year = at.getUTCFullYear()
    time.month = at.getUTCMonth() + 1
    time.day = at.getUTCDate()
    if (until && end && time.compare(end) > 0) return
    yield time
  }
}

/** Times a day and less are no way to be away, and their rules are the ones that can be looked through without end. */
const FREQUENCIES = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']

/** Whether a text is a rule by which whole days repeat. */
export function isRepeat(text: string): boolean {
  try {
    return FREQUENCIES.includes(ICAL.Recur.fromString(text).freq)
  } catch {
    return false
  }
}

/**
 * Whether a rule of whole days ever comes true again: the 30th of February never does, and looking for it would
 * not end. The Gregorian calendar repeats every 400 years, weekdays and all (146,097 days are 20,871 weeks), so it
 * is looked for in the last of them before the year 9999, where the library gives up.
 */
export function comesTrue(text: string, from: { year: number; month: number; day: number }): boolean {
  if (!isRepeat(text)) return false
  try {
    const { until: _, count: __, ...options } = RRule.parseString(text)
    const year = from.year + 400 * Math.floor((9_998 - from.year) / 400)
    const dtstart = new Date(Date.UTC(year, from.month - 1, from.day))
    return new RRule({ ...options, dtstart }).after(dtstart, true) !== null
  } catch {
    return false
  }
}

/** The starts of a rule of repetition (RFC 5545 §3.3.10) from its first on. */
export function startsOf(rule: ICAL.Recur, first: ICAL.Time): Recurring {
  if (isFollowed(rule)) return rule.iterator(first)
  const times = otherwise(rule, first)
  return { next: () => times.next().value ?? null }
}

/** The starts of an event: its rule with the dates added and left out (RFC 5545 §3.8.5). */
export function startsOfEvent(event: ICAL.Event): Recurring {
  const rules = event.component
    .getAllProperties('rrule')
    .map((getAllProperty) => getAllProperty.getFirstValue() as ICAL.Recur)
  if (rules.every(isFollowed)) return event.iterator()
  const dates = (name: string): ICAL.Time[] =>
    event.component
      .getAllProperties(name)
      .flatMap((getAllProperty) => getAllProperty.getValues() as ICAL.Time[])
  const left = new Set(dates('exdate').map((date) => date.toString()))
  const added = dates('rdate').sort((a, b) => a.compare(b))
  const times = rules.map((rule) => startsOf(rule, event.startDate))
  const heads = times.map((time) => time.next())
  const next = (): ICAL.Time | null => {
    for (;;) {
      const open = heads.filter((head): head is ICAL.Time => head !== null && head !== undefined)
      const [soonest] = [...open, ...added.slice(0, 1)].sort((a, b) => a.compare(b))
      if (!soonest) return null
      heads.forEach((head, i) => {
        if (head && head.compare(soonest) === 0) heads[i] = times[i]!.next()
      })
      while (added[0] && added[0].compare(soonest) === 0) added.shift()
      if (!left.has(soonest.toString())) return soonest
    }
  }
  return { next }
}
