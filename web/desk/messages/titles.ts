import type { Step } from '@acolhida/core/messages'
import type { Practice } from '@acolhida/core/practice'

/** What each message of the house is called at the desk. */
const TITLES: Partial<Record<Step, string>> = {
  asked: 'Receipt of the request',
  confirmation: 'Confirmation',
  'to-pay': 'A payment first',
  place: 'Where we meet',
  declined: 'Turned down',
  offered: 'Other times',
  lapsed: 'Run out',
  withdrawn: 'Withdrawn',
  moved: 'Moved',
  cancelled: 'Cancelled',
  agree: 'Something to agree to',
  invoice: 'Invoice',
  'given-back': 'Money given back',
  question: 'Your question',
  excepted: 'Answer to an exception',
  'running-late': 'You run late',
  written: 'Written by hand',
  quote: 'Quote',
  'enquiry-answered': 'Your answer',
  'word-due': 'To you: your word is due',
  'new-request': 'To you: a new request',
  'client-cancelled': 'To you: cancelled',
  'client-moved': 'To you: moved',
  'has-lapsed': 'To you: run out',
  'client-replied': 'To you: an answer',
  'client-pleads': 'To you: an exception is asked for',
  'client-comes': 'To you: they will be there',
  'not-confirmed': 'To you: not confirmed',
  'not-prepared': 'To you: not prepared',
  'not-paid': 'To you: not paid',
  'session-soon': 'To you: before the session',
  'session-sooner': 'To you: before the session, once more',
  digest: 'To you: the morning’s digest',
  'line-joined': 'In line',
  'freed-time': 'A freed time',
  'freed-passed': 'No longer free',
  'line-still': 'Still waiting?',
  'line-ended': 'No longer in line',
  'to-prepare': 'What there is to do',
  'prepare-chased': 'Still to do',
  'prepare-soon': 'Due soon',
  'path-pay': 'A part of the price is due',
  'path-invoice': 'An invoice of a path',
  'freed-to-decide': 'To you: a time is free',
}

/** What a message is called: of a step of a sequence, the name of its text. */
export function stepTitle({ sequences = [], texts = [] }: Practice, step: string): string {
  const own = step.startsWith('step:') ? step.slice('step:'.length) : undefined
  if (own === undefined) return TITLES[step as Step] ?? step
  const found = sequences.flatMap(({ steps }) => steps).find(({ id }) => id === own)
  return texts.find(({ id }) => id === found?.text)?.name ?? 'A message that is gone'
}

/** What one message of a booking is called, by its whole name: its step stands before the first stroke. */
export const messageTitle = (practice: Practice, message: string): string =>
  `“${stepTitle(practice, message.split('/')[0] ?? '')}”`
