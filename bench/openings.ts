import { type Ask, type Entry, makeDiary, newClient, openStarts } from '@acolhida/core/openings'
import {
  DAY,
  type DayNumber,
  date,
  dayNumber,
  instant,
  MINUTE,
  minutesOf,
  parseInstant,
  weekday,
  zone,
} from '@acolhida/core/time'
import { samplePractice, sampleService } from '../core/tests/sample.ts'
import { sideBySide } from './side-by-side.ts'
import { bareSweep } from './sweep.ts'
import { naiveLuxon, sensibleLuxon } from './with-luxon.ts'

const FROM = date('2026-11-25')
const DAYS = 365
const BUSY = 5_000
const NOW = parseInstant('2026-11-24T11:00Z')

/** Busy intervals without overlaps, spread over the year; the same ones every time. */
function busyIntervals(): Entry[] {
  let seed = 42
  const random = (): number => {
    seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648
    return seed / 2_147_483_648
  }
  const begin = zone('Europe/Lisbon').toInstant(dayNumber(FROM), 0)
  const slot = (DAYS * DAY) / BUSY
  return Array.from({ length: BUSY }, (_, i) => {
    const start = instant(Math.round((begin + i * slot + random() * slot * 0.5) / MINUTE) * MINUTE)
    const end = instant(start + Math.round((10 + random() * 30) * MINUTE))
    return { id: `b${i}`, kind: 'outside', start, end, clearBefore: 0, clearAfter: 0 }
  })
}

function blocksOfYear(practice: ReturnType<typeof samplePractice>): [number, number][] {
  const here = zone(practice.profile.zone)
  const first = dayNumber(FROM)
  return Array.from({ length: DAYS }, (_, i) => (first + i) as DayNumber).flatMap((day) =>
    practice.hours.weekly[weekday(day) - 1]!.map((block): [number, number] => [
      here.toInstant(day, minutesOf(block.from)),
      here.toInstant(day, minutesOf(block.to)),
    ]),
  )
}

/** Openings of one service over a year against the bare sweep, and against luxon by the day. */
export async function benchOpenings(): Promise<void> {
  const service = sampleService({
    minutes: 30,
    clearBefore: 0,
    clearAfter: 0,
    starts: { kind: 'every', minutes: 5 },
    notice: 'PT0S' as never,
    reach: { kind: 'days', days: 400 },
  })
  const practice = samplePractice({ services: [service] })
  const entries = busyIntervals()
  const diary = makeDiary(practice, entries)
  const ask: Ask = { service, place: 'video', minutes: 30, asker: newClient, now: NOW }
  const ours = () => openStarts(practice, diary, ask, FROM, DAYS)

  const blocks = blocksOfYear(practice)
  const starts = Float64Array.from(entries, (entry) => entry.start)
  const ends = Float64Array.from(entries, (entry) => entry.end)
  const bare = () => bareSweep(blocks, starts, ends, 30 * MINUTE, 5 * MINUTE)
  const found = ours()
  const same = JSON.stringify(found) === JSON.stringify(bare())
  console.log(
    `openings, ${DAYS} days, increment 5, ${BUSY} busy intervals: ${found.length} open; the same yes and no: ${same}`,
  )
  if (!same) throw new Error('The sweep and the core do not agree.')

  const ruled = sampleService({
    ...service,
    clearBefore: 15,
    clearAfter: 15,
    perDay: 4,
    perWeek: 15,
    tidy: true,
    earliestStart: '09:30' as never,
    latestStart: '17:00' as never,
    notice: 'PT24H' as never,
  })
  const strict = samplePractice({
    services: [ruled],
    limits: { perDay: 8, perWeek: 30, openRequests: 2 },
    away: [{ id: 'a', from: '2027-08-01T00:00' as never, to: '2027-08-21T00:00' as never }],
  })
  const strictDiary = makeDiary(strict, entries)
  const ten = Array.from({ length: 10 }, (_, i) =>
    sampleService({
      ...ruled,
      id: `s${i}`,
      minutes: 20 + 10 * i,
      starts: { kind: 'every', minutes: 5 + 5 * (i % 3) },
    }),
  )
  const many = { ...strict, services: ten }
  const spent = await sideBySide({
    bare,
    ours,
    making: () => makeDiary(practice, entries),
    all: () => openStarts(strict, strictDiary, { ...ask, service: ruled }, FROM, DAYS),
    // The diary is made once, and asked for all ten.
    ten: () => {
      const made = makeDiary(many, entries)
      return ten.map((service) =>
        openStarts(many, made, { ...ask, service: service, minutes: service.minutes }, FROM, DAYS),
      )
    },
  })
  const ms = (us: number): string => `${(us / 1_000).toFixed(3)} ms`
  const ratio = (us: number): string => (us / spent.bare).toFixed(2)
  console.log(`  bare sweep ${ms(spent.bare)} of CPU, jumping over what is ruled out`)
  console.log(`  core ${ms(spent.ours)}: ratio ${ratio(spent.ours)} (goal at most 5)`)
  console.log(
    `  with the making of the diary, ${ms(spent.making)}: ratio ${ratio(spent.ours + spent.making)}`,
  )
  console.log(`  with every rule switched on ${ms(spent.all)}: ratio ${ratio(spent.all)} (goal at most 5)`)
  console.log(
    `  ten different services at once, the diary made once, ${ms(spent.ten)}: ratio ${ratio(spent.ten)} (goal at most 30)`,
  )

  const month = 30
  const until = zone('Europe/Lisbon').toInstant((dayNumber(FROM) + month) as DayNumber, 0)
  const inMonth = entries.filter((entry) => entry.start < until)
  const monthDiary = makeDiary(practice, inMonth)
  const works = {
    core: () => openStarts(practice, monthDiary, ask, FROM, month),
    sensible: () => sensibleLuxon(practice, service, inMonth, FROM, month),
    naive: () => naiveLuxon(practice, service, inMonth, FROM, month),
  }
  const answers = Object.values(works).map((work) => JSON.stringify(work()))
  if (new Set(answers).size > 1) throw new Error('luxon and the core do not agree.')
  const days = await sideBySide(works, 5, 1)
  const each = (us: number): string => `${(us / month).toFixed(1)} µs a day`
  console.log(
    `  ${month} days: core ${each(days.core)}; luxon as one would write it ${each(days.sensible)}, ${Math.round(days.sensible / days.core)} times; luxon Intervals ${each(days.naive)}, ${Math.round(days.naive / days.core)} times`,
  )
}
