import ICAL from 'ical.js'
import {
  type DayNumber,
  dayNumber,
  type Instant,
  instant,
  type LocalDate,
  type Zone,
  zone,
} from '../time/index.ts'
import type { WallSeconds } from '../time/rule-text.ts'
import { WINDOWS_ZONES } from '../time/windows-zones.ts'
import { type Component, type Property, writtenIn } from './content.ts'

const DAY = 86_400

/** Something in a calendar that is not understood, with the reason. */
export class NotUnderstood extends Error {}

/** Where wall time and instants meet for the moments of a calendar. */
export interface WallZone {
  toInstant(wall: WallSeconds): Instant
  toWall(at: Instant): WallSeconds
}

/** A moment of a calendar: on the wall somewhere, with or without a time of day. */
export interface Moment {
  wall: WallSeconds
  isDate: boolean
  zone: WallZone
}

/** A zone of the tz database, by the second. */
export function wallZone(where: Zone): WallZone {
  return {
    toInstant: (wall) => {
      const day = Math.floor(wall / DAY)
      const second = wall % 60
      return instant(where.toInstant(day as DayNumber, (wall - second - day * DAY) / 60) + second * 1_000)
    },
    toWall: (at) => Math.floor((at + where.offsetAt(at)) / 1_000) as WallSeconds,
  }
}

const UTC: WallZone = {
  toInstant: (wall) => instant(wall * 1_000),
  toWall: (at) => Math.floor(at / 1_000) as WallSeconds,
}

/** A zone that a calendar describes itself (RFC 5545 §3.6.5). */
function described(part: Component, name: string): WallZone {
  let zone: ICAL.Timezone
  try {
    zone = new ICAL.Timezone(new ICAL.Component(ICAL.parse(textOf(part))))
  } catch {
    throw new NotUnderstood(`what it says of its time zone “${name.slice(0, 60)}” is not understood`)
  }
  const toInstant = (wall: WallSeconds): Instant => {
    const time = ICAL.Time.fromJSDate(new Date(wall * 1_000), true)
    time.zone = zone
    return instant(time.toUnixTime() * 1_000)
  }
  return {
    toInstant,
    toWall: (at) => {
      const time = ICAL.Time.fromJSDate(new Date(at), true).convertToZone(zone)
      return (Date.UTC(time.year, time.month - 1, time.day, time.hour, time.minute, time.second) /
        1_000) as WallSeconds
    },
  }
}

/** Reads moments of one calendar. */
export interface Moments {
  /** @throws NotUnderstood for a value that is none, or a zone that nobody knows */
  read(property: Property): Moment
  /** Several in one property, with the ends of periods where they have one. */
  list(property: Property): { at: Moment; end?: Moment | Length }[]
}

/** How long something lasts: days on the wall, and exact seconds. */
export interface Length {
  days: number
  seconds: number
}

/** A duration (RFC 5545 §3.3.6): weeks and days are nominal, the rest is exact. @throws NotUnderstood */
export function lengthIn(text: string): Length {
  const match =
    /^([+-])?P(?:(\d{1,5})W)?(?:(\d{1,6})D)?(?:T(?:(\d{1,7})H)?(?:(\d{1,8})M)?(?:(\d{1,9})S)?)?$/i.exec(
      text.trim(),
    )
  if (!match || /[PT]$/i.test(text.trim())) throw new NotUnderstood(`“${text.slice(0, 40)}” is no duration`)
  const [weeks, days, hours, minutes, seconds] = match.slice(2).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
    number,
  ]
  const sign = match[1] === '-' ? -1 : 1
  return { days: sign * (weeks * 7 + days), seconds: sign * (hours * 3_600 + minutes * 60 + seconds) }
}

/** The zones of a calendar by their names: of the tz database, its own, as Windows calls them. */
function zonesIn(calendar: Component): (name: string) => WallZone {
  const own = new Map<string, Component>()
  for (const part of calendar.parts) if (part.name === 'VTIMEZONE') own.set(writtenIn(part, 'TZID'), part)
  const known = new Map<string, WallZone>()
  const find = (name: string): WallZone => {
    const plain = tzName(name)
    if (plain) return wallZone(zone(plain))
    const part = own.get(name)
    if (part) return described(part, name)
    const windows = Object.hasOwn(WINDOWS_ZONES, name) ? WINDOWS_ZONES[name] : undefined
    if (windows) return wallZone(zone(windows))
    throw new NotUnderstood(`its time zone “${name.slice(0, 60)}” is not known`)
  }
  return (name) => {
    const before = known.get(name)
    if (before) return before
    const found = find(name)
    known.set(name, found)
    return found
  }
}

/** The name in the tz database: some programs write a path before it. */
function tzName(name: string): string | undefined {
  const parts = name.split('/')
  const tries = name.startsWith('/') ? [parts.slice(-3), parts.slice(-2)] : [parts]
  for (const tried of tries) {
    const text = tried.join('/')
    try {
      return zone(text).name
    } catch {}
  }
  return undefined
}

/** A component as it is written. */
const textOf = ({ name, lines, parts }: Component): string =>
  [`BEGIN:${name}`, ...lines, ...parts.map(textOf), `END:${name}`].join('\r\n')

const pad = (text: string): string => `${text.slice(0, 4)}-${text.slice(4, 6)}-${text.slice(6, 8)}`

/** Reads the moments of a calendar; what has no zone is meant in the one that the calendar names, or at home. */
export function momentsIn(calendar: Component, home: Zone, skipped: string[]): Moments {
  const zoneOf = zonesIn(calendar)
  const said = writtenIn(calendar, 'X-WR-TIMEZONE').trim()
  let floating: WallZone | undefined = wallZone(home)
  if (said) {
    try {
      floating = zoneOf(said)
    } catch (error) {
      if (!(error instanceof NotUnderstood)) throw error
      skipped.push(`the calendar: ${error.message}`)
      floating = undefined
    }
  }
  const days = floating ?? wallZone(home)
  const one = (text: string, { TZID: named }: Property['parameters']): Moment => {
    const match = /^(\d{8})(?:T(\d{2})(\d{2})(\d{2})(Z)?)?$/i.exec(text.trim())
    const [, date, hour, minute, second, utc] = match ?? []
    let day: number
    try {
      day = dayNumber(pad(date ?? '') as LocalDate)
    } catch {
      throw new NotUnderstood(`“${text.slice(0, 40)}” is no date`)
    }
    if (hour === undefined) return { wall: (day * DAY) as WallSeconds, isDate: true, zone: days }
    const [h, m, s] = [Number(hour), Number(minute), Math.min(59, Number(second))]
    if (h > 24 || m > 59) throw new NotUnderstood(`“${text.slice(0, 40)}” is no time`)
    const zone = utc ? UTC : named ? zoneOf(named) : floating
    if (!zone) throw new NotUnderstood('nothing tells its time zone')
    return { wall: (day * DAY + h * 3_600 + m * 60 + s) as WallSeconds, isDate: false, zone }
  }
  return {
    read: ({ value, parameters }) => one(value, parameters),
    list: ({ value, parameters }) =>
      value.split(',').map((text) => {
        const [from, to] = text.split('/')
        const at = one(from!, parameters)
        if (to === undefined) return { at }
        return { at, end: /^[+-]?P/i.test(to) ? lengthIn(to) : one(to, parameters) }
      }),
  }
}

/** The instant of a moment. */
export const momentInstant = ({ wall, zone }: Moment): Instant => zone.toInstant(wall)
