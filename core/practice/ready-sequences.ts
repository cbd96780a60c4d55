import { type Duration, duration, time, type WallTime } from '../time/index.ts'
import type { MessageText, Sequence, SequenceStep } from './messaging.ts'

/** A text to begin with. */
const text = (id: string, name: string, subject: string, body: string): MessageText => ({
  id,
  name,
  ...(subject ? { subject } : {}),
  body,
})

const DAY_BEFORE = text(
  'day-before',
  'Tomorrow',
  'Tomorrow: {service}, {start}',
  'This is to remind you: {service} is on {when}.\n\n{place}\n\nI’ll be there: {coming}\nMove it: {move}\nCancel it: {cancel}',
)
const WEEK_BEFORE = text(
  'week-before',
  'Next week',
  'Next week: {service}, {start}',
  '{service} is on {when}. If that no longer suits you, please tell me soon: {link}',
)
const HOURS_BEFORE = text('hours-before', 'In some hours', '', '{service} today at {time}. {link}')
const AFTERWARDS = text(
  'afterwards',
  'Thank you',
  'Thank you for coming',
  'Thank you for coming to {service}. If something is still on your mind, just answer this mail.',
)
const COME_AGAIN = text(
  'come-again',
  'It has been a while',
  'It has been a while',
  'It has been some weeks since {service}. If you would like to go on, you can choose a time here:\n{door}',
)
const STILL_OPEN = text(
  'still-open',
  'Still to pay',
  'Still to pay: {service}, {start}',
  'For {service}, {when}, {open} is still to be paid by {payBy}: {link}',
)
const GROUP_BEFORE = text(
  'group-before',
  'The group meets',
  'The group meets: {service}, {start}',
  'The group meets {when}.\n\n{place}\n\nIf you can’t come, please give your seat back in time: {cancel}',
)

/** Every text there is to begin with. */
const TEXTS = [
  ...[DAY_BEFORE, WEEK_BEFORE, HOURS_BEFORE, AFTERWARDS, COME_AGAIN, STILL_OPEN, GROUP_BEFORE],
] as const

type Begun = Omit<SequenceStep, 'id' | 'text'> & { of: MessageText }

const by = (text: string): Duration => duration(text)
const at = (text: string): WallTime => time(text)

const step = {
  dayBefore: (asks: boolean): Begun => ({
    ...{ anchor: 'start', before: true, by: by('P1D'), at: at('18:00'), channel: 'email' },
    ...(asks ? { asks } : {}),
    of: DAY_BEFORE,
  }),
  hoursBefore: { anchor: 'start', before: true, by: by('PT4H'), channel: 'text', of: HOURS_BEFORE },
  weekBefore: { anchor: 'start', before: true, by: by('P1W'), channel: 'email', of: WEEK_BEFORE },
  afterwards: { anchor: 'end', by: by('P1D'), at: at('10:00'), channel: 'email', of: AFTERWARDS },
  comeAgain: {
    ...{ anchor: 'end', by: by('P4W'), at: at('10:00'), channel: 'email', of: COME_AGAIN },
    when: [{ if: 'nothing-booked' }],
  },
  stillOpen: {
    anchor: 'payment',
    before: true,
    by: by('P1D'),
    at: at('10:00'),
    channel: 'email',
    of: STILL_OPEN,
  },
  groupBefore: {
    ...{ anchor: 'start', before: true, by: by('P1D'), at: at('12:00'), channel: 'email', of: GROUP_BEFORE },
    must: true,
  },
} as const satisfies Record<string, Begun | ((asks: boolean) => Begun)>

/** A sequence to begin with: what it is called, for whom it is, and its steps. */
interface Ready {
  key: 'light' | 'careful' | 'groups'
  name: string
  about: string
  steps: readonly Begun[]
}

/** The sequences there are to begin with. That a day, some hours and an hour are usual: common practice, no source. */
export const READY: readonly Ready[] = [
  {
    key: 'light',
    name: 'Light',
    about: 'One reminder, the day before at 18:00.',
    steps: [step.dayBefore(false)],
  },
  {
    key: 'careful',
    name: 'Careful',
    about:
      'A week and a day before, a text some hours before, what is still to pay, a thank-you, and a word after four weeks without anything booked.',
    steps: [
      ...[step.weekBefore, step.stillOpen, step.dayBefore(true), step.hoursBefore],
      ...[step.afterwards, step.comeAgain],
    ],
  },
  {
    key: 'groups',
    name: 'For groups',
    about: 'The day before at noon, also to whoever joins late, and a thank-you.',
    steps: [step.groupBefore, step.afterwards],
  },
]

/**
 * A sequence made from one there is to begin with, and the texts it needs that are not there yet.
 * @param ids gives a new name at each call
 * @param free whether every service it is for is free of charge: then nothing is asked for
 */
export function beginSequence(
  key: Ready['key'],
  { texts, ids, free = false }: { texts: readonly MessageText[]; ids(): string; free?: boolean },
): { sequence: Sequence; texts: MessageText[] } {
  const { name, steps } = READY.find((ready) => ready.key === key)!
  const wanted = steps.filter(({ anchor }) => !free || anchor !== 'payment')
  const there = new Set(texts.map(({ id }) => id))
  return {
    sequence: {
      id: ids(),
      name,
      steps: wanted.map(({ of, when, ...rest }) => ({
        id: ids(),
        ...rest,
        ...(when ? { when: [...when] } : {}),
        text: of.id,
      })),
    },
    texts: TEXTS.filter((one) => !there.has(one.id) && wanted.some(({ of }) => of.id === one.id)),
  }
}
