import { before, HOUR, type Instant, inOneUnit, minutesOf, zone } from '../time/index.ts'
import type { PracticeFault } from './fault.ts'
import { ownLanguage } from './languages.ts'
import type { MessageText, Sequence, SequenceStep } from './messaging.ts'
import { rulesFor } from './terms-values.ts'
import { textFaults } from './text-fields.ts'
import type { Practice, Service } from './types.ts'

/** How long before the start a step goes on an ordinary day, in ms; of one that goes after, or is no such, nothing. */
export function aheadOf({ anchor, before: ahead, by, at }: SequenceStep): number | undefined {
  if (anchor !== 'start' || !ahead) return undefined
  const utc = zone('UTC')
  const noon = Date.UTC(2027, 0, 4, 12) as Instant
  const moved = before(noon, by, utc)
  if (at === undefined) return noon - moved
  const { day } = utc.toWall(moved)
  return noon - utc.toInstant(day, minutesOf(at))
}

/** How long before the start the last moment to cancel lies on an ordinary day, in ms; nothing where there is none. */
function lastCancel(practice: Practice, service: Service): number | undefined {
  const noon = Date.UTC(2027, 0, 4, 12) as Instant
  const ends = rulesFor(practice, service).cancel.map(({ until }) => noon - before(noon, until, zone('UTC')))
  return ends.length > 0 ? Math.min(...ends) : undefined
}

/** What speaks against a step, though it can be: it comes too late to change anything. */
export function lateSteps(practice: Practice, sequence: Sequence, step: SequenceStep): string[] {
  const ahead = aheadOf(step)
  if (ahead === undefined) return []
  if (ahead < HOUR) return ['It goes less than an hour before the session: many will not have read it.']
  const passed = practice.services.filter((service) => {
    const last = service.sequence === sequence.id ? lastCancel(practice, service) : undefined
    return last !== undefined && ahead < last
  })
  return passed.length === 0
    ? []
    : [
        `It goes after the last moment to cancel ${passed.map(({ name }) => name).join(', ')}: whoever can’t come reads it too late.`,
      ]
}

/** The farthest that a step can lie from what it hangs on, in days: so long is remembered who was here. */
const FARTHEST = 56

/** Whether a step lies farther away than is remembered. */
function isTooFar({ by }: SequenceStep): boolean {
  const one = inOneUnit(by)
  if (!one) return false
  const days = { minutes: 1 / 1_440, hours: 1 / 24, days: 1, weeks: 7, months: 31 }[one.unit]
  return one.amount * days > FARTHEST
}

const textAt = ({ texts = [] }: Practice, id: string): { text: MessageText; at: string } | undefined => {
  const i = texts.findIndex((text) => text.id === id)
  return i < 0 ? undefined : { text: texts[i]!, at: `texts[${i}]` }
}

/** What a text says in every language in which it is written. */
function wordings({ translated = {} }: Practice, { id, subject = '', body }: MessageText): string[] {
  const others = Object.values(translated).flatMap((there) =>
    (['subject', 'body'] as const).flatMap((part) => there[`text/${id}/${part}`]?.text ?? []),
  )
  return [subject, body, ...others]
}

function checkStep(
  practice: Practice,
  sequence: Sequence,
  step: SequenceStep,
  path: string,
): PracticeFault[] {
  const faults: PracticeFault[] = []
  const error = (at: string, message: string): unknown => faults.push({ path: at, message, grade: 'error' })
  const found = textAt(practice, step.text)
  if (!found) error(`${path}.text`, 'It has no text. Please choose one, or write it.')
  if (isTooFar(step))
    error(`${path}.by`, `It can lie ${FARTHEST} days away at the most: so long is remembered who was here.`)
  if (step.before && (step.anchor === 'asked' || step.anchor === 'quoted' || step.anchor === 'offered'))
    error(`${path}.before`, 'Nothing can go before somebody has asked.')
  const own = practice.services.filter((service) => service.sequence === sequence.id)
  const booked = step.anchor !== 'quoted'
  const said = found
    ? wordings(practice, found.text).flatMap((words) =>
        booked
          ? own.flatMap((service) => textFaults(words, practice, service))
          : textFaults(words, practice, undefined),
      )
    : []
  for (const message of new Set(said)) error(`${found?.at ?? path}.body`, message)
  for (const message of lateSteps(practice, sequence, step)) faults.push({ path, message, grade: 'warning' })
  return faults
}

/** What is wrong with what is sent, and when. */
export function checkMessages(practice: Practice): PracticeFault[] {
  const { sequences = [], services, texts = [], messaging, languages = [] } = practice
  const faults: PracticeFault[] = sequences.flatMap((sequence, i) =>
    sequence.steps.flatMap((step, j) => checkStep(practice, sequence, step, `sequences[${i}].steps[${j}]`)),
  )
  services.forEach(({ sequence }, i) => {
    if (sequence !== undefined && !sequences.some(({ id }) => id === sequence))
      faults.push({
        path: `services[${i}].sequence`,
        message: `There is no sequence “${sequence}”.`,
        grade: 'error',
      })
  })
  texts.forEach(({ body }, i) => {
    if (!body.trim())
      faults.push({ path: `texts[${i}].body`, message: 'It says nothing yet.', grade: 'error' })
  })
  const { quiet, own } = messaging ?? {}
  if (quiet && quiet.from === quiet.to)
    faults.push({
      path: 'messaging.quiet',
      message: 'They begin when they end; please leave them out, or choose another time.',
      grade: 'error',
    })
  if (own?.before?.some(({ channel }) => channel === 'text') && !own.phone?.trim() && !practice.profile.phone)
    faults.push({ path: 'messaging.own.phone', message: 'Texts to you need a number.', grade: 'error' })
  if (languages.includes(ownLanguage(practice)))
    faults.push({
      path: 'languages',
      message: 'The language you write in is there already.',
      grade: 'error',
    })
  return faults
}
