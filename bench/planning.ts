import { type Entry, makeDiary, openStarts } from '@acolhida/core/openings'
import { planSessions } from '@acolhida/core/planning'
import { byPractitioner } from '@acolhida/core/request'
import { DAY, type Duration, date, HOUR, instant, parseInstant, time } from '@acolhida/core/time'
import { samplePractice, sampleService } from '../core/tests/sample.ts'
import { sideBySide } from './side-by-side.ts'

const NOW = parseInstant('2026-11-24T11:00Z')
const FROM = date('2026-12-01')
const OTHERS = 2_000

/** 26 sessions in a year with 2,000 others, beside one computation of that year's openings: at most 50 times as much. */
export async function benchPlanning(): Promise<void> {
  const service = sampleService({
    ...{ minutes: 60, notice: 'PT0S' as Duration, reach: { kind: 'days', days: 420 } },
    ...{ starts: { kind: 'every', minutes: 15 }, perWeek: 40 },
  })
  const practice = samplePractice({ services: [service] })
  const entries = Array.from({ length: OTHERS }, (_, i): Entry => {
    const start = instant(NOW + Math.floor((i * 400 * DAY) / OTHERS / (15 * 60_000)) * 15 * 60_000)
    const end = instant(start + HOUR)
    return {
      ...{ id: `o${i}`, kind: 'session', start, end, clearBefore: 10, clearAfter: 10 },
      ...{ service: 'x', place: 'x' },
    }
  })
  const diary = makeDiary(practice, entries)
  const place = service.places[0]!
  const ask = { service, place, minutes: 60, asker: byPractitioner, now: NOW }
  const wish = { ...ask, first: FROM, time: time('10:00'), count: 26, least: 4 }
  const spent = await sideBySide({
    year: () => openStarts(practice, diary, ask, FROM, 365),
    fortnightly: () => planSessions(practice, diary, { ...wish, rhythm: 'fortnight' }),
  })
  const { year, fortnightly } = spent
  console.log(
    `planning: 26 sessions in a year with ${OTHERS.toLocaleString('en')} others ${(fortnightly / year).toFixed(1)} times one computation of its openings (${(fortnightly / 1_000).toFixed(1)} ms); goal 50`,
  )
}
