import type { Booking } from '../booking/index.ts'
import { shortName } from '../people/name.ts'
import { type Alert, fieldsOf, type Practice, type SequenceStep, zoneOf } from '../practice/index.ts'
import { type Instant, outsideStretch, shift } from '../time/index.ts'
import { filled } from './fields.ts'
import {
  type BookingStep,
  isStepName,
  type Letter,
  type LetterKind,
  NEWS,
  type OwnStep,
  type Planned,
  type Step,
  steeredOf,
  type Which,
} from './letter.ts'
import {
  letterText,
  readerLanguage,
  tellsPlace,
  textMessage,
  type Words,
  whereLine,
  wordsFor,
} from './lines.ts'
import { readerOf } from './readers.ts'
import { isBeforeSession, joinedWith, type StepPlan, stepsOf, textOf, whichOf } from './steps.ts'
import { CLIENT_LETTERS } from './to-client.ts'
import { OWN_LETTERS } from './to-practitioner.ts'

/** Everything about each message: when it goes, and what it says by how things stand then. */
const LETTERS: { [S in BookingStep]: LetterKind } = { ...CLIENT_LETTERS, ...OWN_LETTERS }

const isOfBooking = (step: Step): step is BookingStep => Object.hasOwn(LETTERS, step)
const isOwn = (step: Step): boolean =>
  Object.hasOwn(OWN_LETTERS, step) || step === 'digest' || step === 'freed-to-decide'

/** To whom a step is written. */
export const receiverOf = (step: Step): Letter['to'] => (isOwn(step) ? 'practitioner' : 'client')

/** A message that is planned: by what it goes, and how it was steered. */
export type PlannedLetter = Planned & { step: Step }

/** By what ways something is told to the practitioner: as they have set it, else by mail, unless it is only told if wanted. */
export const alertFor = (practice: Practice, step: OwnStep): Alert =>
  practice.messaging?.own?.alerts?.[step] ?? (OWN_LETTERS[step].wanted ? {} : { email: true })

/** What the practitioner has set of what is written to them: by what it goes, not in their quiet hours. */
function ownWays(planned: PlannedLetter, booking: Booking, practice: Practice): PlannedLetter[] {
  const own = practice.messaging?.own
  if (own?.services?.includes(booking.service)) return []
  const { quiet } = own ?? {}
  const there = zoneOf(practice, undefined)
  const later = quiet ? outsideStretch(planned.at as Instant, quiet, there, 'on') : planned.at
  // What would come too late goes before the quiet begins, or all the same.
  const earlier = quiet ? outsideStretch(planned.at as Instant, quiet, there, 'back') : planned.at
  const at = later <= planned.useful ? later : planned.step === 'word-due' ? earlier : planned.at
  if (planned.channel) return [{ ...planned, at }]
  const alert = alertFor(practice, planned.step as OwnStep)
  return [
    ...(alert.email ? [{ ...planned, at }] : []),
    ...(alert.text ? [{ ...planned, at, channel: 'text' as const }] : []),
  ]
}

/** What the practitioner has said of one message: held, it does not go; sent now, it goes at that moment. */
function steered(booking: Booking, planned: PlannedLetter): PlannedLetter[] {
  const said = steeredOf(booking, planned)
  if (said?.held) return []
  return [said?.now === undefined ? planned : { ...planned, at: said.now }]
}

const fromStep = ({ step, name, anchor, at, useful }: StepPlan): PlannedLetter => ({
  ...{ step: name, anchor, at, useful },
  ...(step.channel === 'text' ? { channel: 'text' as const } : {}),
})

/** Whether a step goes: by itself, or because the practitioner has sent it. */
function stepGoes(booking: Booking, plan: StepPlan): boolean {
  const { step, skipped, joins } = plan
  const sent = steeredOf(booking, whichOf(plan))?.now !== undefined
  return sent || !(skipped || joins !== undefined || step.draft)
}

/** The messages about a booking that go at a moment of their own, in no order. */
export function plannedLetters(booking: Booking, practice: Practice | undefined): PlannedLetter[] {
  const kinds = (Object.keys(LETTERS) as BookingStep[]).flatMap((step) => {
    const planned = LETTERS[step].plan?.(booking, practice)
    if (!planned) return []
    const letter = { step, ...planned }
    return isOwn(step) && practice ? ownWays(letter, booking, practice) : [letter]
  })
  const steps = practice
    ? stepsOf(booking, practice).flatMap((plan) => (stepGoes(booking, plan) ? [fromStep(plan)] : []))
    : []
  const written = (booking.written ?? []).flatMap(({ seq, due, channel, own }): PlannedLetter[] =>
    own
      ? []
      : [
          {
            ...{ step: 'written', anchor: seq, at: due, useful: shift(due, NEWS) },
            ...(channel === 'text' ? { channel } : {}),
          },
        ],
  )
  return [...kinds, ...steps, ...written].flatMap((planned) => steered(booking, planned))
}

const isOf = ({ name, anchor }: StepPlan, which: Which): boolean =>
  name === which.step && anchor === which.anchor

/** What a step of a sequence says: its text, or what the practitioner has it say this once. */
function stepWords(
  practice: Practice,
  booking: Booking,
  plan: StepPlan,
  w: Words,
): { subject: string; body: string } | undefined {
  const text = textOf(practice, plan.step.text, w.language)
  const own = steeredOf(booking, whichOf(plan))
  const body = own?.text ?? text?.body
  return body === undefined ? undefined : { subject: own?.subject ?? text?.subject ?? text?.name ?? '', body }
}

/** Where a place is told with the last reminder, the first message of that day tells it, whatever else it says. */
function placeAdded(w: Words, step: SequenceStep, body: string, now: Instant): string {
  const { practice, booking } = w
  const place = practice.places.find(({ id }) => id === booking.place)
  const said = fieldsOf(body).includes('place')
  return place?.told === 'last-reminder' && isBeforeSession(step) && !said && tellsPlace(w, now)
    ? whereLine(w, true)
    : ''
}

/** A step in its words, with what has become one with it. */
function sayStep(
  w: Words,
  step: SequenceStep,
  words: { subject: string; body: string },
  more: readonly string[],
  now: Instant,
): Letter {
  const body = filled([words.body, ...more].join('\n\n'), w, now)
  if (step.channel === 'text')
    return { to: 'client', subject: '', text: textMessage(w, body), channel: 'text' }
  return {
    to: 'client',
    subject: filled(words.subject, w, now),
    text: letterText(w, w.reader.name, [body, placeAdded(w, step, words.body, now)]),
    ...(isBeforeSession(step) ? {} : { unsubscribe: true as const }),
  }
}

/** A message of a sequence as it stands when it goes. */
function stepLetter(w: Words, which: Which, now: Instant, original: Practice): Letter | undefined {
  const { booking } = w
  const plans = stepsOf(booking, original)
  const plan = plans.find((one) => isOf(one, which))
  if (!plan) return undefined
  const sent = steeredOf(booking, whichOf(plan))?.now
  if (sent === undefined && now > plan.useful) return undefined
  const words = stepWords(original, booking, plan, w)
  if (!words) return undefined
  const more = joinedWith(plans, plan.name).flatMap((one) => stepWords(original, booking, one, w)?.body ?? [])
  return sayStep(w, plan.step, words, more, now)
}

/** A step as somebody would read it, whether or not it goes to them: to look at while it is written. */
export function previewStep(
  practice: Practice,
  booking: Booking,
  step: SequenceStep,
  text: { subject?: string; body: string },
  now: Instant,
): Letter {
  const w = wordsFor(practice, booking, readerLanguage(practice, booking, 'client'))
  return sayStep(w, step, { subject: text.subject ?? '', body: text.body }, [], now)
}

/** What was written by hand, with its fields filled in. */
function writtenLetter(w: Words, { anchor }: Which, now: Instant): Letter | undefined {
  const said = w.booking.written?.find(({ seq }) => seq === anchor)
  if (!said) return undefined
  const body = filled(said.text, w, now)
  if (said.channel === 'text')
    return { to: 'client', subject: '', text: textMessage(w, body), channel: 'text' }
  return {
    to: 'client',
    subject: filled(said.subject, w, now) || w.service,
    text: letterText(w, w.reader.name, [body]),
  }
}

/**
 * A message about a booking as it stands when it goes: written from its state at that moment, and the practice in
 * force. Nothing where it is of no use any more.
 * @param lacking the titles of what is still to be agreed to
 * @throws Error for a step that is about no booking
 */
export function letterFor(
  practice: Practice,
  booking: Booking,
  which: Which,
  now: Instant,
  lacking: readonly string[] = [],
): Letter | undefined {
  const { step } = which
  const to = receiverOf(step)
  const w = wordsFor(
    practice,
    booking,
    readerLanguage(practice, booking, to),
    lacking,
    readerOf(practice, booking, which),
  )
  if (isStepName(step)) return stepLetter(w, which, now, practice)
  if (step === 'written') return writtenLetter(w, which, now)
  if (!isOfBooking(step)) throw new Error(`${step} is about no booking.`)
  const { write, plan } = LETTERS[step]
  const planned = plan?.(booking, practice)
  if (planned && now > planned.useful) return undefined
  const { subject, body, invite } = write(w, now)
  if (to === 'practitioner') {
    const text = body.filter(Boolean).join('\n\n')
    return which.channel === 'text' ? { to, subject, text: subject, channel: 'text' } : { to, subject, text }
  }
  const own = steeredOf(booking, { step, anchor: which.anchor })
  const { name } = w.reader
  const said = own?.text === undefined ? body : [filled(own.text, w, now)]
  const joined = booking.tells?.step === step ? joinedWith(stepsOf(booking, practice), 'state') : []
  const more = joined.flatMap((one) => {
    const words = stepWords(practice, booking, one, w)
    return words ? [filled(words.body, w, now)] : []
  })
  return {
    to,
    subject: own?.subject ?? subject,
    text: letterText(w, booking.unproved ? shortName(name) : name, [...said, ...more]),
    ...(invite ? { invite } : {}),
  }
}
