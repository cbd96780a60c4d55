import type { Away, Practice } from '@acolhida/core/practice'
import {
  addDays,
  at,
  type DayNumber,
  date,
  dateWords,
  type LocalDate,
  localDate,
  shortDate,
  splitDateTime,
  time,
  wallTime,
} from '@acolhida/core/time'
import { datesOf } from './changed-days.tsx'

/** How often time away comes again, of what most people mean. */
export const REPEATS = [
  { value: '', name: 'Once' },
  { value: 'FREQ=WEEKLY', name: 'Every week' },
  { value: 'FREQ=WEEKLY;INTERVAL=2', name: 'Every other week' },
  { value: 'FREQ=MONTHLY', name: 'Every month on that day' },
  { value: 'FREQ=YEARLY', name: 'Every year' },
]

const UNTIL = /;UNTIL=(\d{4})(\d{2})(\d{2})(?:T\d{6}Z?)?/

/** Time away as it is typed; hours are empty where whole days are meant. */
export interface AwayTyped {
  first: string
  last: string
  from: string
  to: string
  /** A rule of RFC 5545 without its end. */
  repeat: string
  /** The last date on which it may come again. */
  until: string
  note: string
}

export const NO_AWAY: AwayTyped = { first: '', last: '', from: '', to: '', repeat: '', until: '', note: '' }

/** A rule in two parts: how often, and until when. */
function ruleOf(repeat = ''): { repeat: string; until: string } {
  const end = UNTIL.exec(repeat)
  return { repeat: repeat.replace(UNTIL, ''), until: end ? end.slice(1, 4).join('-') : '' }
}

/** The days and hours of time away, whole days by their first and last. */
function stretchOf({ from, to }: Away): { first: LocalDate; last: LocalDate; hours?: [string, string] } {
  const a = splitDateTime(from)
  const z = splitDateTime(to)
  const whole = a.minutes === 0 && z.minutes === 0
  const first = localDate(a.day)
  const last = localDate((z.minutes === 0 ? z.day - 1 : z.day) as DayNumber)
  return { first, last, ...(whole ? {} : { hours: [wallTime(a.minutes), wallTime(z.minutes || 1_440)] }) }
}

/** Time away as one would type it. */
export function awayTyped(away: Away): AwayTyped {
  const { first, last, hours = ['', ''] } = stretchOf(away)
  return {
    first,
    last: last === first ? '' : last,
    from: hours[0],
    to: hours[1],
    ...ruleOf(away.repeat),
    note: away.note ?? '',
  }
}

/** @throws Error with a sentence when it can't be meant */
export function awayFrom(id: string, typed: AwayTyped): Away {
  const dates = datesOf(typed.first, typed.last, 3_660)
  const last = dates.at(-1)!
  const clock = (text: string) => {
    try {
      return time(text)
    } catch {
      throw new Error(`“${text}” is not a time of day; write it as 9:30.`)
    }
  }
  const from = at(dates[0]!, typed.from ? clock(typed.from) : wallTime(0))
  const ends = typed.to && typed.to !== '24:00'
  const to = ends ? at(last, clock(typed.to)) : at(addDays(last, 1), wallTime(0))
  if (to <= from) throw new Error('It can’t end before it begins.')
  if (typed.repeat && typed.until && typed.until < dates[0]!)
    throw new Error('It can’t come for the last time before it comes for the first.')
  // Until the end of that day by the clock on the wall, as the rule itself goes by it.
  const end = typed.until ? `;UNTIL=${date(typed.until).replaceAll('-', '')}T235959` : ''
  return {
    id,
    from,
    to,
    ...(typed.repeat ? { repeat: `${typed.repeat}${end}` } : {}),
    ...(typed.note.trim() ? { note: typed.note.trim() } : {}),
  }
}

/** When it is, in words: "Mon 24 Dec – Fri 28 Dec, every year until 31 December 2030". */
export function awayWords(away: Away): string {
  const { first, last, hours } = stretchOf(away)
  const days = first === last ? shortDate(last) : `${shortDate(first)} – ${shortDate(last)}`
  const rule = ruleOf(away.repeat)
  const again = REPEATS.find(({ value }) => value === rule.repeat)?.name.toLowerCase() ?? rule.repeat
  const until = rule.until ? ` until ${dateWords(date(rule.until))}` : ''
  return `${days}${hours ? `, ${hours.join(' – ')}` : ''}${rule.repeat ? `, ${again}${until}` : ''}`
}

/** The practice with more time away, in order. */
export const withAway = (practice: Practice, more: Away[]): Practice => ({
  ...practice,
  away: [...practice.away.filter((away) => !more.some((other) => other.id === away.id)), ...more].sort(
    (a, b) => (a.from < b.from ? -1 : 1),
  ),
})

/** One whole day away. */
export const wholeDay = (id: string, date: LocalDate, note: string): Away => ({
  id,
  from: at(date, wallTime(0)),
  to: at(addDays(date, 1), wallTime(0)),
  note,
})
