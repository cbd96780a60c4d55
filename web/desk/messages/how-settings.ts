import type { Messaging, OwnMessages, QuietHours } from '@acolhida/core/practice'
import { type Duration, time, type WallTime } from '@acolhida/core/time'
import { type Setting, under } from '../settings/setting.ts'

const WHAT = 'how messages go'

/** One end of quiet hours; without one of them there are none. */
const edge = <T extends { quiet?: QuietHours }>(
  label: string,
  which: 'from' | 'to',
  usual: QuietHours,
): Setting<T> => ({
  label,
  what: WHAT,
  is: 'time',
  empty: true,
  path: 'quiet',
  read: ({ quiet }) => quiet?.[which],
  write: ({ quiet, ...rest }, at) =>
    (at === undefined ? rest : { ...rest, quiet: { ...(quiet ?? usual), [which]: at } }) as T,
})

const NIGHT: QuietHours = { from: time('21:00'), to: time('07:00') }

/** How all messages to clients go. */
export const TO_CLIENTS: readonly Setting<Messaging>[] = [
  edge('Nothing goes after', 'from', NIGHT),
  edge('nor before', 'to', NIGHT),
  {
    label: 'The first line of every mail',
    what: WHAT,
    is: 'text',
    empty: true,
    help: 'With {name} for theirs. Ours: “Hello {name},”.',
    ...under<Messaging, 'greeting'>('greeting'),
  },
  {
    label: 'The last lines of every mail',
    what: WHAT,
    is: 'text',
    rows: 3,
    empty: true,
    help: 'Ours: your name.',
    ...under<Messaging, 'signature'>('signature'),
  },
  {
    label: 'Answers go to another address',
    what: WHAT,
    is: 'text',
    empty: true,
    ...under<Messaging, 'replyTo'>('replyTo'),
  },
  {
    label: 'How texts say who they are from',
    what: WHAT,
    is: 'text',
    empty: true,
    help: 'A short name; it stands before each.',
    ...under<Messaging, 'sender'>('sender'),
  },
]

const own = (of: Messaging, change: (own: OwnMessages) => OwnMessages): Messaging => ({
  ...of,
  own: change(of.own ?? {}),
})

/** A reminder of one's own before each session. */
const before = (nth: 0 | 1): Setting<Messaging>[] => [
  {
    label: nth === 0 ? 'Remind me before each session' : 'and once more',
    what: WHAT,
    is: 'switch',
    show: ({ own }) => nth === 0 || (own?.before?.length ?? 0) > 0,
    read: ({ own }) => own?.before?.[nth] !== undefined,
    write: (of, on) =>
      own(of, (one) => {
        const list = [...(one.before ?? [])]
        if (on) list[nth] = { by: (nth === 0 ? 'PT1H' : 'PT10M') as Duration, channel: 'email' }
        else list.splice(nth, 2)
        return { ...one, before: list }
      }),
  },
  {
    label: nth === 0 ? 'So long before' : 'So long before, the second time',
    what: WHAT,
    is: 'duration',
    show: ({ own }) => own?.before?.[nth] !== undefined,
    read: ({ own }) => own?.before?.[nth]?.by ?? ('PT1H' as Duration),
    write: (of, by) =>
      own(of, (one) => ({
        ...one,
        before: (one.before ?? []).map((step, i) => (i === nth ? { ...step, by } : step)),
      })),
  },
  {
    label: nth === 0 ? 'By' : 'By, the second time',
    what: WHAT,
    is: 'choice',
    options: [
      { value: 'email', name: 'Mail' },
      { value: 'text', name: 'Text' },
    ],
    show: ({ own }) => own?.before?.[nth] !== undefined,
    read: ({ own }) => own?.before?.[nth]?.channel ?? 'email',
    write: (of, channel) =>
      own(of, (one) => ({
        ...one,
        before: (one.before ?? []).map((step, i) =>
          i === nth ? { ...step, channel: channel === 'text' ? 'text' : 'email' } : step,
        ),
      })),
  },
]

/** What is written to the practitioner. */
export const TO_ME: readonly Setting<Messaging>[] = [
  {
    label: 'A digest each morning, at',
    what: WHAT,
    is: 'time',
    empty: true,
    read: ({ own }) => own?.digest,
    write: (of, at) =>
      own(of, ({ digest: _, ...one }) => (at === undefined ? one : { ...one, digest: at as WallTime })),
  },
  ...before(0),
  ...before(1),
  {
    label: 'Nothing to me after',
    what: WHAT,
    is: 'time',
    empty: true,
    read: ({ own }) => own?.quiet?.from,
    write: (of, from) =>
      own(of, ({ quiet, ...one }) =>
        from === undefined ? one : { ...one, quiet: { ...(quiet ?? NIGHT), from } },
      ),
  },
  {
    label: 'nor before',
    what: WHAT,
    is: 'time',
    empty: true,
    read: ({ own }) => own?.quiet?.to,
    write: (of, to) =>
      own(of, ({ quiet, ...one }) =>
        to === undefined ? one : { ...one, quiet: { ...(quiet ?? NIGHT), to } },
      ),
  },
  {
    label: 'My number for texts',
    what: WHAT,
    is: 'text',
    empty: true,
    read: ({ own }) => own?.phone,
    write: (of, phone) =>
      own(of, ({ phone: _, ...one }) => (phone?.trim() ? { ...one, phone: phone.trim() } : one)),
  },
]
