import type { Practice, SequenceStep, StepAnchor, StepCondition } from '@acolhida/core/practice'
import { placeOf, serviceOf } from '@acolhida/core/practice'
import { durationWords } from '@acolhida/core/time'
import { OUTCOME } from '../parts/words.ts'

/** What a step hangs on, as one chooses it. */
export const ANCHORS: Readonly<Record<StepAnchor, string>> = {
  asked: 'somebody waits for your answer',
  offered: 'other times are offered',
  declined: 'you turn a request down',
  quoted: 'a quote is sent and not accepted',
  booked: 'it is booked',
  moved: 'it is moved',
  cancelled: 'it is cancelled',
  payment: 'a payment is due',
  preparation: 'what is to be done before is due',
  start: 'the session begins',
  end: 'the session is over',
  missed: 'it is said to be missed',
}

/** In short, on the line. */
export const KNOTS: Readonly<Record<StepAnchor, string>> = {
  asked: 'Waiting',
  offered: 'Other times',
  declined: 'Turned down',
  quoted: 'Quote',
  booked: 'Booked',
  moved: 'Moved',
  cancelled: 'Cancelled',
  payment: 'Payment',
  preparation: 'To do before',
  start: 'Session',
  end: 'Session',
  missed: 'Missed',
}

/** "the day before at 18:00", "4 h before", "at once when it is booked". */
export function whenWords({ anchor, before, by, at }: SequenceStep): string {
  const length = durationWords(by)
  const none = length === '0 min'
  const clock = at ? ` at ${at}` : ''
  const what = anchor === 'start' || anchor === 'end' ? '' : `, ${ANCHORS[anchor]}`
  if (none && at === undefined)
    return anchor === 'end' ? 'when the session ends' : `at once, ${ANCHORS[anchor]}`
  if (by === 'P1D') return `the day ${before ? 'before' : 'after'}${clock}${what}`
  if (none) return `the same day${clock}${what}`
  return `${length} ${before ? 'before' : 'after'}${clock}${what}`
}

const LOOKS: Readonly<Record<StepCondition['if'], [string, string]>> = {
  'first-time': ['it is their first time', 'they have been here before'],
  unprepared: ['what is to be done before is not done', 'what is to be done before is done'],
  'to-pay': ['something is still to pay', 'nothing is to pay'],
  unconfirmed: ['they have not said that they come', 'they have said that they come'],
  'nothing-booked': ['they have nothing booked', 'they have something booked'],
  place: ['it is at', 'it is not at'],
  service: ['it is', 'it is not'],
  outcome: ['the rules say', 'the rules do not say'],
  tag: ['they have the tag', 'they do not have the tag'],
}

/** A condition in words. */
export function stepConditionWords(
  practice: Practice,
  { if: what, is = [], not = false }: StepCondition,
): string {
  const says = LOOKS[what][not ? 1 : 0]
  const named = is.map((one) =>
    what === 'place'
      ? (placeOf(practice, one)?.name ?? one)
      : what === 'service'
        ? (serviceOf(practice, one)?.name ?? one)
        : what === 'outcome'
          ? `“${OUTCOME[one as keyof typeof OUTCOME] ?? one}”`
          : one,
  )
  return named.length > 0 ? `${says} ${named.join(' or ')}` : says
}

/** What a step does, beside when it goes. */
export const manner = (practice: Practice, { channel, must, draft, asks, when = [] }: SequenceStep): string =>
  [
    channel === 'text' ? 'by text' : 'by mail',
    ...(draft ? ['as a draft before you'] : []),
    ...(must ? ['must go'] : []),
    ...(asks ? ['asks whether they come'] : []),
    ...when.map((one) => `if ${stepConditionWords(practice, one)}`),
  ].join(' · ')
