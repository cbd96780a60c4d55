import { serviceOf } from '../practice/find.ts'
import type { Practice } from '../practice/types.ts'
import {
  dateAt,
  type Instant,
  MINUTE,
  moment,
  shift,
  shortDate,
  span,
  timeAt,
  type Zone,
} from '../time/index.ts'
import type { Closure } from './closures.ts'
import type { Entry } from './diary.ts'

const RESERVED: Record<'none' | 'outside' | 'reserved' | 'clear', (day: string) => string> = {
  none: (day) => `There are no hours on ${day}.`,
  outside: (day) => `It does not lie inside one block of your hours on ${day}.`,
  reserved: (day) => `These hours on ${day} are reserved for something else.`,
  clear: (day) => `The time kept clear would reach outside your hours on ${day}.`,
}

/**
 * A closure as a sentence for the practitioner.
 * @param nameOf what to call an entry of the diary ("Coaching with L. Bielak"); the core knows no names
 */
export function closureWords(
  closure: Closure,
  about: {
    practice: Practice
    start: Instant
    minutes: number
    zone: Zone
    nameOf: (entry: Entry) => string
  },
): string {
  const { practice, zone, start } = about
  const end = shift(start, about.minutes * MINUTE)
  const service = (id: string): string => serviceOf(practice, id)?.name ?? 'this service'
  const entry = (one: Entry): string => `${about.nameOf(one)} (${span(one.start, one.end, zone)})`
  switch (closure.rule) {
    case 'past':
      return 'It has passed.'
    case 'notice':
      return closure.week
        ? `That week is closed already; the next open one begins ${shortDate(dateAt(zone, closure.from))}.`
        : `It is too soon: with the notice of ${service(closure.service)}, times open from ${moment(closure.from, zone)}.`
    case 'reach':
      return `It is too far ahead: ${service(closure.service)} can be booked until ${shortDate(closure.last)}.`
    case 'away':
      return closure.note ? `You are away then: ${closure.note}.` : 'You are away then.'
    case 'hours':
      return `${RESERVED[closure.because](shortDate(closure.date))}${closure.changed ? ' That day has changed hours.' : ''}`
    case 'grid':
      return `${service(closure.service)} does not start at ${timeAt(zone, start)}.`
    case 'day-edge':
      return `${service(closure.service)} does not start so ${closure.edge === 'earliest' ? 'early' : 'late'} in the day.`
    case 'overlap':
      return `It would run until ${timeAt(zone, end)}, into ${entry(closure.entry)}.`
    case 'clear':
      return closure.side === 'before'
        ? `Only ${closure.left} of ${closure.needed} min stay clear after ${entry(closure.entry)}.`
        : `It would run until ${timeAt(zone, end)}; only ${closure.left} of ${closure.needed} min stay clear before ${entry(closure.entry)}.`
    case 'day-limit':
    case 'week-limit': {
      const whose = closure.of === 'practice' ? 'Your' : `${service(closure.service)}'s`
      return `${whose} ${closure.rule === 'day-limit' ? 'daily' : 'weekly'} limit of ${closure.limit} is reached.`
    }
    case 'full':
      return {
        'no-seat': 'Every seat is taken.',
        'no-date': `${service(closure.service)} has no date then.`,
        'too-few': 'Too few people had come by the last moment to reach the least number.',
      }[closure.because]
    case 'untidy':
      return `It would leave ${closure.left} min free ${closure.side} it, too short to use.`
    case 'person':
      return {
        blocked: 'This person can not book online.',
        'invited-only': 'It is for invited people only.',
        'link-only': 'It is for people who have its link.',
      }[closure.because]
  }
}
