import { CHANNELS } from '../practice/messaging.ts'
import { id, isoDuration, languageTag, madeName } from '../shape/plain.ts'
import { list, maybe, one, text, yes } from '../shape/shape.ts'
import type { Instant } from '../time/index.ts'
import { alsoBefore, decision, type EventKinds, settled, standsFrom, words } from './happening.ts'
import { type Booking, type Steered, UNWANTED } from './record.ts'

/** The longest name that a message has. */
const NAME = 200

/** What the practitioner's word on one message makes of what was said of it before. */
function steeredBy(
  before: Steered,
  event: { how: string; at: Instant; subject?: string; text?: string },
): Steered {
  const { held: _, ...rest } = before
  if (event.how === 'hold') return { ...rest, held: true }
  if (event.how === 'release') return rest
  if (event.how === 'now') return { ...rest, now: event.at }
  const { subject, text: said } = event
  return {
    ...before,
    ...(subject === undefined ? {} : { subject }),
    ...(said === undefined ? {} : { text: said }),
  }
}

/** What is said and wanted of messages: each with its shape, and what it makes of a booking. */
export const MESSAGE_EVENTS: Pick<
  EventKinds,
  'coming' | 'prepared' | 'to-prepare' | 'unwanted' | 'speaks' | 'written' | 'steered'
> = {
  coming: {
    shape: {},
    apply: ({ at }, { booking, seq }) => ({ ...alsoBefore(booking, { coming: at }), seq }),
  },
  prepared: {
    shape: { done: yes },
    apply: ({ at, done }, { booking, seq }) => {
      if (done) return { ...alsoBefore(booking, { prepared: at }), seq }
      const without = ({ prepared: _, ...rest }: Booking): Booking => rest
      const { unsettled } = booking
      const now = without(booking)
      return {
        ...now,
        ...(unsettled ? { unsettled: { ...unsettled, before: without(unsettled.before) } } : {}),
        seq,
      }
    },
  },
  'to-prepare': {
    shape: { course: madeName, what: list(id, 200), by: isoDuration, done: maybe(yes) },
    apply: ({ course, what, by, done }, { booking, seq }) => ({
      ...alsoBefore(booking, { course: { id: course, what, by, ...(done ? { done } : {}) } }),
      seq,
    }),
  },
  unwanted: {
    shape: { what: one(...UNWANTED), on: yes },
    apply: ({ what, on }, { booking, seq }) => {
      const others = (booking.unwanted ?? []).filter((one) => one !== what)
      return { ...alsoBefore(booking, { unwanted: on ? [...others, what] : others }), seq }
    },
  },
  speaks: {
    shape: { language: languageTag },
    apply: ({ language }, { booking, seq }) => ({ ...alsoBefore(booking, { language }), seq }),
  },
  written: {
    noted: true,
    shape: { ...settled, channel: one(...CHANNELS), subject: text(200), text: words, own: maybe(yes) },
    apply: ({ at, channel, subject, text: said, own, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      written: [
        ...(on.before.written ?? []),
        { seq: on.seq, at, due: standsFrom(on, end), channel, subject, text: said, ...(own ? { own } : {}) },
      ],
      ...decision(on, end),
    }),
  },
  steered: {
    shape: {
      message: text(NAME),
      how: one('hold', 'release', 'now', 'edit'),
      subject: maybe(text(200)),
      text: maybe(text(10_000)),
    },
    apply: (event, { booking, seq }) => {
      const steered = booking.steered ?? {}
      const next = steeredBy(steered[event.message] ?? {}, event)
      return { ...alsoBefore(booking, { steered: { ...steered, [event.message]: next } }), seq }
    },
  },
}
