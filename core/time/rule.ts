import { type DayNumber, weekday } from './date.ts'
import { BadRule, type Frequency, type Recurrence, type WallSeconds } from './rule-text.ts'

/**
 * Rules of repetition (RFC 5545 §3.3.10), followed on the wall (`WallSeconds`). Zones are none of its business. A rule
 * without `COUNT` is not followed from its beginning but from the first period that can matter.
 */

/** More periods and moments of one rule than are gone through: every minute of 400 days. */
const MOST_STEPS = 600_000

const DAY = 86_400

/** Year, month (from 0) and day of a day number. */
function dateOf(day: number): { year: number; month: number; date: number } {
  const at = new Date(day * 86_400_000)
  return { year: at.getUTCFullYear(), month: at.getUTCMonth(), date: at.getUTCDate() }
}

const firstOfMonth = (year: number, month: number): number => Date.UTC(year, month, 1) / 86_400_000

/** The first day of week 1 of a year: the first week with at least four days in it (ISO 8601, with any first day). */
function firstWeek(year: number, weekStart: number): number {
  const first = firstOfMonth(year, 0)
  const back = (weekday(first as DayNumber) - weekStart + 7) % 7
  return back <= 3 ? first - back : first - back + 7
}

/** What the days of a period are judged by. */
interface Within {
  /** The first day of the year, its length, and those of the month. */
  yearFrom: number
  yearDays: number
  monthFrom: number
  monthDays: number
  year: number
  month: number
}

function within(day: number): Within {
  const { year, month } = dateOf(day)
  const yearFrom = firstOfMonth(year, 0)
  const monthFrom = firstOfMonth(year, month)
  return {
    year,
    month,
    yearFrom,
    yearDays: firstOfMonth(year + 1, 0) - yearFrom,
    monthFrom,
    monthDays: firstOfMonth(year, month + 1) - monthFrom,
  }
}

/** Whether a number counted from the front or the back is among those that are named. */
const named = (list: readonly number[], at: number, of: number): boolean =>
  list.includes(at) || list.includes(at - of - 1)

/** Whether a day keeps to the parts of a rule that speak of days. `period` is what numbered weekdays are counted in. */
function keeps(rule: Recurrence, day: number, w: Within, period: 'year' | 'month' | undefined): boolean {
  if (rule.month && !rule.month.includes(w.month + 1)) return false
  if (rule.yearDay && !named(rule.yearDay, day - w.yearFrom + 1, w.yearDays)) return false
  if (rule.monthDay && !named(rule.monthDay, day - w.monthFrom + 1, w.monthDays)) return false
  if (!rule.day) return true
  const on = weekday(day as DayNumber)
  const [from, length] = period === 'year' ? [w.yearFrom, w.yearDays] : [w.monthFrom, w.monthDays]
  const nth = Math.floor((day - from) / 7) + 1
  const last = -Math.floor((from + length - 1 - day) / 7) - 1
  return rule.day.some(
    (named) => named.weekday === on && (named.nth === 0 || named.nth === nth || named.nth === last),
  )
}

/** A rule with what it leaves open taken from its start. */
function completed(rule: Recurrence, start: WallSeconds): Recurrence {
  const day = Math.floor(start / DAY)
  const { month, date } = dateOf(day)
  const { freq, weekNumber, yearDay, monthDay, day: days } = rule
  const on = [{ weekday: weekday(day as DayNumber), nth: 0 }]
  if (freq === 'WEEKLY' && !days) return { ...rule, day: on }
  if (freq === 'MONTHLY' && !days && !monthDay) return { ...rule, monthDay: [date] }
  if (freq !== 'YEARLY' || days || yearDay || monthDay) return rule
  if (weekNumber) return { ...rule, day: on }
  return { ...rule, month: rule.month ?? [month + 1], monthDay: [date] }
}

/** The days of the nth period of a rule of days, from the period of its start on. */
function daysOf(rule: Recurrence, start: number, n: number): number[] {
  const step = n * rule.interval
  const keep = (from: number, to: number, period?: 'year' | 'month'): number[] => {
    const found: number[] = []
    let w = within(from)
    for (let day = from; day < to; day++) {
      if (day >= w.monthFrom + w.monthDays) w = within(day)
      if (keeps(rule, day, w, period)) found.push(day)
    }
    return found
  }
  switch (rule.freq) {
    case 'DAILY':
      return keep(start + step, start + step + 1)
    case 'WEEKLY': {
      const week = start - ((weekday(start as DayNumber) - rule.weekStart + 7) % 7) + step * 7
      return keep(week, week + 7)
    }
    case 'MONTHLY': {
      const { year, month } = dateOf(start)
      const from = firstOfMonth(year, month + step)
      // Of most months nothing is asked.
      if (rule.month && !rule.month.includes(((((month + step) % 12) + 12) % 12) + 1)) return []
      return keep(from, firstOfMonth(year, month + step + 1), 'month')
    }
    default: {
      const year = dateOf(start).year + step
      if (rule.weekNumber) return inWeeks(rule, year)
      if (rule.month)
        return [...new Set(rule.month)]
          .sort((a, b) => a - b)
          .flatMap((month) => keep(firstOfMonth(year, month - 1), firstOfMonth(year, month), 'month'))
      return keep(firstOfMonth(year, 0), firstOfMonth(year + 1, 0), 'year')
    }
  }
}

/** The days of some weeks of a year, which may lie in the years beside it. */
function inWeeks(rule: Recurrence, year: number): number[] {
  const first = firstWeek(year, rule.weekStart)
  const weeks = (firstWeek(year + 1, rule.weekStart) - first) / 7
  const found: number[] = []
  for (let week = 1; week <= weeks; week++) {
    if (!named(rule.weekNumber!, week, weeks)) continue
    for (let day = first + (week - 1) * 7; day < first + week * 7; day++)
      if (keeps(rule, day, within(day), 'year')) found.push(day)
  }
  return found
}

const sorted = (list: readonly number[]): number[] => [...new Set(list)].sort((a, b) => a - b)

/** Every time of the day, or of the hour or minute where the rule repeats within a day. */
function timesIn(
  rule: Recurrence,
  hours: readonly number[],
  minutes: readonly number[],
  seconds: readonly number[],
): number[] {
  return sorted(rule.hour ?? hours).flatMap((hour) =>
    sorted(rule.minute ?? minutes).flatMap((minute) =>
      sorted(rule.second ?? seconds).map((second) => hour * 3_600 + minute * 60 + second),
    ),
  )
}

/** More moments of one period than BYSETPOS chooses from. */
const MOST_CHOICES = 100_000

/** Those of a period that BYSETPOS names. */
function chosen(rule: Recurrence, all: WallSeconds[]): WallSeconds[] {
  const { position } = rule
  return position ? all.filter((_, i) => named(position, i + 1, all.length)) : all
}

const UNIT: Partial<Record<Frequency, number>> = { HOURLY: 3_600, MINUTELY: 60, SECONDLY: 1 }

/** How long a period is at most, in seconds: enough to jump over those that have gone. */
const PERIOD: Record<Frequency, number> = {
  YEARLY: 366 * DAY,
  MONTHLY: 31 * DAY,
  WEEKLY: 7 * DAY,
  DAILY: DAY,
  HOURLY: 3_600,
  MINUTELY: 60,
  SECONDLY: 1,
}

/** The moments of the nth period of a rule, from some moment on. */
function* periodOf(rule: Recurrence, start: WallSeconds, n: number, from: number): Iterable<WallSeconds> {
  const day = Math.floor(start / DAY)
  const clock = start - day * DAY
  const unit = UNIT[rule.freq]
  if (unit === undefined) {
    const own = (part: number) => [part]
    const times = timesIn(
      rule,
      own(Math.floor(clock / 3_600)),
      own(Math.floor(clock / 60) % 60),
      own(clock % 60),
    )
    const days = daysOf(rule, day, n)
    if (rule.position) {
      if (days.length * times.length > MOST_CHOICES) throw new BadRule('BYSETPOS among too many')
      yield* chosen(
        rule,
        days.flatMap((day) => times.map((time) => (day * DAY + time) as WallSeconds)),
      )
      return
    }
    for (const on of days)
      if ((on + 1) * DAY > from) for (const time of times) yield (on * DAY + time) as WallSeconds
    return
  }
  const begin = Math.floor(start / unit) * unit + n * rule.interval * unit
  const on = Math.floor(begin / DAY)
  if (!keeps(rule, on, within(on), undefined)) return
  const at = begin - on * DAY
  const [hour, minute, second] = [Math.floor(at / 3_600), Math.floor(at / 60) % 60, at % 60]
  const out =
    (rule.hour && !rule.hour.includes(hour)) ||
    (unit <= 60 && rule.minute && !rule.minute.includes(minute)) ||
    (unit === 1 && rule.second && !rule.second.includes(second))
  if (out) return
  const { hour: _, ...rest } = rule
  const inside: Recurrence = {
    ...rest,
    hour: [hour],
    ...(unit <= 60 ? { minute: [minute] } : {}),
    ...(unit === 1 ? { second: [second] } : {}),
  }
  const times = timesIn(inside, [hour], [Math.floor(clock / 60) % 60], [clock % 60])
  yield* chosen(
    rule,
    times.map((time) => (on * DAY + time) as WallSeconds),
  )
}

/** The first period of a rule that can reach a moment. */
function periodBefore(rule: Recurrence, start: WallSeconds, from: WallSeconds): number {
  // A year's weeks reach into the years beside it, and a period begins before its start.
  const left = from - start - 2 * PERIOD[rule.freq]
  return Math.max(0, Math.floor(left / (PERIOD[rule.freq] * rule.interval)))
}

/**
 * The moments of a rule in order, from some moment on and before another. Its start is the first of them, whether the
 * rule names it or not (RFC 5545 §3.8.5.3); `COUNT` counts it.
 * @param ends whether a moment lies beyond the end of the rule, where it says `UNTIL`
 * @throws BadRule when it takes more steps than anybody means
 */
export function* momentsOf(
  given: Recurrence,
  start: WallSeconds,
  from: WallSeconds,
  to: WallSeconds,
  ends: (at: WallSeconds) => boolean = () => false,
): Generator<WallSeconds> {
  const rule = completed(given, start)
  if (start >= from && start < to) yield start
  const { count } = rule
  let left = count === undefined ? Number.POSITIVE_INFINITY : count - 1
  let n = count === undefined ? periodBefore(rule, start, from) : 0
  // The first days of a year may lie in the last week of the year before.
  if (rule.weekNumber && rule.interval === 1) n--
  let steps = 0
  const step = (): void => {
    if (++steps > MOST_STEPS) throw new BadRule('it repeats more often than can be followed')
  }
  for (; left > 0; n++) {
    step()
    if (begins(rule, start, n) >= to) return
    for (const at of periodOf(rule, start, n, count === undefined ? from : start)) {
      step()
      if (at <= start) continue
      if (at >= to || ends(at) || left <= 0) return
      left--
      if (at >= from) yield at
    }
  }
}

/** The moment with which a period begins at the earliest. */
function begins(rule: Recurrence, start: WallSeconds, n: number): number {
  const day = Math.floor(start / DAY)
  const step = n * rule.interval
  switch (rule.freq) {
    case 'YEARLY': {
      const year = dateOf(day).year + step
      return year > 9_999 ? Number.POSITIVE_INFINITY : (firstOfMonth(year, 0) - 7) * DAY
    }
    case 'MONTHLY': {
      const { year, month } = dateOf(day)
      return year + (month + step) / 12 >= 10_000
        ? Number.POSITIVE_INFINITY
        : firstOfMonth(year, month + step) * DAY
    }
    case 'WEEKLY':
      return (day - 7 + step * 7) * DAY
    default:
      return start - PERIOD[rule.freq] + step * PERIOD[rule.freq]
  }
}
