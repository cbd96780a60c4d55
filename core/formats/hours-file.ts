import ICAL from 'ical.js'
import { awayTimes } from '../openings/index.ts'
import {
  type Block,
  type ChangedDay,
  clockChanges,
  type Hours,
  type Practice,
  withoutSeasons,
} from '../practice/index.ts'
import {
  addDays,
  DAY,
  type DayNumber,
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  localDate,
  MINUTE,
  minutesOf,
  shift,
  type Weekday,
  wallTime,
  weekday,
  type Zone,
} from '../time/index.ts'
import { availabilityIn, type Stretch } from './availability.ts'
import { BadCalendar, calendarsIn } from './content.ts'
import { newCalendar, utcTime, writeCalendar } from './icalendar.ts'
import { momentsIn } from './moments.ts'
import { vtimezone } from './timezone.ts'

/** How far hours are written and read, in days: what lies beyond is the weekly pattern alone. */
const SPAN = 400

const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']

/** A date and a wall time in a zone. A day's end at 24:00 is the beginning of the next. */
function wall(date: LocalDate, minutes: number, zone: Zone, name: string): ICAL.Property {
  const day = minutes === 1440 ? addDays(date, 1) : date
  const [year, month, dayOfMonth] = day.split('-').map(Number) as [number, number, number]
  const time = ICAL.Time.fromData({
    year,
    month,
    day: dayOfMonth,
    hour: Math.floor((minutes % 1440) / 60),
    minute: minutes % 60,
    second: 0,
    isDate: false,
  })
  const property = new ICAL.Property(name)
  property.setValue(time)
  if (zone.name !== 'UTC') property.setParameter('tzid', zone.name)
  return property
}

/** Blocks as they are compared. */
const key = (blocks: readonly Block[]): string => blocks.map((block) => `${block.from}-${block.to}`).join()

interface Written {
  zone: Zone
  uid: () => string
  stamp: Instant
}

function available(block: Block, first: LocalDate, { zone, uid, stamp }: Written): ICAL.Component {
  const component = new ICAL.Component('available')
  component.updatePropertyWithValue('uid', uid())
  component.updatePropertyWithValue('dtstamp', utcTime(stamp))
  component.addProperty(wall(first, minutesOf(block.from), zone, 'dtstart'))
  component.addProperty(wall(first, minutesOf(block.to), zone, 'dtend'))
  return component
}

/**
 * The weekly blocks: each once, with the weekdays on which it comes, and the changed days left out. An occurrence lasts
 * exactly as long as the first (RFC 5545 §3.8.5.3): where a change of clocks makes a block longer or shorter, that day
 * stands by itself.
 */
function weeklyBlocks(hours: Hours, from: LocalDate, written: Written): ICAL.Component[] {
  const same = new Map<string, { block: Block; days: Weekday[] }>()
  hours.weekly.forEach((blocks, i) => {
    for (const block of blocks) {
      const found = same.get(key([block])) ?? { block, days: [] }
      found.days.push((i + 1) as Weekday)
      same.set(key([block]), found)
    }
  })
  const changed = new Set(hours.changedDays.map(({ date }) => date))
  const odd = clockChanges({ ...hours, changedDays: [] }, written.zone, from, SPAN)
  return [...same.values()].flatMap(({ block, days }) => {
    const otherwise = odd.filter((change) => key([change.block]) === key([block]))
    const alone = new Set(otherwise.map(({ date }) => date))
    let first = from
    while (!days.includes(weekday(dayNumber(first))) || alone.has(first)) first = addDays(first, 1)
    const component = available(block, first, written)
    const names = days.map((day) => WEEKDAYS[day - 1]).join(',')
    component.updatePropertyWithValue('rrule', ICAL.Recur.fromString(`FREQ=WEEKLY;BYDAY=${names}`))
    for (const date of new Set([...changed, ...alone])) {
      if (date < first || !days.includes(weekday(dayNumber(date)))) continue
      component.addProperty(wall(date, minutesOf(block.from), written.zone, 'exdate'))
    }
    const singles = otherwise
      .filter(({ date, minutes }) => minutes > 0 && !changed.has(date))
      .map(({ date }) => available(block, date, written))
    return [component, ...singles]
  })
}

/**
 * Hours as an iCalendar file with VAVAILABILITY (RFC 7953): the weekly blocks as they repeat, changed days in their
 * place, and time away as a component of higher priority in which nothing is available.
 * @param zone the zone the hours are kept in
 */
export function writeHoursFile(practice: Practice, own: Hours, zone: Zone, now: Instant): string {
  const { slug, name } = practice.profile
  const from = dateAt(zone, now)
  const hours = withoutSeasons(own, from, SPAN)
  const end = shift(now, SPAN * DAY)
  let n = 0
  const written = { zone, stamp: now, uid: () => `hours-${++n}@${slug}.acolhida` }
  const calendar = newCalendar('PUBLISH')
  if (zone.name !== 'UTC')
    calendar.addSubcomponent(vtimezone(zone, shift(now, -370 * DAY), shift(end, 800 * DAY)))
  const usual = new ICAL.Component('vavailability')
  usual.updatePropertyWithValue('uid', written.uid())
  usual.updatePropertyWithValue('dtstamp', utcTime(now))
  usual.updatePropertyWithValue('summary', `Hours of ${name}`)
  usual.updatePropertyWithValue('priority', 5)
  usual.addProperty(wall(from, 0, zone, 'dtstart'))
  for (const component of weeklyBlocks(hours, from, written)) usual.addSubcomponent(component)
  for (const day of hours.changedDays.filter((changed) => changed.date >= from)) {
    for (const block of day.blocks) usual.addSubcomponent(available(block, day.date, written))
  }
  calendar.addSubcomponent(usual)
  for (const away of awayTimes(practice, now, end).filter((away) => away.to > now && away.from < end)) {
    const component = new ICAL.Component('vavailability')
    component.updatePropertyWithValue('uid', written.uid())
    component.updatePropertyWithValue('dtstamp', utcTime(now))
    component.updatePropertyWithValue('priority', 1)
    component.updatePropertyWithValue('dtstart', utcTime(away.from))
    component.updatePropertyWithValue('dtend', utcTime(away.to))
    calendar.addSubcomponent(component)
  }
  return writeCalendar(calendar)
}

/** Hours as they were found in a file. */
export interface FoundHours {
  hours: Hours
  /** Until when the file was looked at: beyond it the weekly pattern counts. */
  until: LocalDate
  skipped: string[]
}

/** The part of a date that is free, as blocks of its wall time. */
function blocksOf(free: readonly Stretch[], day: DayNumber, zone: Zone): Block[] {
  const begin = zone.toInstant(day, 0)
  const end = zone.toInstant((day + 1) as DayNumber, 0)
  const minute = (at: Instant): number => {
    const there = zone.toWall(at)
    return there.day > day ? 1440 : Math.floor(there.ms / MINUTE)
  }
  return free
    .filter((stretch) => stretch.from < end && stretch.to > begin)
    .map((stretch) => ({
      from: wallTime(minute(Math.max(stretch.from, begin) as Instant)),
      to: wallTime(minute(Math.min(stretch.to, end) as Instant)),
    }))
    .filter((block) => block.from < block.to)
}

/**
 * Reads hours from an iCalendar file with VAVAILABILITY: what is the same on most dates of a weekday is its weekly
 * pattern, and every date that differs is a changed day. Times of which the file says nothing are no hours.
 * @throws BadCalendar when it is none, or says nothing of availability
 */
export function readHoursFile(source: string, zone: Zone, now: Instant, what = 'The file'): FoundHours {
  const skipped: string[] = []
  const calendar = calendarsIn(source, what, skipped).find(({ parts }) =>
    parts.some((part) => part.name === 'VAVAILABILITY'),
  )
  if (!calendar) {
    throw new BadCalendar(what, 'says nothing of when somebody is available (VAVAILABILITY, RFC 7953)')
  }
  const first = dayNumber(dateAt(zone, now))
  const days = Array.from({ length: SPAN }, (_, i) => (first + i) as DayNumber)
  const begin = zone.toInstant(first, 0)
  const { free, covered } = availabilityIn(
    calendar,
    momentsIn(calendar, zone, skipped),
    begin,
    zone.toInstant((first + SPAN) as DayNumber, 0),
    skipped,
  )
  const said = (day: DayNumber): boolean => {
    const at = zone.toInstant(day, 720)
    return covered.some((stretch) => stretch.from <= at && stretch.to > at)
  }
  const found = new Map(days.map((day) => [day, blocksOf(free, day, zone)]))
  const weekly = [1, 2, 3, 4, 5, 6, 7].map((name): Block[] => {
    const counts = new Map<string, { blocks: Block[]; count: number }>()
    for (const day of days) {
      if (weekday(day) !== name || !said(day)) continue
      const blocks = found.get(day)!
      const before = counts.get(key(blocks))
      counts.set(key(blocks), { blocks, count: (before?.count ?? 0) + 1 })
    }
    return [...counts.values()].sort((a, b) => b.count - a.count)[0]?.blocks ?? []
  }) as Hours['weekly']
  const changedDays = days.flatMap((day): ChangedDay[] => {
    const blocks = found.get(day)!
    return key(blocks) === key(weekly[weekday(day) - 1]!) ? [] : [{ date: localDate(day), blocks }]
  })
  return { hours: { weekly, changedDays }, until: localDate((first + SPAN - 1) as DayNumber), skipped }
}
