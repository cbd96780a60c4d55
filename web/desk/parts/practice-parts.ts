import { awayTimes } from '@acolhida/core/openings'
import { languagesOf, offeredOn, type Practice } from '@acolhida/core/practice'
import {
  DAY,
  dateAt,
  dayNumber,
  durationWords,
  type LocalDate,
  languageName,
  longWeekdayName,
  shift,
  shortDate,
} from '@acolhida/core/time'
import { PRACTICE_PLACES, type PracticePlace } from './practice-places.ts'
import { counted, homeZone, hoursAWeek } from './words.ts'

/** How far ahead time away is looked for, in days. */
const AHEAD = 365

/** A few by their names, the others counted: "A, B and 3 more". */
function named(names: readonly string[], none: string): string {
  if (names.length === 0) return none
  if (names.length <= 3) return names.join(', ')
  return `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`
}

/** Hours of a usual week, with the days that have any: "36 hours a week, Monday to Friday". */
function weekWords({ hours: { weekly } }: Practice): string {
  const days = weekly.flatMap((blocks, i) => (blocks.length > 0 ? [i + 1] : []))
  if (days.length === 0) return 'No hours yet'
  const [first, last] = [days[0]!, days.at(-1)!]
  const run = last - first + 1 === days.length && days.length > 2
  const which = run
    ? `${longWeekdayName(first)} to ${longWeekdayName(last)}`
    : days.map((day) => longWeekdayName(day)).join(', ')
  return `${hoursAWeek(weekly)}, ${which}`
}

function limitWords({ limits, answering }: Practice): string {
  const most = [
    ...(limits.perDay ? [`${counted(limits.perDay, 'session', 'sessions')} a day at most`] : []),
    ...(limits.perWeek ? [`${counted(limits.perWeek, 'session', 'sessions')} a week at most`] : []),
  ]
  return [...most, `requests wait ${durationWords(answering.answerTime)} for your answer`].join(', ')
}

function ruleWords({ houseRules: { cancel, cancelAfter, move } }: Practice): string {
  const free = cancel.find(({ share }) => share === 0)
  const cancelling =
    cancelAfter === 0
      ? 'Cancelling is free of charge'
      : free
        ? `Free to cancel until ${durationWords(free.until)} before`
        : 'Cancelling always costs something'
  const moving =
    move.times === 0 ? 'clients can’t move' : `clients can move until ${durationWords(move.until)} before`
  return `${cancelling}, ${moving}`
}

function timeAwayWords(practice: Practice, today: LocalDate): string {
  const where = homeZone(practice)
  const now = where.toInstant(dayNumber(today), 0)
  const next = awayTimes(practice, now, shift(now, AHEAD * DAY)).find(({ to }) => to > now)
  if (!next) return ''
  return next.from <= now ? '; away today' : `; away next from ${shortDate(dateAt(where, next.from))}`
}

type Now = (practice: Practice, today: LocalDate) => string

/** What is set on each page of the practice now, in a line. */
const NOW: Readonly<Record<(typeof PRACTICE_PLACES)[number]['to'], Now>> = {
  '/profile': ({ profile, door }) =>
    [profile.name, profile.headline, door?.open === false ? 'door closed' : 'door open']
      .filter(Boolean)
      .join(' · '),
  '/services': ({ services }, today) => {
    const offered = services.filter((service) => offeredOn(service, today))
    const hidden = services.length - offered.length
    return `${named(
      offered.map(({ name }) => name),
      'None at the door',
    )}${hidden > 0 ? ` · ${hidden} not at the door` : ''}`
  },
  '/questions': ({ questionnaires }) =>
    named(
      questionnaires.map(({ name }) => name),
      'Nothing is asked',
    ),
  '/terms': ({ terms }) =>
    named(
      terms.map(({ versions }) => versions.at(-1)?.title ?? ''),
      'None',
    ),
  '/sent': ({ sequences = [], messaging }) =>
    messaging?.paused
      ? 'All of it rests'
      : named(
          sequences.map(({ name }) => name),
          'Receipts and confirmations only',
        ),
  '/preparations': ({ preparations = [] }) =>
    named(
      preparations.map(({ name }) => name),
      'Nothing',
    ),
  '/paths': ({ paths = [] }) =>
    named(
      paths.map(({ name }) => name),
      'None',
    ),
  '/words': (practice) => languagesOf(practice).map(languageName).join(', '),
  '/services/codes': ({ codes = [] }) => {
    const used = codes.filter(({ idle }) => !idle).length
    return codes.length === 0 ? 'None' : `${used} in use of ${codes.length}`
  },
  '/hours': (practice, today) => `${weekWords(practice)}${timeAwayWords(practice, today)}`,
  '/places': ({ places }) =>
    named(
      places.map(({ name }) => name),
      'None',
    ),
  '/calendars': ({ calendars = [] }) =>
    named(
      calendars.map(({ name }) => name),
      'None is looked at',
    ),
  '/try': () => 'Your door as a client sees it; nothing is kept',
  '/hand-out': ({ profile }) => `…/${profile.slug}`,
  '/desk': () => 'Backups, the relay, and who may come in here',
  '/rules': ruleWords,
  '/limits': limitWords,
}

/** Everything the practice consists of, in the order in which it is set up, with what is set now. */
export const PRACTICE_PARTS: readonly (PracticePlace & { now: Now })[] = PRACTICE_PLACES.map((place) => ({
  ...place,
  now: NOW[place.to],
}))
