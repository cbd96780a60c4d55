import { type SequenceStep, STEP_ANCHORS, type StepAnchor } from '@acolhida/core/practice'
import { type Setting, under } from '../settings/setting.ts'
import { ANCHORS } from './step-words.ts'

/** When a step goes. */
export const WHEN: readonly Setting<SequenceStep>[] = [
  {
    label: 'It hangs on: when',
    what: 'when a message goes',
    is: 'choice',
    options: STEP_ANCHORS.map((value) => ({ value, name: ANCHORS[value] })),
    read: ({ anchor }) => anchor,
    write: ({ before: _, ...step }, anchor) => ({
      ...step,
      anchor: anchor as StepAnchor,
      ...(anchor === 'start' || anchor === 'payment' || anchor === 'preparation' ? { before: true } : {}),
    }),
  },
  {
    label: 'Before or after that',
    what: 'when a message goes',
    is: 'choice',
    options: [
      { value: 'before', name: 'Before' },
      { value: 'after', name: 'At it, or after' },
    ],
    show: ({ anchor }) => anchor === 'start' || anchor === 'payment' || anchor === 'preparation',
    read: ({ before }) => (before ? 'before' : 'after'),
    write: ({ before: _, ...step }, side) => (side === 'before' ? { ...step, before: true } : step),
  },
  {
    label: 'How far from it',
    what: 'when a message goes',
    is: 'duration',
    read: ({ by }) => by,
    write: (step, by) => ({ ...step, by }),
  },
  {
    label: 'At this time of that day',
    what: 'when a message goes',
    is: 'time',
    empty: true,
    help: 'As 18:00. Left empty, at the same time of day, or so many hours exactly.',
    ...under<SequenceStep, 'at'>('at'),
  },
]

/** How it goes. */
export const HOW: readonly Setting<SequenceStep>[] = [
  {
    label: 'By',
    what: 'how a message goes',
    is: 'choice',
    options: [
      { value: 'email', name: 'Mail' },
      { value: 'text', name: 'Text to their phone' },
    ],
    read: ({ channel }) => channel,
    write: (step, channel) => ({ ...step, channel: channel === 'text' ? 'text' : 'email' }),
  },
  {
    label: 'It must go, also to whoever books late',
    what: 'how a message goes',
    is: 'switch',
    read: ({ must }) => must === true,
    write: (step, on) => flag(step, 'must', on),
  },
  {
    label: 'Lay a draft before me instead of sending it',
    what: 'how a message goes',
    is: 'switch',
    read: ({ draft }) => draft === true,
    write: (step, on) => flag(step, 'draft', on),
  },
  {
    label: 'It only asks whether they come: not to whoever has said so',
    what: 'how a message goes',
    is: 'switch',
    show: ({ anchor, before }) => anchor === 'start' && before === true,
    read: ({ asks }) => asks === true,
    write: (step, on) => flag(step, 'asks', on),
  },
]

/** A step with one of its marks on, or without it. */
function flag(step: SequenceStep, name: 'must' | 'draft' | 'asks', on: boolean): SequenceStep {
  const { [name]: _, ...rest } = step
  return on ? { ...rest, [name]: true } : rest
}
