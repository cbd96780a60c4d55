import { type Duration, type Instant, time } from '../time/index.ts'
import type { MessageText, Messaging, Sequence, SequenceStep } from './messaging.ts'
import type { Practice, Service } from './types.ts'

/** The practice with one of its sequences changed. */
export const withSequence = (
  practice: Practice,
  id: string,
  change: (sequence: Sequence) => Sequence,
): Practice => ({
  ...practice,
  sequences: (practice.sequences ?? []).map((one) => (one.id === id ? change(one) : one)),
})

/**
 * The practice with one step changed: as it is now, it counts from now on. Whatever has changed of it (its moment, its
 * way, its conditions), it is never sent for a moment that has passed.
 */
export const withStep = (
  practice: Practice,
  sequence: string,
  id: string,
  change: (step: SequenceStep) => SequenceStep,
  now: Instant,
): Practice =>
  withSequence(practice, sequence, (one) => ({
    ...one,
    steps: one.steps.map((step) => (step.id === id ? { ...change(step), since: now } : step)),
  }))

/** A text of one's own to begin with. */
const NEW_TEXT = { subject: '{service}, {start}', body: '{when}' }

/** The practice with one more text, and with a step that says it instead of what it said. */
export const withNewText = (
  practice: Practice,
  { sequence, step, text, now }: { sequence: string; step: string; text: string; now: Instant },
): Practice =>
  withStep(
    withText(practice, { id: text, name: 'A new text', ...NEW_TEXT }),
    sequence,
    step,
    (one) => ({ ...one, text }),
    now,
  )

/**
 * The practice with one more step in a sequence, to be changed: the evening before, by mail, with the first text there
 * is.
 * @param text the name of a text, made where there is none yet
 */
export function withNewStep(
  practice: Practice,
  { sequence, step: id, text, now }: { sequence: string; step: string; text: string; now: Instant },
): Practice {
  const [first] = practice.texts ?? []
  const step: SequenceStep = {
    ...{ id, anchor: 'start', before: true, by: 'P1D' as Duration, at: time('18:00') },
    ...{ channel: 'email', text: first?.id ?? text, since: now },
  }
  const written = first ? practice : withText(practice, { id: text, name: 'A reminder', ...NEW_TEXT })
  return withSequence(written, sequence, (one) => ({ ...one, steps: [...one.steps, step] }))
}

/** The practice with a sequence that was begun, and its texts. */
export const withBegun = (
  practice: Practice,
  { sequence, texts }: { sequence: Sequence; texts: readonly MessageText[] },
): Practice => ({
  ...texts.reduce(withText, practice),
  sequences: [...(practice.sequences ?? []), sequence],
})

/** A service with a sequence around its bookings, or none: from now on, and not for moments that have passed. */
export function aroundService(service: Service, sequence: string | undefined, now: Instant): Service {
  if (sequence === service.sequence) return service
  const { sequence: _, sequenceSince: __, ...rest } = service
  return sequence === undefined ? rest : { ...rest, sequence, sequenceSince: now }
}

/** The practice without one of its sequences; no service has it any more. */
export const withoutSequence = (practice: Practice, id: string, now: Instant): Practice => ({
  ...practice,
  sequences: (practice.sequences ?? []).filter((one) => one.id !== id),
  services: practice.services.map((service) =>
    service.sequence === id ? aroundService(service, undefined, now) : service,
  ),
})

/** The practice with one of its texts changed, or another one. */
export function withText(practice: Practice, text: MessageText): Practice {
  const texts = practice.texts ?? []
  return {
    ...practice,
    texts: texts.some(({ id }) => id === text.id)
      ? texts.map((one) => (one.id === text.id ? text : one))
      : [...texts, text],
  }
}

/** The practice with how messages go changed. */
export const withMessaging = (practice: Practice, change: (messaging: Messaging) => Messaging): Practice => ({
  ...practice,
  messaging: change(practice.messaging ?? {}),
})

/** Has steps paused, or lets them go again: what was due meanwhile is let go. */
export const withPause = (practice: Practice, paused: boolean, now: Instant): Practice =>
  withMessaging(practice, ({ paused: _, ...rest }) =>
    paused ? { ...rest, paused } : { ...rest, resumed: now },
  )
