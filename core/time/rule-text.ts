/** A moment on a wall: its seconds since 1970-01-01 00:00 there, as if every day had 24 hours. */
export type WallSeconds = number & { readonly __unit: 'wall seconds' }

const FREQUENCIES = ['YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY', 'HOURLY', 'MINUTELY', 'SECONDLY'] as const
/** How often a period comes. */
export type Frequency = (typeof FREQUENCIES)[number]
const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']

/** The last moment of a rule: a date counts whole; else a time on the wall, or one in UTC. */
export interface Until {
  seconds: WallSeconds
  isDate: boolean
  utc: boolean
}

/** A rule, read. */
export interface Recurrence {
  freq: Frequency
  interval: number
  count?: number
  until?: Until
  /** The day a week begins with, Monday 1 to Sunday 7. */
  weekStart: number
  month?: number[]
  weekNumber?: number[]
  yearDay?: number[]
  monthDay?: number[]
  /** Weekdays, Monday 1, with their place in the month or year; 0 for each. */
  day?: { weekday: number; nth: number }[]
  hour?: number[]
  minute?: number[]
  second?: number[]
  position?: number[]
}

/** A rule that is not understood, with the reason. */
export class BadRule extends Error {
  constructor(what: string) {
    super(`its repetition is not understood: ${what}`)
  }
}

/** Numbers of a list, each within its bounds; 0 is none of those that count from the end. */
function numbers(text: string, least: number, most: number, part: string): number[] {
  return text.split(',').map((piece) => {
    const number = /^[+-]?\d{1,4}$/.test(piece) ? Number(piece) : Number.NaN
    const counts = least < 0 && number === 0
    if (!(number >= least && number <= most) || counts) throw new BadRule(`${part}=${text.slice(0, 40)}`)
    return number
  })
}

function days(text: string): NonNullable<Recurrence['day']> {
  return text.split(',').map((piece) => {
    const match = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(piece)
    if (!match || (match[1] !== undefined && Number(match[1]) === 0))
      throw new BadRule(`BYDAY=${text.slice(0, 40)}`)
    return { weekday: WEEKDAYS.indexOf(match[2]!) + 1, nth: Number(match[1] ?? 0) }
  })
}

const whole = (text: string, part: string): number => {
  const number = /^\d{1,9}$/.test(text) ? Number(text) : 0
  if (number < 1) throw new BadRule(`${part}=${text.slice(0, 40)}`)
  return number
}

function untilIn(text: string): Until {
  const match = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})(Z)?)?$/.exec(text)
  if (!match) throw new BadRule(`UNTIL=${text.slice(0, 40)}`)
  const [, y, m, d, hour, minute, second, utc] = match
  const day = Date.UTC(Number(y), Number(m) - 1, Number(d)) / 1_000
  const clock = Number(hour ?? 0) * 3_600 + Number(minute ?? 0) * 60 + Number(second ?? 0)
  return { seconds: (day + clock) as WallSeconds, isDate: hour === undefined, utc: utc !== undefined }
}

/** Each part of a rule: what it is read into. */
const PARTS: Record<string, (text: string) => Partial<Recurrence>> = {
  INTERVAL: (text) => ({ interval: whole(text, 'INTERVAL') }),
  COUNT: (text) => ({ count: whole(text, 'COUNT') }),
  UNTIL: (text) => ({ until: untilIn(text) }),
  WKST: (text) => {
    if (!WEEKDAYS.includes(text)) throw new BadRule(`WKST=${text.slice(0, 40)}`)
    return { weekStart: WEEKDAYS.indexOf(text) + 1 }
  },
  BYMONTH: (text) => ({ month: numbers(text, 1, 12, 'BYMONTH') }),
  BYWEEKNO: (text) => ({ weekNumber: numbers(text, -53, 53, 'BYWEEKNO') }),
  BYYEARDAY: (text) => ({ yearDay: numbers(text, -366, 366, 'BYYEARDAY') }),
  BYMONTHDAY: (text) => ({ monthDay: numbers(text, -31, 31, 'BYMONTHDAY') }),
  BYDAY: (text) => ({ day: days(text) }),
  BYHOUR: (text) => ({ hour: numbers(text, 0, 23, 'BYHOUR') }),
  BYMINUTE: (text) => ({ minute: numbers(text, 0, 59, 'BYMINUTE') }),
  // A leap second is the one before it: no wall shows it.
  BYSECOND: (text) => ({ second: numbers(text, 0, 60, 'BYSECOND').map((second) => Math.min(second, 59)) }),
  BYSETPOS: (text) => ({ position: numbers(text, -366, 366, 'BYSETPOS') }),
}

/** Parts that RFC 5545 allows with some frequencies only. */
function misplaced({ freq, weekNumber, yearDay, monthDay, day }: Recurrence): string | undefined {
  if (weekNumber && freq !== 'YEARLY') return 'BYWEEKNO'
  if (yearDay && (freq === 'DAILY' || freq === 'WEEKLY' || freq === 'MONTHLY')) return 'BYYEARDAY'
  if (monthDay && freq === 'WEEKLY') return 'BYMONTHDAY'
  const numbered = day?.some(({ nth }) => nth !== 0)
  const places = freq === 'MONTHLY' || (freq === 'YEARLY' && !weekNumber)
  return numbered && !places ? 'BYDAY' : undefined
}

/**
 * Reads a rule as it is written: "FREQ=WEEKLY;BYDAY=MO".
 * @throws BadRule for what the standard does not have, or does not allow together
 */
export function readRule(text: string): Recurrence {
  const rule: Recurrence = { freq: 'DAILY', interval: 1, weekStart: 1 }
  let freq: Frequency | undefined
  for (const piece of text.toUpperCase().split(';')) {
    if (piece === '') continue
    const at = piece.indexOf('=')
    const [name, value] = [piece.slice(0, at), piece.slice(at + 1)]
    if (name === 'FREQ') {
      freq = FREQUENCIES.find((known) => known === value)
      if (!freq) throw new BadRule(`FREQ=${value.slice(0, 40)}`)
      continue
    }
    if (!Object.hasOwn(PARTS, name)) throw new BadRule(name.slice(0, 40))
    Object.assign(rule, PARTS[name]!(value))
  }
  if (!freq) throw new BadRule('no FREQ')
  rule.freq = freq
  const wrong = misplaced(rule)
  if (wrong) throw new BadRule(`${wrong} with FREQ=${freq}`)
  if (rule.position && !PARTS_THAT_CHOOSE.some((part) => rule[part])) throw new BadRule('BYSETPOS alone')
  return rule
}

/** Those among which BYSETPOS chooses. */
const PARTS_THAT_CHOOSE = [
  'month',
  'weekNumber',
  'yearDay',
  'monthDay',
  'day',
  'hour',
  'minute',
  'second',
] as const
