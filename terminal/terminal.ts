import { readFileSync } from 'node:fs'
import { type ParseArgsConfig, parseArgs } from 'node:util'
import { bookingEntries, deadlinesOf, holdUntil } from '@acolhida/core/booking'
import { BadCalendar, busyTimes } from '@acolhida/core/formats/busy'
import {
  type Ask,
  type Asker,
  closureWords,
  type Diary,
  type Entry,
  gatherGroups,
  makeDiary,
  newClient,
  openStarts,
  why,
} from '@acolhida/core/openings'
import { normalMail, standingAt } from '@acolhida/core/people'
import {
  checkPractice,
  placeOf,
  questionnaireOf,
  type Service,
  serviceOf,
  zoneOf,
} from '@acolhida/core/practice'
import { type Answers, type Asking, newcomer, problemsIn, readAnswers } from '@acolhida/core/questions'
import {
  answers as answersSchema,
  BadData,
  letIn,
  type ReadFile,
  readPracticeFile,
} from '@acolhida/core/schemas'
import {
  addDays,
  date,
  dateTimeAt,
  dayNumber,
  formatInstant,
  type Instant,
  parseInstant,
  type Zone,
  zone,
} from '@acolhida/core/time'

const USAGE = `acolhida: the core on a practice file; answers are JSON

  validate FILE
  openings FILE --service ID --from DATE --days N --now INSTANT
           [--place ID] [--minutes N | --answers FILE] [--person ID] [--zone Z] [--busy FILE.ics]
  why FILE --service ID --start INSTANT --now INSTANT   (with the same options)
  read FILE --service ID --answers FILE [--person ID]
  deadlines FILE --service ID --start INSTANT --now INSTANT [--place ID]
  calendar FILE.ics --from DATE --days N [--zone Z]      (busy times as the core understands them)

  DATE as 2026-11-24, INSTANT as 2026-11-24T11:00Z
`

/** What can't be done as asked; the message says what and where. */
class Unusable extends Error {}

type Values = Record<string, string | undefined>

const TEXT = { type: 'string' } as const
const ASKED = {
  service: TEXT,
  now: TEXT,
  place: TEXT,
  minutes: TEXT,
  answers: TEXT,
  person: TEXT,
  zone: TEXT,
  busy: TEXT,
}
const OPTIONS: Record<string, NonNullable<ParseArgsConfig['options']>> = {
  validate: {},
  openings: { ...ASKED, from: TEXT, days: TEXT },
  why: { ...ASKED, start: TEXT },
  read: { service: TEXT, answers: TEXT, person: TEXT },
  deadlines: { service: TEXT, start: TEXT, now: TEXT, place: TEXT },
  calendar: { from: TEXT, days: TEXT, zone: TEXT },
}

export interface Result {
  output: string
  error: string
  /** 0; 1 for a practice with errors; 2 for what can't be used. */
  code: number
}

/** Runs one command. Only reads files; the clock is an option. */
export function runTerminal(args: readonly string[]): Result {
  const [command = '', ...rest] = args
  if (['', 'help', '--help', '-h'].includes(command))
    return { output: USAGE, error: '', code: command === '' ? 2 : 0 }
  try {
    const options = OPTIONS[command]
    if (!options) throw new Unusable(`there is no command "${command}"\n\n${USAGE}`)
    const { values, positionals } = parseArgs({ args: rest, options, allowPositionals: true, strict: true })
    const [file, ...more] = positionals
    if (!file || more.length > 0) throw new Unusable(`"${command}" takes one file`)
    const answer = COMMANDS[command]!(file, values as Values)
    const code = command === 'validate' && (answer as { valid: boolean }).valid === false ? 1 : 0
    return { output: `${JSON.stringify(answer, null, 2)}\n`, error: '', code }
  } catch (error) {
    const known =
      error instanceof Unusable ||
      error instanceof BadData ||
      error instanceof BadCalendar ||
      error instanceof RangeError
    const parsing = (error as { code?: string }).code?.startsWith('ERR_PARSE_ARGS')
    if (!known && !parsing) throw error
    return { output: '', error: `acolhida: ${(error as Error).message}\n`, code: 2 }
  }
}

function read(file: string): string {
  try {
    return readFileSync(file, 'utf8')
  } catch (error) {
    throw new Unusable(`${file} can't be read: ${(error as NodeJS.ErrnoException).code}`)
  }
}

const need = (values: Values, name: string): string => {
  const value = values[name]
  if (value === undefined) throw new Unusable(`--${name} is missing`)
  return value
}

/** Reads an option with one of the core's readers, and names the option when that fails. */
function option<T>(values: Values, name: string, reader: (text: string) => T): T {
  try {
    return reader(need(values, name))
  } catch (error) {
    if (error instanceof RangeError) throw new Unusable(`--${name}: ${error.message}`)
    throw error
  }
}

const count = (most: number) => (text: string) => {
  const n = Number(text)
  if (!Number.isInteger(n) || n < 1 || n > most)
    throw new RangeError(`"${text}" is not a whole number from 1 to ${most}`)
  return n
}

interface Given {
  file: ReadFile
  service: Service
  place: string
  minutes: number
  asker: Asker
  asking: Asking
}

function serviceIn(file: ReadFile, values: Values): Service {
  const id = need(values, 'service')
  const service = serviceOf(file.practice, id)
  if (!service)
    throw new Unusable(
      `--service: there is no service "${id}"; there are ${file.practice.services.map((one) => one.id).join(', ')}`,
    )
  return service
}

function placeIn(service: Service, values: Values): string {
  const place = values.place ?? service.places[0]!
  if (!service.places.includes(place)) {
    throw new Unusable(
      `--place: "${service.id}" does not take place at "${place}"; it does at ${service.places.join(', ')}`,
    )
  }
  return place
}

function personIn(file: ReadFile, values: Values, now: Instant): Asker {
  const id = values.person
  if (id === undefined) return newClient
  const person = file.people.find((one) => one.id === id)
  if (!person) throw new Unusable(`--person: there is nobody "${id}" in the file`)
  const theirs = file.bookings.filter((one) => person.emails.includes(normalMail(one.asked.person.email)))
  return {
    who: 'client',
    standing: person.standing ?? standingAt(theirs, now),
    invited: person.invited,
    blocked: person.blocked,
  }
}

function answersIn(path: string): Answers {
  let value: unknown
  try {
    value = JSON.parse(read(path))
  } catch (error) {
    if (error instanceof SyntaxError) throw new Unusable(`${path} is not JSON: ${error.message}`)
    throw error
  }
  return letIn<Answers>(answersSchema, value, path)
}

function given(path: string, values: Values, now: Instant): Given {
  const file = readPracticeFile(read(path), path)
  const service = serviceIn(file, values)
  const asker = personIn(file, values, now)
  const asking: Asking = {
    ...newcomer,
    standing: asker.standing,
    invited: asker.invited.includes(service.id),
  }
  if (values.minutes !== undefined && values.answers !== undefined) {
    throw new Unusable('--minutes and --answers exclude each other: answers have a length of their own')
  }
  let { minutes } = service
  if (values.minutes !== undefined) minutes = option(values, 'minutes', count(14_400))
  if (values.answers !== undefined) {
    const questionnaire = questionnaireOf(file.practice, service)
    minutes = readAnswers(service, questionnaire, answersIn(values.answers), asking).quote.minutes
  }
  return { file, service, place: placeIn(service, values), minutes, asker, asking }
}

function diaryFor(g: Given, values: Values, now: Instant, from: Instant, to: Instant): Diary {
  const { practice, sessions, bookings } = g.file
  const home = zone(practice.profile.zone)
  const busy: Entry[] =
    values.busy === undefined ? [] : busyTimes(read(values.busy), from, to, home, values.busy).entries
  return makeDiary(
    practice,
    gatherGroups(practice, [...sessions, ...bookingEntries(practice, bookings, now), ...busy]),
  )
}

const WEEK = 8 * 86_400_000

const zoneFor = (g: Given, values: Values): Zone =>
  values.zone === undefined
    ? zoneOf(g.file.practice, placeOf(g.file.practice, g.place))
    : option(values, 'zone', zone)

const askFor = (g: Given, now: Instant): Ask => ({
  service: g.service,
  place: g.place,
  minutes: g.minutes,
  asker: g.asker,
  now,
})

const COMMANDS: Record<string, (file: string, values: Values) => unknown> = {
  validate: (path) => {
    try {
      const { practice, sessions, people, bookings } = readPracticeFile(read(path), path)
      const faults = checkPractice(practice)
      return {
        valid: true,
        services: practice.services.length,
        sessions: sessions.length,
        people: people.length,
        bookings: bookings.length,
        warnings: faults.map(({ path, message }) => ({ path: `practice.${path}`, message })),
      }
    } catch (error) {
      if (!(error instanceof BadData)) throw error
      // A file that is no practice at all is not usable; one with faults has them listed.
      if (
        error.faults.some((fault) => fault.path === '' || fault.path === 'version' || fault.path === 'format')
      )
        throw error
      return { valid: false, faults: error.faults }
    }
  },

  openings: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const from = option(values, 'from', date)
    const days = option(values, 'days', count(3_700))
    const g = given(path, values, now)
    const shown = zoneFor(g, values)
    const there = zoneOf(g.file.practice, placeOf(g.file.practice, g.place))
    const begin = there.toInstant(dayNumber(from), 0)
    const end = there.toInstant(dayNumber(addDays(from, days)), 0)
    const diary = diaryFor(g, values, now, (begin - WEEK) as Instant, (end + WEEK) as Instant)
    return {
      service: g.service.id,
      place: g.place,
      minutes: g.minutes,
      zone: shown.name,
      openings: openStarts(g.file.practice, diary, askFor(g, now), from, days).map((start) => ({
        start: formatInstant(start),
        local: dateTimeAt(shown, start),
      })),
    }
  },

  why: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const start = option(values, 'start', parseInstant)
    const g = given(path, values, now)
    const shown = zoneFor(g, values)
    const diary = diaryFor(g, values, now, (start - WEEK) as Instant, (start + WEEK) as Instant)
    const closures = why(g.file.practice, diary, askFor(g, now), start)
    return {
      service: g.service.id,
      place: g.place,
      minutes: g.minutes,
      start: formatInstant(start),
      local: dateTimeAt(shown, start),
      open: closures.length === 0,
      closures: closures.map((closure) => ({
        ...closure,
        words: closureWords(closure, {
          practice: g.file.practice,
          start,
          minutes: g.minutes,
          zone: shown,
          nameOf: (entry) =>
            entry.service
              ? (serviceOf(g.file.practice, entry.service)?.name ?? entry.service)
              : 'another calendar',
        }),
      })),
    }
  },

  read: (path, values) => {
    const file = readPracticeFile(read(path), path)
    const service = serviceIn(file, values)
    const asker = personIn(file, values, 0 as Instant)
    const asking: Asking = {
      ...newcomer,
      standing: asker.standing,
      invited: asker.invited.includes(service.id),
    }
    const questionnaire = questionnaireOf(file.practice, service)
    const answers = answersIn(need(values, 'answers'))
    return {
      service: service.id,
      problems: problemsIn(questionnaire?.questions ?? [], answers, asking),
      ...readAnswers(service, questionnaire, answers, asking),
    }
  },

  deadlines: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const start = option(values, 'start', parseInstant)
    const file = readPracticeFile(read(path), path)
    const service = serviceIn(file, values)
    const there = zoneOf(file.practice, placeOf(file.practice, placeIn(service, values)))
    const { deadlines, shareAfter, missedFrom } = deadlinesOf(file.practice.houseRules, start, there)
    const said = (at: Instant) => ({ at: formatInstant(at), local: dateTimeAt(there, at), passed: now > at })
    return {
      service: service.id,
      zone: there.name,
      start: said(start),
      hold: said(holdUntil(file.practice.answering, now, start, there)),
      deadlines: deadlines.map(({ kind, share, until }) => ({
        kind,
        ...(share === undefined ? {} : { share }),
        ...said(until),
      })),
      shareAfter,
      missedFrom: said(missedFrom),
    }
  },

  calendar: (path, values) => {
    const from = option(values, 'from', date)
    const days = option(values, 'days', count(3_700))
    const home = values.zone === undefined ? zone('UTC') : option(values, 'zone', zone)
    const begin = home.toInstant(dayNumber(from), 0)
    const end = home.toInstant(dayNumber(addDays(from, days)), 0)
    const { entries, skipped } = busyTimes(read(path), begin, end, home, path)
    return {
      zone: home.name,
      busy: entries.map((one) => ({
        start: formatInstant(one.start),
        end: formatInstant(one.end),
        local: `${dateTimeAt(home, one.start)}/${dateTimeAt(home, one.end)}`,
      })),
      skipped,
    }
  },
}
