import { awayTimes } from '@acolhida/core/openings'
import { offeredOn, type Practice } from '@acolhida/core/practice'
import {
  DAY,
  dateAt,
  dayNumber,
  durationWords,
  type LocalDate,
  longWeekdayName,
  shift,
  shortDate,
} from '@acolhida/core/time'
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

/** A page on which something of the practice is set. */
export interface PracticePart {
  to: string
  name: string
  key: string
  group: 'At the door' | 'When and where' | 'Behind it'
  /** What is set there now, in a line. */
  now(practice: Practice, today: LocalDate): string
}

/** Everything the practice consists of, in the order in which it is set up. */
export const PRACTICE_PARTS: readonly PracticePart[] = [
  {
    to: '/profile',
    name: 'Who I am',
    key: 'w',
    group: 'At the door',
    now: ({ profile, door }) =>
      [profile.name, profile.headline, door?.open === false ? 'door closed' : 'door open']
        .filter(Boolean)
        .join(' · '),
  },
  {
    to: '/services',
    name: 'Services',
    key: 's',
    group: 'At the door',
    now: ({ services }, today) => {
      const offered = services.filter((service) => offeredOn(service, today))
      const hidden = services.length - offered.length
      return `${named(
        offered.map(({ name }) => name),
        'None at the door',
      )}${hidden > 0 ? ` · ${hidden} not at the door` : ''}`
    },
  },
  {
    to: '/questions',
    name: 'Questions',
    key: 'q',
    group: 'At the door',
    now: ({ questionnaires }) =>
      named(
        questionnaires.map(({ name }) => name),
        'Nothing is asked',
      ),
  },
  {
    to: '/terms',
    name: 'Terms',
    key: 'm',
    group: 'At the door',
    now: ({ terms }) =>
      named(
        terms.map(({ versions }) => versions.at(-1)?.title ?? ''),
        'None',
      ),
  },
  { to: '/rules', name: 'House rules', key: 'r', group: 'At the door', now: ruleWords },
  {
    to: '/services/codes',
    name: 'Price codes',
    key: 'e',
    group: 'At the door',
    now: ({ codes = [] }) => {
      const used = codes.filter(({ idle }) => !idle).length
      return codes.length === 0 ? 'None' : `${used} in use of ${codes.length}`
    },
  },
  {
    to: '/hours',
    name: 'Hours',
    key: 'h',
    group: 'When and where',
    now: (practice, today) => `${weekWords(practice)}${timeAwayWords(practice, today)}`,
  },
  {
    to: '/places',
    name: 'Places',
    key: 'o',
    group: 'When and where',
    now: ({ places }) =>
      named(
        places.map(({ name }) => name),
        'None',
      ),
  },
  { to: '/limits', name: 'Limits', key: 'l', group: 'When and where', now: limitWords },
  {
    to: '/calendars',
    name: 'Other calendars',
    key: 'c',
    group: 'When and where',
    now: ({ calendars = [] }) =>
      named(
        calendars.map(({ name }) => name),
        'None is looked at',
      ),
  },
  {
    to: '/try',
    name: 'Try it',
    key: 'y',
    group: 'Behind it',
    now: () => 'Your door as a client sees it; nothing is kept',
  },
  {
    to: '/hand-out',
    name: 'Hand out the link',
    key: 'k',
    group: 'Behind it',
    now: ({ profile }) => `…/${profile.slug}`,
  },
  {
    to: '/desk',
    name: 'This desk',
    key: 'b',
    group: 'Behind it',
    now: () => 'Backups, the relay, and who may come in here',
  },
]
