import { CHANNELS } from '../practice/messaging.ts'
import { line, maybe, one, said, text, yes } from '../shape/shape.ts'
import { shift } from '../time/index.ts'
import { type Commands, happened, notBooked, refuse } from './command.ts'
import { stateAt, UNDO } from './state.ts'

/** What client and practitioner say of the messages around a booking. */
export const MESSAGING: Pick<Commands, 'come' | 'prepare' | 'unwant' | 'speak' | 'write' | 'steer'> = {
  come: {
    decide: (booking, _, __, { now }) => {
      const state = stateAt(booking, now)
      if (state.is !== 'booked') return notBooked(state.is)
      if (state.begun) return refuse('too-late.client')
      return booking.coming === undefined ? happened({ type: 'coming', at: now }) : happened()
    },
  },
  prepare: {
    decide: (booking, { done }, is, { now, ticks }) => {
      if (is !== 'booked') return notBooked(is)
      if (!ticks) return refuse('nothing-before')
      return done === (booking.prepared !== undefined)
        ? happened()
        : happened({ type: 'prepared', at: now, done })
    },
  },
  unwant: {
    decide: ({ unwanted = [] }, { what, on }, _, { now }) =>
      on === unwanted.includes(what) ? happened() : happened({ type: 'unwanted', at: now, what, on }),
  },
  speak: {
    decide: (booking, { language }, _, { now }) =>
      language === (booking.language ?? booking.asked.person.language)
        ? happened()
        : happened({ type: 'speaks', at: now, language }),
  },
  write: {
    shape: { channel: one(...CHANNELS), subject: text(200), text: said(5_000), own: maybe(yes) },
    decide: (booking, { do: _, ...what }, __, { now }) =>
      what.channel === 'text' && !booking.asked.person.phone
        ? refuse('no-phone.text')
        : happened({ type: 'written', at: now, ...what, settles: shift(now, UNDO) }),
  },
  steer: {
    shape: {
      message: line(200),
      how: one('hold', 'release', 'now', 'edit'),
      subject: maybe(text(200)),
      text: maybe(text(10_000)),
    },
    decide: (_, { do: __, ...how }, ___, { now }) => happened({ type: 'steered', at: now, ...how }),
  },
}
