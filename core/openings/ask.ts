import { hoursOf, placeOf, zoneOf } from '../practice/find.ts'
import { weekOn } from '../practice/hours-of-day.ts'
import type { Block, Hours, Place, Practice, Service, Standing } from '../practice/types.ts'
import {
  addMonths,
  after,
  DAY,
  type DayNumber,
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  localDate,
  MINUTE,
  minutesOf,
  weekday,
  weekStart,
  type Zone,
  zone,
} from '../time/index.ts'
import { type AwayTime, awayTimes } from './away.ts'

/** Who asks for an opening. What binds clients only does not bind the practitioner. */
/** From which day to which, both with it, by the clock of the place. */
export interface Between {
  from?: LocalDate
  to?: LocalDate
}

export interface Asker {
  who: 'client' | 'practitioner'
  standing: Standing
  /** Services this person has been invited to, or has come to by the service's own link. */
  invited: readonly string[]
  blocked: boolean
  /** It is a session of their path, and lies here on it. */
  between?: Between
}

/** A client of whom nothing is known yet. */
export const newClient: Asker = { who: 'client', standing: 'new', invited: [], blocked: false }

/** One question about openings: for what, where, how long, for whom, and when it is asked. */
export interface Ask {
  service: Service
  place: string
  /** Length in minutes. */
  minutes: number
  asker: Asker
  now: Instant
}

/** A block of hours in minutes after midnight. */
export interface MinuteBlock {
  from: number
  to: number
  block: Block
}

/** Hours with their times read once, to be asked by the day. */
export interface ReadHours {
  weekly: MinuteBlock[][]
  changed: Map<DayNumber, MinuteBlock[]>
  seasons: { from: DayNumber; to: DayNumber; weekly: MinuteBlock[][] }[]
}

const inMinutes = (blocks: readonly Block[]): MinuteBlock[] =>
  blocks.map((block) => ({ from: minutesOf(block.from), to: minutesOf(block.to), block }))

const known = new WeakMap<Hours, ReadHours>()

/** Reads the times of hours, once for each that are given. */
export function readHours(hours: Hours): ReadHours {
  const before = known.get(hours)
  if (before) return before
  const read: ReadHours = {
    weekly: hours.weekly.map(inMinutes),
    changed: new Map(hours.changedDays.map((day) => [dayNumber(day.date), inMinutes(day.blocks)])),
    seasons: (hours.seasons ?? []).map(({ from, to, weekly }) => ({
      from: dayNumber(from),
      to: dayNumber(to),
      weekly: weekly.map(inMinutes),
    })),
  }
  known.set(hours, read)
  return read
}

/** The blocks of a date: a changed day replaces those of its week whole, be it the usual one or that of a season. */
export function blocksOn({ changed, seasons, weekly }: ReadHours, day: DayNumber): MinuteBlock[] {
  const own = changed.size > 0 ? changed.get(day) : undefined
  if (own) return own
  const season = seasons.length > 0 ? seasons.find(({ from, to }) => from <= day && day <= to) : undefined
  return (season?.weekly ?? weekly)[weekday(day) - 1]!
}

/** What follows from an ask for every start alike, worked out once. */
export interface Frame extends Ask {
  practice: Practice
  at: Place | undefined
  /** The place's zone: blocks, grid, edges of the day. */
  zone: Zone
  /** The practice's zone: time away, reach, limits. */
  home: Zone
  hours: ReadHours
  /** Length in ms. */
  length: number
  /** The first instant that notice allows, and whether the closing of weeks says so. */
  noticeFrom: Instant
  weekClosed: boolean
  /** The last date of the practice that can be booked. */
  lastDate: LocalDate
  away: AwayTime[]
}

/** Works out what an ask means at its moment. */
export function frame(practice: Practice, ask: Ask): Frame {
  const at = placeOf(practice, ask.place)
  const home = zone(practice.profile.zone)
  const there = zoneOf(practice, at)
  const closes = practice.weekCloses && weekClosesUntil(practice, ask.now, home)
  const last = lastDate(practice, ask.service, ask.now, home)
  return {
    ...ask,
    practice,
    at,
    zone: there,
    home,
    hours: readHours(hoursOf(practice, at)),
    length: ask.minutes * MINUTE,
    noticeFrom: closes ?? after(ask.now, ask.service.notice, there),
    weekClosed: closes !== undefined,
    lastDate: last,
    away: awayTimes(practice, ask.now, home.toInstant((dayNumber(last) + 2) as DayNumber, 0)),
  }
}

/** Where weeks close as a whole: the first instant still open. A week closes when its moment has passed. */
function weekClosesUntil(practice: Practice, now: Instant, home: Zone): Instant {
  const { weekCloses, profile } = practice
  const first = weekStart(home.toWall(now).day, profile.weekStart)
  const offset = (weekCloses!.weekday - profile.weekStart + 7) % 7
  const closesAt = home.toInstant((first + offset) as DayNumber, minutesOf(weekCloses!.time))
  return home.toInstant((first + (now > closesAt ? 14 : 7)) as DayNumber, 0)
}

/** Whether a block allows this ask. Reserved hours bind clients only. */
export function allows(block: Block, ask: Ask): boolean {
  const kept = block.reservedFor
  if (!kept || ask.asker.who === 'practitioner') return true
  if (kept.services && !kept.services.includes(ask.service.id)) return false
  if (kept.places && !kept.places.includes(ask.place)) return false
  return !kept.known || ask.asker.standing === 'known'
}

/** The last date that can be booked, in the practice's zone. */
export function lastDate(practice: Practice, service: Service, now: Instant, home: Zone): LocalDate {
  const today = dateAt(home, now)
  const { reach } = service
  switch (reach.kind) {
    case 'days':
      return localDate((dayNumber(today) + reach.days) as DayNumber)
    case 'until':
      return reach.date
    case 'working-days':
      return workingDaysOn(practice, today, reach.days, home)
    case 'months': {
      // Month M opens on a day of the month before; a day that month lacks counts as its last.
      const first = `${today.slice(0, 7)}-01` as LocalDate
      const endOfNext = addMonths(first, 1)
      const daysThisMonth = dayNumber(endOfNext) - dayNumber(first)
      const opened = Number(today.slice(8)) >= Math.min(reach.opensOn, daysThisMonth)
      return localDate((dayNumber(addMonths(first, opened ? 2 : 1)) - 1) as DayNumber)
    }
  }
}

/** How far ahead working days are looked for before giving up, in days. */
const HORIZON = 3 * 366

/**
 * The date `count` working days after `today`, which itself does not count. A working day has hours in the
 * weekly pattern that counts then, and is not wholly away; a date that clocks leave out is none.
 */
export function workingDaysOn(practice: Practice, today: LocalDate, count: number, home: Zone): LocalDate {
  const begin = home.toInstant(dayNumber(today), 0)
  const away = awayTimes(practice, begin, (begin + HORIZON * DAY) as Instant)
  let day = dayNumber(today)
  let left = count
  for (let step = 0; left > 0 && step < HORIZON; step++) {
    day = (day + 1) as DayNumber
    const from = home.toInstant(day, 0)
    const to = home.toInstant((day + 1) as DayNumber, 0)
    const wholly = away.some((away) => away.from <= from && away.to >= to)
    const works = weekOn(practice.hours, localDate(day))[weekday(day) - 1]!.length > 0
    if (from < to && works && !wholly) left--
  }
  return localDate(day)
}
