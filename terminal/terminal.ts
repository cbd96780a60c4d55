import { parseArgs } from 'node:util'
import { countedFor, countedIn, deadlinesOf, holdsFor, holdUntil } from '@acolhida/core/booking'
import { BadCalendar, busyTimes } from '@acolhida/core/formats/busy'
import { writeHoursFile } from '@acolhida/core/formats/calendars'
import { accountOf } from '@acolhida/core/ledger'
import {
  closureWords,
  costOfRules,
  keepsWhole,
  openStarts,
  whatIf,
  whatIfWords,
  why,
} from '@acolhida/core/openings'
import { countedOf, normalMail } from '@acolhida/core/people'
import { checkPractice, hoursOf, placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import { BadData, readPracticeFile } from '@acolhida/core/schemas'
import { verifyAgreements } from '@acolhida/core/terms'
import {
  addDays,
  date,
  dateTimeAt,
  dayNumber,
  formatInstant,
  type Instant,
  parseInstant,
  zone,
} from '@acolhida/core/time'
import { agreementsOf } from '@acolhida/core/waiting'
import {
  askFromOptions,
  diaryFor,
  given,
  personFrom,
  placeIn,
  reckonedIn,
  serviceIn,
  WEEK,
  zoneFor,
} from './given.ts'
import { countOption, need, OPTIONS, option, readGiven, Unusable, USAGE, type Values } from './options.ts'
import { balanceCommand, seriesCommand } from './planning.ts'
import { checkCommand, isBroken, replayCommand } from './questions.ts'
import { fillCommand } from './waiting.ts'

export interface Result {
  output: string
  error: string
  /** 0; 1 for a practice or questions with errors; 2 for what can't be used. */
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
    const broken =
      (['validate', 'verify'].includes(command) && (answer as { valid: boolean }).valid === false) ||
      (command === 'check' && isBroken(answer as ReturnType<typeof checkCommand>))
    const code = broken ? 1 : 0
    // What is a file already goes out as it is.
    const output = typeof answer === 'string' ? answer : `${JSON.stringify(answer, null, 2)}\n`
    return { output, error: '', code }
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

const COMMANDS: Record<string, (file: string, values: Values) => unknown> = {
  validate: (path) => {
    try {
      const { practice, sessions, people, bookings } = readPracticeFile(readGiven(path), path)
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

  standing: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const id = need(values, 'person')
    const file = readPracticeFile(readGiven(path), path)
    const { asker } = personFrom(file, values, now)
    const person = file.people.find((one) => one.id === id)!
    const own = file.bookings.filter(({ asked }) => person.emails.includes(normalMail(asked.person.email)))
    const { houseRules, profile } = file.practice
    const leads = houseRules.counting?.leads ?? []
    const counted = countedOf(own)
    const holds = person.exempt ? [] : holdsFor(leads, counted, now, zone(profile.zone))
    return {
      person: id,
      standing: asker.standing,
      exempt: person.exempt ?? false,
      counted: own.flatMap((booking) => {
        const why = countedFor(booking)
        const one = countedIn(booking)
        if (!why) return []
        return {
          booking: booking.id,
          why,
          points: one?.points ?? 0,
          ...(one ? { at: formatInstant(one.at) } : {}),
          ...(booking.forgiven ? { forgiven: booking.forgiven.text } : {}),
        }
      }),
      holds: holds.map(({ lead, since, until }) => ({
        to: lead.to,
        since: formatInstant(since),
        until: formatInstant(until),
      })),
    }
  },

  ledger: (path, values) => {
    const file = readPracticeFile(readGiven(path), path)
    const person =
      values.person === undefined ? undefined : file.people.find(({ id }) => id === values.person)
    if (values.person !== undefined && !person)
      throw new Unusable(`--person: there is nobody "${values.person}" in the file`)
    const own = file.bookings.filter(
      ({ asked }) => !person || person.emails.includes(normalMail(asked.person.email)),
    )
    const accounts = own.map((booking) => ({ booking: booking.id, ...accountOf(booking) }))
    const sums: Record<string, { owed: number; paid: number; givenBack: number; open: number }> = {}
    for (const { currency, owed, paid, givenBack, open } of accounts) {
      const sum = sums[currency] ?? { owed: 0, paid: 0, givenBack: 0, open: 0 }
      sums[currency] = {
        owed: sum.owed + owed,
        paid: sum.paid + paid,
        givenBack: sum.givenBack + givenBack,
        open: sum.open + open,
      }
    }
    return {
      sums,
      bookings: accounts
        .filter(({ lines }) => lines.length > 0)
        .map(({ lines, ...rest }) => ({
          ...rest,
          lines: lines.map(({ at, booking: _, ...line }) => ({ at: formatInstant(at), ...line })),
        })),
    }
  },

  verify: (path, values) => {
    const { practice, bookings, lines, courses, forgotten } = readPracticeFile(readGiven(path), path)
    const all = agreementsOf(bookings, lines, courses)
    const agreements = all.map(({ agreement }) => agreement)
    const { head, faults } = verifyAgreements(
      practice.terms,
      agreements,
      values.number,
      forgotten.flatMap((one) => one.agreements),
    )
    const named = (index: number | undefined) => {
      const found = index === undefined ? undefined : all[index]
      return found && { booking: found.of, name: found.agreement.name, at: formatInstant(found.agreement.at) }
    }
    return {
      valid: faults.length === 0,
      agreements: all.length,
      number: head,
      faults: faults.map(({ index, what, after }) => ({
        what,
        ...named(index),
        ...(named(after) ? { after: named(after) } : {}),
      })),
    }
  },

  openings: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const from = option(values, 'from', date)
    const days = option(values, 'days', countOption(3_700))
    const g = given(path, values, now)
    const shown = zoneFor(g, values)
    const there = zoneOf(g.file.practice, placeOf(g.file.practice, g.place))
    const begin = there.toInstant(dayNumber(from), 0)
    const end = there.toInstant(dayNumber(addDays(from, days)), 0)
    const diary = diaryFor(g, values, now, (begin - WEEK) as Instant, (end + WEEK) as Instant)
    const ask = askFromOptions(g, now)
    const rewarded = g.whole && g.reading && g.whole.quote.price < g.reading.quote.price
    const lower = rewarded ? keepsWhole(g.file.practice, diary, ask) : () => false
    return {
      service: g.service.id,
      place: g.place,
      minutes: g.minutes,
      ...(g.reading ? { price: g.reading.quote.price } : {}),
      zone: shown.name,
      openings: openStarts(g.file.practice, diary, ask, from, days).map((start) => ({
        start: formatInstant(start),
        local: dateTimeAt(shown, start),
        ...(lower(start) ? { price: g.whole?.quote.price } : {}),
      })),
    }
  },

  why: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const start = option(values, 'start', parseInstant)
    const g = given(path, values, now)
    const shown = zoneFor(g, values)
    const diary = diaryFor(g, values, now, (start - WEEK) as Instant, (start + WEEK) as Instant)
    const closures = why(g.file.practice, diary, askFromOptions(g, now), start)
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

  cost: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const from = option(values, 'from', date)
    const days = option(values, 'days', countOption(366))
    const g = given(path, values, now)
    const there = zoneOf(g.file.practice, placeOf(g.file.practice, g.place))
    const begin = there.toInstant(dayNumber(from), 0)
    const end = there.toInstant(dayNumber(addDays(from, days)), 0)
    const diary = diaryFor(g, values, now, (begin - WEEK) as Instant, (end + WEEK) as Instant)
    const easier = whatIf(g.file.practice, diary, askFromOptions(g, now), from, days)
    return {
      service: g.service.id,
      ...costOfRules(g.file.practice, diary, askFromOptions(g, now), from, days),
      easier: easier.map((whatIf) => ({ ...whatIf, words: whatIfWords(whatIf) })),
    }
  },

  hours: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const { practice } = readPracticeFile(readGiven(path), path)
    const place = values.place === undefined ? undefined : placeOf(practice, values.place)
    if (values.place !== undefined && !place)
      throw new Unusable(`--place: there is no place "${values.place}"`)
    return writeHoursFile(practice, hoursOf(practice, place), zoneOf(practice, place), now)
  },

  read: (path, values) => {
    const file = readPracticeFile(readGiven(path), path)
    need(values, 'answers')
    const now = 0 as Instant
    const { service, problems, reading } = reckonedIn(file, values, personFrom(file, values, now), now)
    return { service: service.id, problems, ...reading }
  },

  check: (path, values) => checkCommand(readPracticeFile(readGiven(path), path), values),

  replay: (path, values) => replayCommand(readPracticeFile(readGiven(path), path), values),

  deadlines: (path, values) => {
    const now = option(values, 'now', parseInstant)
    const start = option(values, 'start', parseInstant)
    const file = readPracticeFile(readGiven(path), path)
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

  series: seriesCommand,
  balance: balanceCommand,

  fill: (path, values) => fillCommand(readPracticeFile(readGiven(path), path), values),

  calendar: (path, values) => {
    const from = option(values, 'from', date)
    const days = option(values, 'days', countOption(3_700))
    const home = values.zone === undefined ? zone('UTC') : option(values, 'zone', zone)
    const begin = home.toInstant(dayNumber(from), 0)
    const end = home.toInstant(dayNumber(addDays(from, days)), 0)
    const { entries, skipped } = busyTimes(readGiven(path), begin, end, home, { what: path })
    return {
      zone: home.name,
      busy: entries.map((entry) => ({
        start: formatInstant(entry.start),
        end: formatInstant(entry.end),
        local: `${dateTimeAt(home, entry.start)}/${dateTimeAt(home, entry.end)}`,
      })),
      skipped,
    }
  },
}
