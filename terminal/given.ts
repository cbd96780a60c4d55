import { bookingEntries } from '@acolhida/core/booking'
import { busyTimes } from '@acolhida/core/formats/busy'
import {
  type Ask,
  type Asker,
  type Diary,
  type Entry,
  gatherGroups,
  makeDiary,
  newClient,
} from '@acolhida/core/openings'
import { normalMail, standingAt, tagsOf } from '@acolhida/core/people'
import {
  placeOf,
  questionnaireOf,
  type Service,
  serviceOf,
  travelZoneOf,
  zoneOf,
} from '@acolhida/core/practice'
import { type Answers, type Asking, newcomer, type Reading } from '@acolhida/core/questions'
import { leastLength } from '@acolhida/core/questions/least'
import { type Reckoned, reckon } from '@acolhida/core/request'
import { answers as answersSchema, letIn, type ReadFile, readPracticeFile } from '@acolhida/core/schemas'
import { type Instant, type Zone, zone } from '@acolhida/core/time'
import { countOption, need, option, readGiven, Unusable, type Values } from './options.ts'

/** Who asks, and the tags that rules may look at. */
export interface Someone {
  asker: Asker
  tags: string[]
}

/** What a question about openings is asked with. */
export interface Given {
  file: ReadFile
  /** With the way there and back kept clear, where a travel zone is given. */
  service: Service
  place: string
  minutes: number
  /** Of the answers and whatever else was chosen, when there is any. */
  reading: Reading | undefined
  /** The same at a start that keeps the day whole. */
  whole: Reading | undefined
  asker: Asker
}

export function serviceIn(file: ReadFile, values: Values): Service {
  const id = need(values, 'service')
  const service = serviceOf(file.practice, id)
  if (!service)
    throw new Unusable(
      `--service: there is no service "${id}"; there are ${file.practice.services.map((service) => service.id).join(', ')}`,
    )
  return service
}

export function placeIn(service: Service, values: Values): string {
  const place = values.place ?? service.places[0]!
  if (!service.places.includes(place)) {
    throw new Unusable(
      `--place: "${service.id}" does not take place at "${place}"; it does at ${service.places.join(', ')}`,
    )
  }
  return place
}

export function personFrom(file: ReadFile, values: Values, now: Instant): Someone {
  const id = values.person
  if (id === undefined) return { asker: newClient, tags: [] }
  const person = file.people.find((person) => person.id === id)
  if (!person) throw new Unusable(`--person: there is nobody "${id}" in the file`)
  const theirs = file.bookings.filter((booking) =>
    person.emails.includes(normalMail(booking.asked.person.email)),
  )
  const asker: Asker = {
    who: 'client',
    standing: person.standing ?? (person.known ? 'known' : standingAt(theirs, now)),
    invited: person.invited,
    blocked: person.blocked,
  }
  return { asker, tags: tagsOf(person, theirs) }
}

export function answersIn(path: string): Answers {
  let value: unknown
  try {
    value = JSON.parse(readGiven(path))
  } catch (error) {
    if (error instanceof SyntaxError) throw new Unusable(`${path} is not JSON: ${error.message}`)
    throw error
  }
  return letIn<Answers>(answersSchema, value, path)
}

/** What the values on the line come to for a person, by the one reckoning. @throws Unusable for what there is not */
export function reckonedIn(file: ReadFile, values: Values, who: Someone, now: Instant): Reckoned {
  const service = serviceIn(file, values)
  const at = placeOf(file.practice, placeIn(service, values))
  const extras = (values.extras ?? '').split(',').filter(Boolean)
  const known = (service.extras ?? []).map((extra) => extra.id)
  const odd = extras.find((id) => !known.includes(id))
  if (odd !== undefined)
    throw new Unusable(`--extras: "${service.id}" has no "${odd}"; it has ${known.join(', ') || 'none'}`)
  if (values.travel !== undefined && !travelZoneOf(at, values.travel)) {
    const there = (at?.travel ?? []).map((zone) => zone.id).join(', ') || 'none'
    throw new Unusable(`--travel: there is no zone "${values.travel}" at "${at?.id}"; there are ${there}`)
  }
  const asking: Asking = {
    ...newcomer,
    standing: who.asker.standing,
    invited: who.asker.invited.includes(service.id),
    tags: who.tags,
  }
  const answers = values.answers === undefined ? {} : answersIn(values.answers)
  const wish = { service: service.id, answers, extras, travel: values.travel }
  return reckon(file.practice, wish, { by: 'client', asking }, { now, used: () => 0 })
}

export function given(path: string, values: Values, now: Instant): Given {
  const file = readPracticeFile(readGiven(path), path)
  const who = personFrom(file, values, now)
  if (values.minutes !== undefined && values.answers !== undefined) {
    throw new Unusable('--minutes and --answers exclude each other: answers have a length of their own')
  }
  const place = placeIn(serviceIn(file, values), values)
  const { service, reading, whole } = reckonedIn(file, values, who, now)
  const said = values.answers ?? values.extras ?? values.travel
  const known = said === undefined ? undefined : { reading, whole }
  const minutes =
    values.minutes === undefined
      ? (known?.reading.quote.minutes ?? leastLength(service, questionnaireOf(file.practice, service)))
      : option(values, 'minutes', countOption(14_400))
  return { file, service, place, minutes, reading: known?.reading, whole: known?.whole, asker: who.asker }
}

export function diaryFor(g: Given, values: Values, now: Instant, from: Instant, to: Instant): Diary {
  const { practice, sessions, bookings } = g.file
  const home = zone(practice.profile.zone)
  const busy: Entry[] =
    values.busy === undefined
      ? []
      : busyTimes(readGiven(values.busy), from, to, home, { what: values.busy }).entries
  return makeDiary(
    practice,
    gatherGroups(practice, [...sessions, ...bookingEntries(practice, bookings, now), ...busy]),
  )
}

export const WEEK = 8 * 86_400_000

export const zoneFor = (g: Given, values: Values): Zone =>
  values.zone === undefined
    ? zoneOf(g.file.practice, placeOf(g.file.practice, g.place))
    : option(values, 'zone', zone)

export const askFromOptions = (g: Given, now: Instant): Ask => ({
  service: g.service,
  place: g.place,
  minutes: g.minutes,
  asker: g.asker,
  now,
})
