import { isoDuration } from '../shape/plain.ts'
import { anyOf, exactly, maybe, object, one, whole, yes } from '../shape/shape.ts'
import { type Duration, duration } from '../time/index.ts'

/** Whom a freed time is for first. */
export const PREFERENCES = ['longest-wait', 'fullest', 'known-first'] as const
export type Preference = (typeof PREFERENCES)[number]

/** How many are asked for one time: none until the practitioner says so, so many at once, everybody. */
export type AskAtOnce = 'none' | 'all' | number

/** How freed times of a service find their person. */
export interface Waitlist {
  /** Whether one can get in line at the door. */
  door: boolean
  ask: AskAtOnce
  prefer: Preference
  /** What `fullest` makes the most of: the price, where nothing is said, or minutes. */
  worth?: 'minutes'
  /** How long a freed time stands for whoever it is held out to. */
  stands: Duration
  /** Never later than so long before it begins. */
  least: Duration
  /** The time in which it stands does not run in the quiet hours. */
  quiet?: boolean
  /** Whoever lets so many go by is asked whether they still wait. */
  letGo: number
}

/** As a waitlist begins. */
export const WAITLIST: Waitlist = {
  door: true,
  ask: 1,
  prefer: 'longest-wait',
  stands: duration('PT6H'),
  least: duration('PT2H'),
  letGo: 3,
}

/** How many can be asked for one time at once, where a number is said. */
export const MOST_ASKED_AT_ONCE = 50

/** How many to ask, as it comes in. */
export const askAtOnce = exactly<AskAtOnce>()(anyOf(one('none', 'all'), whole(1, MOST_ASKED_AT_ONCE)))

export const waitlistShape = exactly<Waitlist>()(
  object({
    door: yes,
    ask: askAtOnce,
    prefer: one(...PREFERENCES),
    worth: maybe(one('minutes')),
    stands: isoDuration,
    least: isoDuration,
    quiet: maybe(yes),
    letGo: whole(1, 100),
  }),
)

/** How freed times of a service find their person; a service that says nothing of it has nobody asked by itself. */
export const waitlistOf = (service: { waitlist?: Waitlist } | undefined): Waitlist =>
  service?.waitlist ?? { ...WAITLIST, door: false, ask: 'none' }
