import type { Booking } from '../booking/index.ts'
import {
  type Channel,
  inLanguage,
  isInPerson,
  type MessageText,
  type Practice,
  placeOf,
  type Sequence,
  type SequenceStep,
  type StepAnchor,
  type StepCondition,
  serviceOf,
  zoneOf,
} from '../practice/index.ts'
import {
  after,
  before,
  HOUR,
  type Instant,
  instant,
  isZone,
  minutesOf,
  outsideStretch,
  shift,
  type Zone,
  zone,
} from '../time/index.ts'
import { type Hook, hookOf, nextPayment, prepareBy } from './hooks.ts'
import { NEWS, type StepName, stepName, type Which } from './letter.ts'

/** Why a step of a sequence does not go. */
export type WhySkipped =
  /** Nobody has shown that the address is theirs. */
  | 'unproved'
  /** Its moment had passed when the session was booked, or the step written. */
  | 'past'
  /** Quiet hours leave no moment for it. */
  | 'quiet'
  /** What it asks for does not hold. */
  | 'condition'
  /** The client has said already that they will come. */
  | 'confirmed'
  /** All steps are paused. */
  | 'paused'
  /** Nothing of the kind is sent to them: the practitioner has said so, or they have. */
  | 'hushed'
  | 'unwanted'
  /** They have something booked again, or have been here since. */
  | 'booked-again'
  /** The session begins first. */
  | 'begun'

/** What becomes of one step for one booking. */
export interface StepPlan {
  step: SequenceStep
  name: StepName
  /** What it hangs on, as a number that is never used for anything else of the step. */
  anchor: number
  /** When it goes, and the last moment at which it is of use. */
  at: Instant
  useful: Instant
  skipped?: WhySkipped
  /** Its moment had passed when the session was booked; it goes all the same. */
  late?: true
  /** It has become one with another message: the state letter, or another step. */
  joins?: 'state' | StepName
}

/** The message that a step becomes. */
export const whichOf = ({ name, step, anchor }: StepPlan): Which => ({
  step: name,
  channel: step.channel,
  anchor,
})

/** The sequence around a booking. */
export function sequenceOf(practice: Practice, service: string): Sequence | undefined {
  const id = serviceOf(practice, service)?.sequence
  return id === undefined ? undefined : practice.sequences?.find((sequence) => sequence.id === id)
}

/** The text of a step, as it is written for a language. */
export const textOf = (practice: Practice, id: string, language?: string): MessageText | undefined =>
  (language === undefined ? practice : inLanguage(practice, language)).texts?.find((text) => text.id === id)

/** What goes before the session: never at its start or after it. */
const AFTERWARDS: ReadonlySet<StepAnchor> = new Set(['end', 'missed', 'declined', 'cancelled'])
export const isBeforeSession = ({ anchor, before: ahead }: SequenceStep): boolean =>
  !AFTERWARDS.has(anchor) && (anchor !== 'start' || ahead === true)

/** What answers an act: at its moment, it goes at once, also in quiet hours. */
const ACTS: ReadonlySet<StepAnchor> = new Set([
  'asked',
  'booked',
  'declined',
  'moved',
  'cancelled',
  'offered',
])

/** Whether a condition holds, as far as the booking tells; what others have booked is looked at when it goes. */
function holdsFor(condition: StepCondition, around: Around): boolean {
  return condition.if === 'nothing-booked' || plainly(condition, around) !== (condition.not ?? false)
}

function plainly({ if: asks, is = [] }: StepCondition, { practice, booking, there }: Around): boolean {
  const { asking, reading } = booking.asked
  switch (asks) {
    case 'first-time':
      return asking.standing === 'new'
    case 'unprepared':
      return prepareBy(practice, booking) !== undefined
    case 'to-pay':
      return nextPayment(booking, there) !== undefined
    case 'unconfirmed':
      return booking.coming === undefined
    case 'nothing-booked':
      return true
    case 'place':
      return is.includes(booking.place)
    case 'service':
      return is.includes(booking.service)
    case 'outcome':
      return is.includes(booking.overruled?.outcome ?? reading.outcome)
    case 'tag':
      return is.some((tag) => reading.tags.includes(tag) || asking.tags?.includes(tag) === true)
  }
}

/** A wall time on the date that lies so far from an instant. */
export function onTheDay(
  at: Instant,
  { by, before: ahead, at: time }: Pick<SequenceStep, 'by' | 'before' | 'at'>,
  where: Zone,
): Instant {
  const moved = ahead ? before(at, by, where) : after(at, by, where)
  return time === undefined ? moved : where.toInstant(where.toWall(moved).day, minutesOf(time))
}

/** The zone of a client, or the practice's where theirs is none. */
const zoneOfClient = (practice: Practice, { asked }: Booking): Zone =>
  zone(isZone(asked.person.zone) ? asked.person.zone : practice.profile.zone)

/** What a step looks at, made once for a booking. */
interface Around {
  practice: Practice
  booking: Booking
  /** The clock of the place; by which times of day count; and the recipient's. */
  there: Zone
  clock: Zone
  theirs: Zone
}

/** Since when a step is around the bookings of a service as it stands: it never goes for a moment before. */
export function countsFrom(practice: Practice, service: string, step: SequenceStep): Instant {
  const around = serviceOf(practice, service)?.sequenceSince ?? 0
  return instant(Math.max(around, step.since ?? 0, practice.messaging?.resumed ?? 0))
}

/** A step at a moment. A function of its own, as this is done for thousands at a time. */
function planned(
  { start, unsettled }: Booking,
  step: SequenceStep,
  hook: Hook,
  at: Instant,
  skipped?: WhySkipped,
): StepPlan {
  const goes = instant(Math.max(at, unsettled ? unsettled.until + 1 : 0))
  const toTheStart = isBeforeSession(step) && step.anchor !== 'asked' && step.anchor !== 'offered'
  const useful = toTheStart ? shift(start, -1) : shift(goes, NEWS)
  const { anchor } = hook
  const name = stepName(step.id)
  return skipped
    ? { step, name, anchor, at: goes, useful, skipped }
    : { step, name, anchor, at: goes, useful }
}

/** Why a step does not go whatever its moment is. */
function keptBack(around: Around, step: SequenceStep): WhySkipped | undefined {
  const { practice, booking } = around
  if (practice.messaging?.paused) return 'paused'
  if (step.asks && booking.coming !== undefined) return 'confirmed'
  if (step.when?.some((condition) => !holdsFor(condition, around))) return 'condition'
  if (!isBeforeSession(step) && booking.unwanted?.includes('follow-ups')) return 'unwanted'
  return step.channel === 'text' && booking.unwanted?.includes('texts') ? 'unwanted' : undefined
}

function planStep(around: Around, step: SequenceStep): StepPlan | undefined {
  const { practice, booking, there, clock, theirs } = around
  const hook = hookOf(practice, booking, step.anchor, there)
  if (!hook) return undefined
  const { start } = booking
  const ahead = isBeforeSession(step)
  const wanted = onTheDay(hook.at, step, clock)
  const back = keptBack(around, step)
  if (back) return planned(booking, step, hook, wanted, back)
  const late = wanted < hook.from
  const goes = late ? hook.from : wanted
  const counts = countsFrom(practice, booking.service, step)
  if (goes < counts || (late && !step.must)) return planned(booking, step, hook, wanted, 'past')
  if (ahead && goes >= start) return planned(booking, step, hook, wanted, 'begun')
  if (late) return { ...planned(booking, step, hook, goes), late: true }
  const quiet = practice.messaging?.quiet
  const answers = wanted === hook.at && ACTS.has(step.anchor)
  if (!quiet || answers) return planned(booking, step, hook, wanted)
  const at = outsideStretch(wanted, quiet, theirs, step.before ? 'back' : 'on')
  return at < Math.max(hook.from, counts) || (ahead && at >= start)
    ? planned(booking, step, hook, wanted, 'quiet')
    : planned(booking, step, hook, at)
}

/** Within how long another message of the same channel takes up one that is late. */
const TOGETHER = HOUR

/**
 * What becomes of each step of the sequence around a booking, in its order: when it goes, or why it does not. It
 * follows from the booking and the practice alone, so whatever changes them replans.
 */
export function stepsOf(booking: Booking, practice: Practice): StepPlan[] {
  const sequence = sequenceOf(practice, booking.service)
  if (!sequence) return []
  const place = placeOf(practice, booking.place)
  const there = zoneOf(practice, place)
  const theirs = zoneOfClient(practice, booking)
  const around: Around = { practice, booking, there, theirs, clock: isInPerson(place) ? there : theirs }
  const plans = sequence.steps.flatMap((step) => planStep(around, step) ?? [])
  if (!plans.some(({ late }) => late)) return plans
  return plans.map((plan) => {
    const joins = plan.late && joined(plan, plans, booking)
    return joins ? { ...plan, joins } : plan
  })
}

/** What a late message becomes one with: what goes by the same channel within the hour. */
function joined({ step, at }: StepPlan, plans: readonly StepPlan[], { tells }: Booking): StepPlan['joins'] {
  const near = (other: Instant): boolean => other >= at - 1 && other < at + TOGETHER
  if (step.channel === 'email' && tells && near(tells.due)) {
    const states: readonly string[] = ['confirmation', 'moved', 'to-pay']
    if (states.includes(tells.step)) return 'state'
  }
  const earlier = plans.find(
    (other) =>
      other.step.id !== step.id &&
      !other.skipped &&
      !other.step.draft &&
      other.step.channel === step.channel &&
      (other.at > at || plans.indexOf(other) < plans.findIndex((plan) => plan.step.id === step.id)) &&
      near(other.at),
  )
  return earlier?.name
}

/** The steps that have become one with a message, in order. */
export const joinedWith = (plans: readonly StepPlan[], what: 'state' | StepName): StepPlan[] =>
  plans.filter(({ joins, skipped }) => joins === what && !skipped)

/** The steps that go by themselves. */
export const goingSteps = (plans: readonly StepPlan[]): StepPlan[] =>
  plans.filter(({ skipped, joins }) => !skipped && joins === undefined)

/** By what a step goes. */
export const channelOf = (practice: Practice, name: StepName): Channel | undefined =>
  practice.sequences?.flatMap(({ steps }) => steps).find(({ id }) => stepName(id) === name)?.channel
