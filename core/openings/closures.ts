import { serviceOf } from '../practice/find.ts'
import type { Practice, Service } from '../practice/types.ts'
import {
  dateAt,
  dayNumber,
  durationWords,
  type Instant,
  type LocalDate,
  MINUTE,
  moment,
  shift,
  shortDate,
  span,
  timeAt,
  weekday,
  type Zone,
} from '../time/index.ts'
import type { Entry } from './diary.ts'

/** What each rule refers to when it closes a start. */
interface Own {
  past: object
  /** Open from `from` on; `week` when the whole week has closed. */
  notice: { service: string; from: Instant; week: boolean }
  reach: { service: string; last: LocalDate }
  away: { away: string; note?: string }
  hours: { date: LocalDate; because: 'none' | 'outside' | 'reserved' | 'clear'; changed: boolean }
  grid: { service: string }
  'day-edge': { service: string; edge: 'earliest' | 'latest' }
  overlap: { entry: Entry }
  /** `needed` and `left` in minutes. */
  clear: { entry: Entry; side: 'before' | 'after'; needed: number; left: number }
  'day-limit': Limit
  'week-limit': Limit
  full: { service: string; because: 'no-seat' | 'no-date' | 'too-few' }
  /** `left` minutes would stay free there, too few to use. */
  untidy: { service: string; side: 'before' | 'after'; left: number }
  /** `path`: on their path it lies from one day to another. */
  person:
    | { because: 'path'; from?: LocalDate; to?: LocalDate }
    | { because: 'invited-only' | 'link-only' | 'blocked' }
}

interface Limit {
  of: 'service' | 'practice'
  service: string
  limit: number
}

export type ClosureRule = keyof Own
/** Why a start can't be booked: a rule and what it refers to. */
export type Closure = { [K in keyof Own]: { rule: K } & Own[K] }[keyof Own]

/** What a closure is told with. */
export interface ClosureAbout {
  practice: Practice
  start: Instant
  minutes: number
  zone: Zone
  /** What to call an entry of the diary ("Coaching with L. Bielak"); the core knows no names. */
  nameOf: (entry: Entry) => string
}

interface Telling extends ClosureAbout {
  end: Instant
  service(id: string): string
  /** A value of a service, in words. */
  of(id: string, say: (service: Service) => string | undefined): string
  entry(entry: Entry): string
}

/** Where the rule behind a closure is changed, or what is in the way is seen. */
export type ClosurePlace =
  | { at: 'calendars' | 'people' }
  /** `day`: which day of the week, 0 is Monday. */
  | { at: 'hours'; day?: number }
  | { at: 'request'; id: string }
  /** `setting`: its path in a service, or in the practice's limits. */
  | { at: 'service'; id: string; setting?: string }
  | { at: 'limits'; setting: string }

interface ClosureKind<K extends ClosureRule> {
  /** What it is called where its cost is told; nothing where it costs nobody a start. */
  name: string
  /** A sentence for the practitioner. */
  words(closure: Own[K], telling: Telling): string
  place(closure: Own[K]): ClosurePlace | undefined
}

const ofService =
  (setting?: string) =>
  ({ service }: { service: string }): ClosurePlace => ({
    at: 'service',
    id: service,
    ...(setting ? { setting } : {}),
  })

const ofLimit =
  (setting: 'perDay' | 'perWeek') =>
  ({ of, service }: Limit): ClosurePlace =>
    of === 'practice'
      ? { at: 'limits', setting: `limits.${setting}` }
      : { at: 'service', id: service, setting }

function ofEntry({ entry: { kind, request, service } }: { entry: Entry }): ClosurePlace | undefined {
  if (kind === 'outside') return { at: 'calendars' }
  if (request) return { at: 'request', id: request }
  return service ? { at: 'service', id: service } : undefined
}

const startsWords = ({ starts }: Service): string =>
  starts.kind === 'every'
    ? `, but every ${starts.minutes} min from the beginning of a block`
    : `, but at ${starts.times.join(', ')}`

const RESERVED: Record<Own['hours']['because'], (day: string) => string> = {
  none: (day) => `There are no hours on ${day}.`,
  outside: (day) => `It does not lie inside one block of your hours on ${day}.`,
  reserved: (day) => `These hours on ${day} are reserved for something else.`,
  clear: (day) => `The time kept clear would reach outside your hours on ${day}.`,
}

const limitWords =
  (often: string) =>
  ({ of, service, limit }: Limit, t: Telling): string =>
    `${of === 'practice' ? 'Your' : `${t.service(service)}'s`} ${often} limit of ${limit} is reached.`

/** Everything about each rule that can close a start, in the order in which they are named. */
export const CLOSURES: { [K in ClosureRule]: ClosureKind<K> } = {
  past: { name: 'the clock', words: () => 'It has passed.', place: () => undefined },
  notice: {
    name: 'notice',
    words: ({ week, from, service }, t) =>
      week
        ? `That week is closed already; the next open one begins ${shortDate(dateAt(t.zone, from))}.`
        : `It is too soon: ${t.service(service)} needs a notice${t.of(service, ({ notice }) => ` of ${durationWords(notice)}`)}, so times open from ${moment(from, t.zone)}.`,
    place: ({ week, service }) =>
      week ? { at: 'limits', setting: 'weekCloses' } : { at: 'service', id: service, setting: 'notice' },
  },
  reach: {
    name: 'reach',
    words: ({ service, last }, t) =>
      `It is too far ahead: ${t.service(service)} can be booked until ${shortDate(last)}.`,
    place: ofService('reach'),
  },
  away: {
    name: 'time away',
    words: ({ note }) => (note ? `You are away then: ${note}.` : 'You are away then.'),
    place: () => ({ at: 'hours' }),
  },
  hours: {
    name: 'hours',
    words: ({ because, date, changed }) =>
      `${RESERVED[because](shortDate(date))}${changed ? ' That day has changed hours.' : ''}`,
    place: ({ date }) => ({ at: 'hours', day: weekday(dayNumber(date)) - 1 }),
  },
  grid: {
    name: 'the grid of starts',
    words: ({ service }, t) =>
      `${t.service(service)} does not start at ${timeAt(t.zone, t.start)}${t.of(service, startsWords)}.`,
    place: ofService('starts'),
  },
  'day-edge': {
    name: 'the edges of the day',
    words: ({ service, edge }, t) =>
      `${t.service(service)} does not start ${
        edge === 'earliest'
          ? t.of(service, ({ earliestStart: first }) => first && `before ${first}`) || 'so early in the day'
          : t.of(service, ({ latestStart: last }) => last && `after ${last}`) || 'so late in the day'
      }.`,
    place: ({ service, edge }) => ({
      at: 'service',
      id: service,
      setting: edge === 'earliest' ? 'earliestStart' : 'latestStart',
    }),
  },
  overlap: {
    name: 'sessions and events',
    words: ({ entry }, t) => `It would run until ${timeAt(t.zone, t.end)}, into ${t.entry(entry)}.`,
    place: ofEntry,
  },
  clear: {
    name: 'time kept clear',
    words: ({ side, left, needed, entry }, t) =>
      side === 'before'
        ? `Only ${left} of ${needed} min stay clear after ${t.entry(entry)}.`
        : `It would run until ${timeAt(t.zone, t.end)}; only ${left} of ${needed} min stay clear before ${t.entry(entry)}.`,
    place: ofEntry,
  },
  'day-limit': { name: 'the daily limit', words: limitWords('daily'), place: ofLimit('perDay') },
  'week-limit': { name: 'the weekly limit', words: limitWords('weekly'), place: ofLimit('perWeek') },
  full: {
    name: 'seats',
    words: ({ because, service }, t) =>
      ({
        'no-seat': 'Every seat is taken.',
        'no-date': `${t.service(service)} has no date then.`,
        'too-few': 'Too few people had come by the last moment to reach the least number.',
      })[because],
    place: ofService(),
  },
  untidy: {
    name: 'tidiness',
    words: ({ left, side }) => `It would leave ${left} min free ${side} it, too short to use.`,
    place: ofService('tidy'),
  },
  person: {
    name: 'invitations',
    words: (closure) =>
      closure.because === 'path'
        ? `On their path it lies ${[
            closure.from ? `from ${shortDate(closure.from)} on` : '',
            closure.to ? `until ${shortDate(closure.to)}` : '',
          ]
            .filter(Boolean)
            .join(' and ')}.`
        : {
            blocked: 'This person can’t book online.',
            'invited-only': 'It is for invited people only.',
            'link-only': 'It is for people who have its link.',
          }[closure.because],
    place: ({ because }) => (because === 'path' ? undefined : { at: 'people' }),
  },
}

/** The rules that can close a start, in the order in which they are named. */
export const CLOSURE_RULES = Object.keys(CLOSURES) as ClosureRule[]

const kindOf = (closure: Closure): ClosureKind<never> => CLOSURES[closure.rule] as ClosureKind<never>

/** A closure as a sentence for the practitioner. */
export function closureWords(closure: Closure, about: ClosureAbout): string {
  const telling: Telling = {
    ...about,
    end: shift(about.start, about.minutes * MINUTE),
    service: (id) => serviceOf(about.practice, id)?.name ?? 'this service',
    of: (id, say) => {
      const service = serviceOf(about.practice, id)
      return (service && say(service)) ?? ''
    },
    entry: (entry) => `${about.nameOf(entry)} (${span(entry.start, entry.end, about.zone)})`,
  }
  return (kindOf(closure) as { words(closure: Closure, telling: Telling): string }).words(closure, telling)
}

/** Where the rule behind a closure is changed, or what is in the way is seen. */
export const closurePlace = (closure: Closure): ClosurePlace | undefined =>
  (kindOf(closure) as { place(closure: Closure): ClosurePlace | undefined }).place(closure)
