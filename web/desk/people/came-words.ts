import type { Practice } from '@acolhida/core/practice'
import { dateAt, dateWords, type Instant, languageName, zonePlace } from '@acolhida/core/time'
import type { AllOfTheirs } from '../data/of-person.ts'
import type { PersonRow } from '../data/rows.ts'
import { homeZone, serviceName } from '../parts/words.ts'

/** How somebody came to the practice, in words: what was noted of it, and what came first. */
export function cameWords(
  practice: Practice,
  { cameFrom, movedIn }: Pick<PersonRow, 'cameFrom' | 'movedIn'>,
  { bookings, enquiries, lines }: AllOfTheirs,
): string[] {
  const asked = bookings.map((one) => ({
    at: one.asked.at as Instant,
    words: `asked for ${serviceName(practice, one.service)}`,
  }))
  const wrote = enquiries.map(({ at }) => ({ at, words: 'wrote to you' }))
  const waited = lines.flatMap(({ events: [first] }) =>
    first?.type === 'joined'
      ? [{ at: first.at, words: `got in line for ${serviceName(practice, first.service)}` }]
      : [],
  )
  const [first] = [...asked, ...wrote, ...waited].toSorted((a, b) => a.at - b.at)
  return [
    ...(cameFrom ? [`Came from: ${cameFrom}`] : []),
    ...(first ? [`First ${first.words}, ${dateWords(dateAt(homeZone(practice), first.at))}`] : []),
    ...(movedIn ? [`Moved in with ${movedIn.slice(movedIn.indexOf(' ') + 1)}`] : []),
  ]
}

/** By which clock somebody lives, and in which language they read, as they said last. */
export function clockWords({ bookings, courses, lines }: AllOfTheirs): string[] {
  const people = [
    ...bookings.map(({ asked }) => ({ at: asked.at, person: asked.person })),
    ...courses.map(({ course: { given } }) => ({ at: given.at, person: given.person })),
    ...lines.flatMap(({ events: [first] }) =>
      first?.type === 'joined' ? [{ at: first.at, person: first.person }] : [],
    ),
  ].toSorted((a, b) => b.at - a.at)
  const [last] = people
  if (!last) return []
  const language = people.find(({ person }) => person.language)?.person.language
  return [
    `By the clock of ${zonePlace(last.person.zone)}`,
    ...(language ? [`Reads in ${languageName(language)}`] : []),
  ]
}
