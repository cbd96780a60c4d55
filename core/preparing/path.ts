import type { Booking } from '../booking/index.ts'
import { isEnded, stateAt } from '../booking/index.ts'
import { type Minor, roundMoney } from '../money/index.ts'
import {
  MOST_OF_A_PATH,
  type Path,
  type PathStation,
  type Practice,
  preparationOf,
  serviceOf,
  taxAt,
} from '../practice/index.ts'
import { freeId } from '../questions/index.ts'
import { after, DAY, type Instant, type Zone } from '../time/index.ts'
import type { Course, GivenPath, PathPay, PathSession, Station } from './course.ts'
import { stationOf } from './give.ts'

/**
 * An amount in so many parts: all alike, rounded down, and the last takes what is left, so that they add up to the last
 * unit. 3,000.00 in seven is six of 428.57 and one of 428.58 (`decisions.md` 17).
 */
export function instalments(amount: Minor, parts: number): Minor[] {
  const each = Math.floor(amount / parts)
  return Array.from({ length: parts }, (_, i) => (i === parts - 1 ? amount - each * (parts - 1) : each))
}

/** An amount shared out by minutes, each share rounded half away from zero; the last takes what is left. */
export function sharesByMinutes(amount: Minor, minutes: readonly number[]): Minor[] {
  const all = minutes.reduce((sum, one) => sum + one, 0)
  let left = amount
  return minutes.map((one, i) => {
    const share = i === minutes.length - 1 ? left : Math.min(left, roundMoney((amount * one) / all))
    left -= share
    return share
  })
}

/** Why a path can't be given or planned; nothing where it can. */
export function pathFault(practice: Practice, { stations }: Path): string | undefined {
  const many = stations.reduce((sum, one) => (one.does === 'sessions' ? sum + one.many : sum), 0)
  if (stations.length === 0) return 'nothing stands on its line.'
  if (many > MOST_OF_A_PATH) return `it has ${many} sessions; ${MOST_OF_A_PATH} are the most.`
  for (const station of stations) {
    if (station.does === 'prepare' && !preparationOf(practice, station.preparation))
      return 'something to prepare on its line is gone from the practice.'
    if (station.does !== 'sessions') continue
    const { service, least, most } = station
    if (!serviceOf(practice, service)) return 'a service on its line is gone from the practice.'
    if (least !== undefined && most !== undefined && most < least)
      return `its sessions must be ${least} days apart at least and ${most} at most.`
  }
  return undefined
}

/** What hinders a path from being longer by so many sessions: twice as many as it may be given with are the most. */
export function longerFault(course: Course, more: number): string | undefined {
  const [after, most] = [pathSessions(course).length + more, 2 * MOST_OF_A_PATH]
  return after > most ? `it would have ${after} sessions; ${most} are the most.` : undefined
}

/** From which of its path's stations something comes. */
interface From {
  from: string
}

/** Gives each name once: another one to what would have the name of something before it. */
function names(): (wanted: string) => string {
  const taken = new Set<string>()
  return (wanted) => {
    const name = freeId(taken, wanted)
    taken.add(name)
    return name
  }
}

/** The sessions of a path, one by one: what each takes, how far from the one before, and what it is worth. */
function sessionsOf(practice: Practice, { price, stations }: Path): (PathSession & From)[] {
  let pause = 0
  const named = names()
  const sessions = stations.flatMap((station): (Omit<PathSession, 'worth'> & From)[] => {
    if (station.does === 'pause') pause += station.days
    if (station.does !== 'sessions') return []
    const { id, service, minutes, many, least, most } = station
    return Array.from({ length: many }, (_, i) => {
      const apart = i === 0 ? pause + (least ?? 0) : (least ?? 0)
      if (i === 0) pause = 0
      return {
        ...{ from: id, id: named(many === 1 ? id : `${id}-${i + 1}`), service, minutes },
        name: serviceOf(practice, service)?.name ?? service,
        ...(apart > 0 ? { least: apart } : {}),
        ...(most === undefined ? {} : { most: Math.max(most, apart) }),
      }
    })
  })
  const worths = sharesByMinutes(
    price,
    sessions.map(({ minutes }) => minutes),
  )
  return sessions.map((one, i) => ({ ...one, worth: worths[i]! }))
}

const isPay = (station: PathStation): station is Extract<PathStation, { does: 'pay' }> =>
  station.does === 'pay'

/** The payments of a path with their dates, counted from its giving; the whole price where nothing else is said. */
function paysOf({ price, stations }: Path, given: Instant, there: Zone): (PathPay & From)[] {
  if (price === 0) return []
  const lines = stations.filter(isPay)
  const parts = lines.reduce((sum, one) => sum + one.parts, 0)
  if (parts === 0) return [{ from: '', id: 'whole', amount: price, due: given }]
  const named = names()
  const amounts = instalments(price, parts)
  return lines.flatMap(({ id, parts: many, after: first, every }) => {
    let due = after(given, first, there)
    return Array.from({ length: many }, (_, i): PathPay & From => {
      if (i > 0) due = after(due, every, there)
      return {
        ...{ from: id, id: named(many === 1 ? id : `${id}-${i + 1}`) },
        ...{ amount: amounts.shift()!, due },
      }
    })
  })
}

/** A path as it is given to somebody: what there is to do, and the line of it with its sessions and dates. */
export function givenPath(
  practice: Practice,
  path: Path,
  given: Instant,
  there: Zone,
): { stations: Station[]; path: GivenPath } {
  const sessions = sessionsOf(practice, path)
  const pays = paysOf(path, given, there)
  const stations = path.stations.flatMap((station): Station[] => {
    const found = station.does === 'prepare' ? preparationOf(practice, station.preparation) : undefined
    return found ? [stationOf(practice, found, station.id)] : []
  })
  const of = (id: string, all: readonly (From & { id: string })[]): string[] =>
    all.flatMap((one) => (one.from === id ? [one.id] : []))
  const placed = path.stations.flatMap((station): string[] => {
    if (station.does === 'sessions') return of(station.id, sessions)
    if (station.does === 'pay') return of(station.id, pays)
    return stations.some(({ id }) => id === station.id) ? [station.id] : []
  })
  const order = [...of('', pays), ...placed]
  const { id, name, price } = path
  const { name: called, rate } = taxAt(practice, given) ?? {}
  return {
    stations,
    path: {
      ...{ id, name, price, currency: practice.profile.currency, order },
      ...(called === undefined || rate === undefined ? {} : { tax: { name: called, rate } }),
      sessions: sessions.map(({ from: _, ...session }) => session),
      pays: pays.map(({ from: _, ...pay }) => pay),
    },
  }
}

const sum = (of: readonly { amount: Minor }[]): Minor => of.reduce((all, { amount }) => all + amount, 0)

/** The parts of a path's price by now: those it was given with, and those of what it was extended by. */
export const pathPays = ({ given, extended = [] }: Course): PathPay[] => [
  ...(given.path?.pays ?? []),
  ...extended.flatMap(({ pays }) => pays),
]

/** What has come for a path, less what was given back. */
export const paidFor = ({ payments = [] }: Course): Minor => sum(payments)

/** A part of the price, and what of it has not come: what comes goes to the earliest. */
export interface PayOfPath extends PathPay {
  open: Minor
  is: 'paid' | 'open' | 'overdue'
}

/** How long after its date a part of the price is late, in ms: a transfer takes as long (common practice, no source). */
const TRANSFER = DAY

/** How the parts of a path's price stand at a moment. */
export function paysAt(course: Course, now: Instant): PayOfPath[] {
  let come = paidFor(course)
  return pathPays(course).map((pay) => {
    const open = Math.min(pay.amount, Math.max(0, pay.amount - come))
    come -= pay.amount
    return { ...pay, open, is: open === 0 ? 'paid' : now > pay.due + TRANSFER ? 'overdue' : 'open' }
  })
}

/** What of a path's price is still to come: all of it, what is due by now, and the part that is next. */
export interface OwingOfPath {
  open: Minor
  due: Minor
  next: PayOfPath
}

/** What of a path's price is still to come; nothing where it has all come, or it was ended. */
export function owingOf(course: Course, now: Instant): OwingOfPath | undefined {
  const parts = course.ended === undefined ? paysAt(course, now).filter(({ open }) => open > 0) : []
  const [next] = parts
  const sumOf = (of: readonly PayOfPath[]): Minor => of.reduce((all, { open }) => all + open, 0)
  return next && { open: sumOf(parts), due: sumOf(parts.filter(({ due }) => due <= now)), next }
}

/** The first part of a path's price that has not come whole, and what of it is open. */
export function nextPay(course: Course): PathPay | undefined {
  const next = owingOf(course, course.latest)?.next
  return next && { id: next.id, amount: next.open, due: next.due }
}

/** How one session of a path stands: to be planned, planned, or used up. */
export interface SessionOfPath {
  session: PathSession
  is: 'left' | 'planned' | 'used'
  booking?: Booking
}

/** How a path stands with somebody. It always adds up: used + planned + left are its sessions, open = price − paid. */
export interface Balance {
  sessions: SessionOfPath[]
  used: number
  planned: number
  left: number
  price: Minor
  /** What has come, less what was given back. */
  paid: Minor
  /** What should have come by now; and what of it is late. */
  due: Minor
  overdue: Minor
  open: Minor
  /** What was used is worth, by minutes; and what is to be given back if it ended now (below nothing, still to be paid). */
  worth: Minor
  back: Minor
}

/**
 * Whether a booking uses up its session of a path: it took place, or it was missed or given up at its whole price. At a
 * part of the price that part is owed, and the session is left.
 */
function usesUp(booking: Booking): boolean {
  const { status, share, asked, leastShare = 0 } = booking
  if (status === 'attended') return true
  if (status === 'missed') return Math.max(asked.houseRules.cancelAfter, leastShare) >= 100
  return status === 'cancelled' && share >= 100
}

/** The sessions a path has by now: those it was given with, and those it was extended by. */
export const pathSessions = ({ given, extended = [] }: Course): PathSession[] => [
  ...(given.path?.sessions ?? []),
  ...extended.flatMap(({ sessions }) => sessions),
]

/**
 * How a path stands.
 * @param bookingOf a booking by its id, as it stands
 */
export function balanceOf(
  course: Course,
  bookingOf: (id: string) => Booking | undefined,
  now: Instant,
): Balance {
  const { booked = {} } = course
  const sessions = pathSessions(course).map((session): SessionOfPath => {
    const booking = booked[session.id] === undefined ? undefined : bookingOf(booked[session.id]!)
    if (!booking) return { session, is: 'left' }
    if (usesUp(booking)) return { session, is: 'used', booking }
    // Missed or given up for less than all of it, it is there once more.
    const lost = isEnded(stateAt(booking, now)) || booking.status === 'missed'
    return lost ? { session, is: 'left' } : { session, is: 'planned', booking }
  })
  const many = (is: SessionOfPath['is']): number => sessions.filter((one) => one.is === is).length
  const pays = paysAt(course, now)
  const price = sum(pays)
  const paid = paidFor(course)
  const due = sum(pays.filter((one) => one.due <= now))
  const overdue = pays.reduce((all, { is, open }) => (is === 'overdue' ? all + open : all), 0)
  const worth = sessions.reduce((all, { is, session }) => (is === 'used' ? all + session.worth : all), 0)
  return {
    sessions,
    ...{ used: many('used'), planned: many('planned'), left: many('left') },
    ...{ price, paid, due, overdue, open: price - paid, worth, back: paid - worth },
  }
}

/** Whether sessions of a path are still to be had: it was not ended, and some are left. */
export const pathGoesOn = (
  course: Course,
  bookingOf: (id: string) => Booking | undefined,
  now: Instant,
): boolean =>
  course.given.path !== undefined && course.ended === undefined && balanceOf(course, bookingOf, now).left > 0
