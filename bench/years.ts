import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Backup } from '@acolhida/core/formats'
import { DAY, HOUR, type Instant, instant, MINUTE, parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { MovableClock } from '../relay/ground/clock.ts'
import { Relay } from '../relay/relay.ts'

export const NOW = parseInstant('2026-11-24T11:00Z')
/** Ten years of a full practice, and about three times that. */
export const SIZES: readonly [bookings: number, people: number][] = [
  [15_000, 3_000],
  [50_000, 10_000],
]
export const SLUG = 'iria-montalvar'

/** Everything that is a moment, moved by so much. */
function shifted<T>(value: T, by: number): T {
  const move = (one: unknown): unknown => {
    if (typeof one === 'number') return one > 1e12 ? one + by : one
    if (Array.isArray(one)) return one.map(move)
    if (typeof one !== 'object' || one === null) return one
    return Object.fromEntries(Object.entries(one).map(([key, inner]) => [key, move(inner)]))
  }
  return move(value) as T
}

/** Starts on working days: six a day to come for sixty days, and as many as are needed in the ten years before. */
function startsOf(
  count: number,
  window: readonly [Instant, Instant] | undefined,
  busy: readonly [Instant, Instant] | undefined,
): Instant[] {
  const today = NOW - (NOW % DAY)
  const isWork = (day: number): boolean => ![0, 6].includes(new Date(day).getUTCDay())
  const days = (from: number, to: number): number[] => {
    const found: number[] = []
    for (let day = from; day < to; day += DAY) if (isWork(day)) found.push(day)
    return found
  }
  const come = days(today + DAY, today + 60 * DAY).flatMap((day) =>
    busy && day >= busy[0] && day < busy[1]
      ? Array.from({ length: 20 }, (_, i) => instant(day + 7 * HOUR + i * 30 * MINUTE))
      : Array.from({ length: 6 }, (_, i) => instant(day + 7 * HOUR + i * 45 * MINUTE)),
  )
  if (window) return come.filter((start) => start >= window[0] && start < window[1])
  const before = days(today - 3_652 * DAY, today)
  const aDay = Math.ceil((count - come.length) / before.length)
  const past = before
    .flatMap((day) => Array.from({ length: aDay }, (_, i) => instant(day + 6 * HOUR + i * 35 * MINUTE)))
    .slice(-Math.max(0, count - come.length))
  return [...past, ...come]
}

/**
 * A practice as it is after ten years: so many bookings by so many people, six a day still to come.
 * @param window only the sessions that begin in it, to compare with a practice that has nothing else
 * @param busy there are twenty a day in it
 */
export function practiceOfYears(
  count: number,
  people: number,
  window?: readonly [Instant, Instant],
  busy?: readonly [Instant, Instant],
): Backup {
  const demo = demoBackup(NOW)
  const template = demo.bookings.find((booking) => booking.id === 'next-odile')!
  const [first] = template.events
  if (first?.type !== 'asked') throw new Error('A record begins with asking.')
  const who = (i: number): { name: string; email: string } => ({
    name: `Person ${i}`,
    email: `person.${i}@example.org`,
  })
  const services = demo.practice.services.map(({ perDay: _, perWeek: __, ...one }) => one)
  return {
    ...demo,
    practice: { ...demo.practice, services, limits: { openRequests: 100 } },
    people: Array.from({ length: people }, (_, i) => {
      const { name, email } = who(i)
      return { ...demo.people[0]!, id: `person-${i}`, name, emails: [email] }
    }),
    enquiries: [],
    bookings: startsOf(count, window, busy).map((start, i) => ({
      id: `booking-${i}`,
      events: shifted(template.events, start - first.start).map((event, nth) => {
        // Nobody has asked after now; all of it within the last days.
        const at = instant(Math.min(event.at, NOW - DAY + nth * MINUTE))
        return event.type === 'asked'
          ? { ...event, at, minutes: 25, person: { ...event.person, ...who(i % people) } }
          : { ...event, at, ...('settles' in event ? { settles: at } : {}) }
      }),
    })),
  }
}

export interface Years {
  relay: Relay
  folder: string
  remove(): void
  close(): Promise<void>
}

/** A relay whose file holds such a practice, as it is after being started: with what is long over out of memory. */
export async function relayOfYears(
  count: number,
  people: number,
  window?: [Instant, Instant],
): Promise<Years> {
  const folder = mkdtempSync(join(tmpdir(), 'acolhida-bench-'))
  await openRelay(folder, () => practiceOfYears(count, people, window)).stop()
  const relay = openRelay(folder)
  return {
    relay,
    folder,
    remove: () => rmSync(folder, { recursive: true, force: true }),
    close: async () => {
      await relay.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** Opens the relay whose file lies in a folder. */
export const openRelay = (folder: string, begin?: () => Backup): Relay =>
  new Relay(
    {
      file: join(folder, 'relay.sqlite'),
      smtp: 'smtp://127.0.0.1:9',
      doorPages: '/none',
      deskPages: '/none',
      requestsPerMinute: 1_000_000,
      memoryDays: 4_000,
      steady: false,
      ...(begin ? { demo: begin } : {}),
    },
    new MovableClock(0, undefined, () => NOW),
  )
