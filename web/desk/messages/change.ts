import type { MessageText, Messaging, Practice, Sequence, SequenceStep } from '@acolhida/core/practice'
import { relayNow } from '../../relay-client/clock.ts'

/** The practice with one of its sequences changed. */
export const withSequence = (
  practice: Practice,
  id: string,
  change: (sequence: Sequence) => Sequence,
): Practice => ({
  ...practice,
  sequences: (practice.sequences ?? []).map((one) => (one.id === id ? change(one) : one)),
})

/** The practice with one step changed: it counts from now on, and is not sent for what is past. */
export const withStep = (
  practice: Practice,
  sequence: string,
  id: string,
  change: (step: SequenceStep) => SequenceStep,
): Practice =>
  withSequence(practice, sequence, (one) => ({
    ...one,
    steps: one.steps.map((step) => {
      if (step.id !== id) return step
      const next = change(step)
      const moved =
        next.anchor !== step.anchor ||
        next.before !== step.before ||
        next.by !== step.by ||
        next.at !== step.at
      return moved ? { ...next, since: relayNow() } : next
    }),
  }))

/** The practice without one of its sequences; no service has it any more. */
export const withoutSequence = (practice: Practice, id: string): Practice => ({
  ...practice,
  sequences: (practice.sequences ?? []).filter((one) => one.id !== id),
  services: practice.services.map((service) => {
    if (service.sequence !== id) return service
    const { sequence: _, ...rest } = service
    return rest
  }),
})

/** The practice with one of its texts changed, or another one. */
export const withText = (practice: Practice, text: MessageText): Practice => {
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
export const withPause = (practice: Practice, paused: boolean): Practice =>
  withMessaging(practice, ({ paused: _, ...rest }) =>
    paused ? { ...rest, paused } : { ...rest, resumed: relayNow() },
  )
