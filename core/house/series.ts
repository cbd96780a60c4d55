import type { SeriesBody } from '../contract/series-types.ts'
import { languageFor } from '../messages/index.ts'
import { type Entry, entryFor } from '../openings/index.ts'
import { clientClocks } from '../practice/index.ts'
import { Refused } from '../request/index.ts'
import { type Instant, moment, type Zone, zone, zonePlace } from '../time/index.ts'
import { refusalWords } from '../words/index.ts'
import { enter } from './desk.ts'
import { published } from './house.ts'
import { lookIn } from './spoken.ts'
import type { Work } from './work.ts'

/**
 * Books somebody in for several sessions, whole or not at all. One message tells of all of them, that of the first.
 * @throws Refused naming the starts that are not free any more
 */
export function enterSeries(work: Work, { sessions, text, silent, ...each }: SeriesBody): { seq: number } {
  const { practice } = published(work.house)
  const taken: Instant[] = []
  const also: Entry[] = []
  const said = silent
    ? { silent }
    : { text: [text?.trim(), datesIn(work, each, sessions)].filter(Boolean).join('\n\n') }
  sessions.forEach(({ id, start }, i) => {
    try {
      const more = i === 0 ? said : { silent: true }
      enter(work, { ...each, ...more, id, start, clash: false }, { also })
      also.push(entryFor(practice, { ...each, id, start, kind: 'session' }))
    } catch (error) {
      if (!(error instanceof Refused) || error.problem.code !== 'not-open') throw error
      taken.push(start)
    }
  })
  if (taken.length > 0) {
    const home = zone(practice.profile.zone)
    const times = taken.map((start) => moment(start, home)).join('; ')
    throw new Refused(409, 'series-taken', { where: 'sessions', data: { times, many: taken.length } })
  }
  return { seq: 2 }
}

/** When all of them are, as whoever comes reads it. */
function datesIn(
  { house }: Work,
  { person, place }: Pick<SeriesBody, 'person' | 'place'>,
  sessions: SeriesBody['sessions'],
): string {
  const { practice } = published(house)
  const { first }: { first: Zone } = clientClocks(practice, place, person.zone)
  return lookIn(house, languageFor(practice, person), () =>
    refusalWords('series.dates', {
      place: zonePlace(first.name),
      times: sessions.map(({ start }) => `– ${moment(start, first)}`).join('\n'),
    }),
  )
}
