import type { Messaging, OwnMessages, QuietHours } from '@acolhida/core/practice'
import { type Duration, time, type WallTime } from '@acolhida/core/time'
import { type Setting, under } from '../settings/setting.ts'

const WHAT = 'how messages go'

const NIGHT: QuietHours = { from: time('21:00'), to: time('07:00') }

/** Where quiet hours are kept. */
interface Quiet {
  path: string
  read(of: Messaging): QuietHours | undefined
  write(of: Messaging, quiet: QuietHours | undefined): Messaging
}

/** One end of quiet hours; without one of them there are none. */
const edge = (label: string, which: 'from' | 'to', { path, read, write }: Quiet): Setting<Messaging> => ({
  label,
  what: WHAT,
  is: 'time',
  empty: true,
  path,
  read: (of) => read(of)?.[which],
  write: (of, at) => write(of, at === undefined ? undefined : { ...(read(of) ?? NIGHT), [which]: at }),
})

const THEIRS: Quiet = {
  path: 'quiet',
  read: ({ quiet }) => quiet,
  write: ({ quiet: _, ...rest }, quiet) => (quiet ? { ...rest, quiet } : rest),
}
const MINE: Quiet = {
  path: 'own.quiet',
  read: ({ own }) => own?.quiet,
  write: (of, quiet) => withOwn(of, ({ quiet: _, ...one }) => (quiet ? { ...one, quiet } : one)),
}

/** How all messages to clients go. */
export const TO_CLIENTS: readonly Setting<Messaging>[] = [
  edge('Nothing goes after', 'from', THEIRS),
  edge('nor before', 'to', THEIRS),
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

const withOwn = (of: Messaging, change: (own: OwnMessages) => OwnMessages): Messaging => ({
  ...of,
  own: change(of.own ?? {}),
})

type OwnReminder = NonNullable<OwnMessages['before']>[number]

/** One of one's own reminders changed. */
const withReminder = (of: Messaging, nth: number, change: Partial<OwnReminder>): Messaging =>
  withOwn(of, (one) => ({
    ...one,
    before: (one.before ?? []).map((step, i) => (i === nth ? { ...step, ...change } : step)),
  }))

/** A reminder of one's own before each session. */
const before = (nth: 0 | 1): Setting<Messaging>[] => [
  {
    label: nth === 0 ? 'Remind me before each session' : 'and once more',
    what: WHAT,
    is: 'switch',
    show: ({ own }) => nth === 0 || (own?.before?.length ?? 0) > 0,
    read: ({ own }) => own?.before?.[nth] !== undefined,
    write: (of, on) =>
      withOwn(of, (one) => {
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
    write: (of, by) => withReminder(of, nth, { by }),
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
    write: (of, channel) => withReminder(of, nth, { channel: channel === 'text' ? 'text' : 'email' }),
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
      withOwn(of, ({ digest: _, ...one }) => (at === undefined ? one : { ...one, digest: at as WallTime })),
  },
  ...before(0),
  ...before(1),
  edge('Nothing to me after', 'from', MINE),
  edge('nor before', 'to', MINE),
  {
    label: 'My number for texts',
    what: WHAT,
    is: 'text',
    empty: true,
    read: ({ own }) => own?.phone,
    write: (of, phone) =>
      withOwn(of, ({ phone: _, ...one }) => (phone?.trim() ? { ...one, phone: phone.trim() } : one)),
  },
]
