import type { Outcome } from '../questions/index.ts'
import { epochMs } from '../shape/plain.ts'
import { count, id, type KeysOf, list, maybe, number, object, one, text, whole, yes } from '../shape/shape.ts'
import { agreementShape as agreement } from '../terms/shape.ts'
import type { Agreement } from '../terms/types.ts'
import { type Instant, instant, shift } from '../time/index.ts'
import {
  type Asked,
  type Booking,
  type Happened,
  type Mark,
  MOST_LATE,
  MOST_LENGTH,
  type PayWay,
  PERSON_MARKS,
  type Start,
  type Telling,
  type TellingStep,
  WAYS,
} from './record.ts'

/** What can happen to a booking after it was asked for, each with what is its own. */
interface Own {
  /** The address has proved true; what was unproved until then is held for the practitioner's word from now on. */
  proved: { until?: Instant; marks?: Mark[] }
  /** `text`: a word with it, where somebody was booked in by hand. */
  welcomed: Decided & { by: 'practitioner' | 'rules'; text?: string } & Owes
  declined: Decided & { text: string; by?: 'rules' }
  /** `gives`: what is promised where the time of a session is given up so late, unless one of the others is taken. */
  offered: Decided & { starts: Start[]; until: Instant; text: string; gives?: number }
  accepted: Start & Owes
  refused: { text: string }
  /**
   * To another time, place, length or service; the rules of the day one asked go with it. `by` the client through their
   * link, with what cancelling would have cost them then (`least`, in percent): it costs no less afterwards.
   */
  moved: Decided & Start & { minutes: number; text: string; service?: string; by?: 'client'; least?: number }
  lapsed: object
  withdrawn: object
  /** `gives`: what the practitioner has promised for that, in percent of the price. */
  cancelled: Decided & { by: 'client' | 'practitioner'; share: number; text: string; gives?: number }
  /** The session has taken place; `late`: how many minutes late the client came, `minutes`: how long it really was. */
  attended: Decided & { late?: number; minutes?: number }
  missed: Decided
  /** The practitioner asks something before their word; held until `until` for it. */
  questioned: Decided & { text: string; until: Instant }
  replied: { text: string }
  /** The practitioner will be so many minutes late. */
  'running-late': Decided & { minutes: number; gives?: number }
  /** The client asks for an exception from the rules, and the practitioner answers. */
  pleaded: { text: string }
  excepted: Decided & { granted: boolean; text: string }
  /** Money has come; or has been given back. */
  paid: Decided & { amount: number; way: PayWay; text?: string; source?: string; books?: boolean } & Owes
  'given-back': Decided & { amount: number; way: PayWay; text?: string }
  /** Something is added to what is owed, or taken off it. */
  adjusted: Decided & { amount: number; text: string }
  /** The client agrees to what has been lacking. */
  agreed: { agreements: Agreement[] }
  /** The practitioner asks for texts to be signed by themselves. */
  'asked-to-sign': Decided & { terms: string[] }
  /** What counted against the client no longer does; the practitioner says why. */
  forgiven: Decided & { text: string }
  /** The practitioner has judged otherwise than the rules, and says why. */
  overruled: { outcome: Outcome; text: string }
  /** Takes the decision `of` (its place in the record, from 1) back as if it had not been. */
  'taken-back': { of: number }
}

/** Until when what must be paid first, or the rest of it, is waited for; without it, it is booked. */
interface Owes {
  owes?: Instant
}

/** A decision that can be taken back while `now ≤ settles`; its message waits as long. */
interface Decided {
  settles: Instant
  /** Away from the desk: by the link in a mail, or on the phone. */
  away?: boolean
}

type Later = { [K in keyof Own]: Happened & { type: K } & Own[K] }[keyof Own]
/** One thing that happened to a booking. The list of them is the booking. */
export type BookingEvent = Asked | Later

/** Events as they were written before version 2. */
export type EarlierEvent =
  | (Omit<Asked, 'v' | 'asking' | 'proof' | 'shown'> & { standing: 'new' | 'known'; byHand?: boolean })
  | (Happened & { type: 'cancelled' } & Omit<Own['cancelled'], keyof Decided>)

/** Events as files and databases hold them; they are never rewritten. */
export type StoredEvent = BookingEvent | EarlierEvent

/** What an event is applied to. */
interface On {
  booking: Booking
  /** The booking without a decision that can be taken back: what is said now stands. */
  before: Booking
  seq: number
  at: Instant
  /** The kind of the event. */
  what: Later['type']
}

interface Event<E> {
  shape: KeysOf<Omit<E, 'at' | 'type'> & object>
  /** Noted by the practitioner: it contradicts nothing that the client does meanwhile, and stays. */
  noted?: true
  apply(event: E, on: On): Booking
}

const words = text(5_000)
const owes = maybe(epochMs)
/** Money of a record, in minor units: some, or some more or less. */
export const someMoney = whole(1, 100_000_000_000)
export const anyMoney = whole(-100_000_000_000, 100_000_000_000)
const settled = { settles: epochMs, away: maybe(yes) }
const start = { start: epochMs, place: id }
/** A length as a record holds it. */
export const length = whole(-1_000_000, 1_000_000)
/** What the practitioner's own side of the rules gives the client, in percent of the price. */
const gives = maybe(number(0, 100))
/** What a cancellation says, of any version. */
export const cancelled = { by: one('client', 'practitioner'), share: number(0, 100), text: words, gives }

/** A decision that was never open to being taken back leaves nothing to wait for. */
const decision = ({ before, seq, at, what }: On, until: Instant): Pick<Booking, 'unsettled'> =>
  until > at ? { unsettled: { seq, until, before, what } } : {}

/** What this tells the client, once it can't be taken back any more: an inclusive end is over a moment later. */
const telling = ({ seq, at }: On, step: TellingStep, until: Instant = at): { tells: Telling } => ({
  tells: { seq, step, due: until > at ? shift(until, 1) : at },
})

/** An end without a word: nobody has shown yet that the address is theirs. */
function ended(on: On, step: TellingStep, offered = false): Pick<Booking, 'tells'> {
  if (on.booking.unproved || isUndone(on.booking)) return {}
  const { tells } = telling(on, step)
  return { tells: offered ? { ...tells, offered } : tells }
}

/** Booked in by hand, and that taken back: nobody was ever told of it. */
const isUndone = ({ asked, status }: Booking): boolean => asked.proof === 'hand' && status === 'requested'

/** What a move leaves of who moves: the practitioner's own costs the client nothing, nor counts as theirs. */
function whoMoved(booking: Booking, { by, least = 0 }: { by?: 'client'; least?: number }): Booking {
  // What was said of another time, or excepted for it, goes with that.
  const { movedBy: _, leastShare = 0, runsLate: __, plea: ___, ...rest } = booking
  if (by !== 'client') return rest
  const share = Math.max(leastShare, least)
  return {
    ...rest,
    moves: (booking.moves ?? 0) + 1,
    movedBy: by,
    ...(share > 0 ? { leastShare: share } : {}),
  }
}

const unowed = ({ owes: _, ...rest }: Booking): Booking => rest

/** What the word makes of a booking: it is booked, unless something must be paid first. */
function given(booking: Booking, on: On, { owes }: Owes, settles: Instant = on.at): Booking {
  const at = instant(Math.max(on.at, settles))
  const now = { ...unowed(placed(booking)), seq: on.seq, offers: [] }
  return owes === undefined
    ? { ...now, status: 'booked', worded: at, ...telling(on, 'confirmation', settles) }
    : {
        ...{ ...now, status: 'requested', until: owes, owes: { given: at, seq: on.seq } },
        ...telling(on, 'to-pay', settles),
      }
}

/** It has a time again: what giving one up would have given is not given. */
const placed = ({ gives: _, ...rest }: Booking): Booking => rest

/** What was said before of how it went, if anything, no longer stands; nothing is told of it. */
const came = ({ late: _, lasted: __, forgiven: ___, ...rest }: Booking): Booking => rest

const untold = ({ tells: _, ...rest }: Booking): Booking => rest

/** Also what a decision would be taken back to is changed: taking it back must not forget what came meanwhile. */
function alsoBefore(booking: Booking, change: Partial<Booking>): Booking {
  const { unsettled } = booking
  const next = { ...booking, ...change }
  return unsettled
    ? { ...next, unsettled: { ...unsettled, before: { ...unsettled.before, ...change } } }
    : next
}

/** Everything about each event: its shape, and what it makes of a booking. */
export const EVENTS: { [K in keyof Own]: Event<Happened & { type: K } & Own[K]> } = {
  proved: {
    shape: { until: maybe(epochMs), marks: maybe(list(one(...PERSON_MARKS), 10)) },
    apply: ({ until, marks }, { booking, seq, at }) => {
      const held = booking.unproved && until !== undefined ? { unproved: false, until } : {}
      const awaited = booking.unproved ? { awaited: { seq, at } } : {}
      const change = { mailProved: true, ...held, ...awaited, ...(marks ? { marks } : {}) }
      return { ...alsoBefore(booking, change), seq }
    },
  },
  welcomed: {
    shape: { ...settled, by: one('practitioner', 'rules'), text: maybe(words), owes },
    apply: (event, on) => ({
      ...given(on.before, on, event, event.settles),
      text: event.text ?? '',
      ...decision(on, event.settles),
    }),
  },
  declined: {
    shape: { ...settled, text: words, by: maybe(one('rules')) },
    apply: (event, on) => ({
      ...on.before,
      seq: on.seq,
      status: 'declined',
      text: event.text,
      ...telling(on, 'declined', event.settles),
      ...decision(on, event.settles),
    }),
  },
  offered: {
    shape: { ...settled, starts: list(object(start), 10, 1), until: epochMs, text: words, gives },
    apply: ({ starts, until, text: said, gives, settles: end }, on) => ({
      ...unowed(on.before),
      ...(gives ? { gives } : {}),
      seq: on.seq,
      // Also after it had run out, or was booked: it is a request again.
      status: 'requested',
      sequence: on.before.status === 'booked' ? on.before.sequence + 1 : on.before.sequence,
      offers: starts,
      until,
      text: said,
      ...telling(on, 'offered', end),
      ...decision(on, end),
    }),
  },
  accepted: {
    shape: { ...start, owes },
    apply: (event, on) => ({
      // Of what was booked, the practitioner has given up the time.
      ...given(whoMoved(on.before, {}), on, event),
      start: event.start,
      place: event.place,
      text: '',
      // Whoever had it in their calendar before has it there anew.
      sequence: on.before.worded === undefined ? on.before.sequence : on.before.sequence + 1,
      placed: on.seq,
    }),
  },
  refused: {
    shape: { text: words },
    apply: (event, on) => ({
      ...on.before,
      seq: on.seq,
      status: 'withdrawn',
      text: event.text,
      offers: [],
      ...telling(on, 'withdrawn'),
    }),
  },
  moved: {
    shape: {
      ...settled,
      ...start,
      minutes: length,
      text: words,
      service: maybe(id),
      by: maybe(one('client')),
      least: maybe(number(0, 100)),
    },
    apply: (event, on) => ({
      ...whoMoved(on.before, event),
      seq: on.seq,
      service: event.service ?? on.before.service,
      start: event.start,
      place: event.place,
      minutes: event.minutes,
      text: event.text,
      sequence: on.before.sequence + 1,
      placed: on.seq,
      ...telling(on, 'moved', event.settles),
      ...decision(on, event.settles),
    }),
  },
  lapsed: {
    shape: {},
    apply: (_, on) => ({
      ...untold(on.before),
      seq: on.seq,
      status: 'lapsed',
      offers: [],
      ...ended(on, 'lapsed', on.before.offers.length > 0),
    }),
  },
  withdrawn: {
    shape: {},
    apply: (_, on) => ({
      ...untold(on.before),
      seq: on.seq,
      status: 'withdrawn',
      offers: [],
      ...ended(on, 'withdrawn'),
    }),
  },
  cancelled: {
    shape: { ...settled, ...cancelled },
    apply: ({ by, share, text: said, gives, settles: end }, on) => ({
      ...on.before,
      ...(gives ? { gives } : {}),
      seq: on.seq,
      status: 'cancelled',
      cancelledBy: by,
      ended: on.at,
      share,
      text: said,
      sequence: on.before.sequence + 1,
      ...telling(on, 'cancelled', end),
      ...decision(on, end),
    }),
  },
  attended: {
    shape: { ...settled, late: maybe(whole(1, MOST_LATE)), minutes: maybe(whole(1, MOST_LENGTH)) },
    apply: ({ late, minutes, settles: end }, on) => ({
      ...came(on.before),
      seq: on.seq,
      status: 'attended',
      ...(late === undefined ? {} : { late }),
      ...(minutes === undefined ? {} : { lasted: minutes }),
      ...decision(on, end),
    }),
  },
  missed: {
    shape: settled,
    apply: ({ settles: end }, on) => ({
      ...came(on.before),
      seq: on.seq,
      status: 'missed',
      ...decision(on, end),
    }),
  },
  questioned: {
    shape: { ...settled, text: words, until: epochMs },
    apply: ({ text: said, until, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      question: { seq: on.seq, text: said },
      extended: true,
      until,
      ...telling(on, 'question', end),
      ...decision(on, end),
    }),
  },
  replied: {
    shape: { text: words },
    apply: ({ text: said }, { booking, seq, at }) => {
      const { question } = booking
      return {
        ...alsoBefore(booking, question ? { question: { ...question, reply: { seq, at, text: said } } } : {}),
        seq,
      }
    },
  },
  'running-late': {
    noted: true,
    shape: { ...settled, minutes: whole(1, MOST_LATE), gives },
    apply: ({ minutes, gives, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      runsLate: {
        seq: on.seq,
        due: end > on.at ? shift(end, 1) : on.at,
        minutes,
        ...(gives ? { gives } : {}),
      },
      ...decision(on, end),
    }),
  },
  pleaded: {
    shape: { text: words },
    apply: ({ text: said }, { booking, seq, at }) => ({
      ...alsoBefore(booking, { plea: { seq, at, text: said } }),
      seq,
    }),
  },
  excepted: {
    shape: { ...settled, granted: yes, text: words },
    apply: ({ granted, text: said, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      ...(on.before.plea ? { plea: { ...on.before.plea, answer: { granted, text: said } } } : {}),
      ...telling(on, 'excepted', end),
      ...decision(on, end),
    }),
  },
  paid: {
    noted: true,
    shape: {
      ...settled,
      amount: someMoney,
      way: one(...WAYS),
      text: maybe(words),
      source: maybe(text(200)),
      books: maybe(yes),
      owes,
    },
    apply: ({ at, amount, way, text: said, source, books, owes, settles: end }, on) => ({
      ...(books ? given(on.before, on, {}, end) : on.before),
      seq: on.seq,
      ...(owes === undefined ? {} : { until: owes }),
      payments: [
        ...(on.before.payments ?? []),
        { at, amount, way, ...(said ? { text: said } : {}), ...(source ? { source } : {}) },
      ],
      ...decision(on, end),
    }),
  },
  'given-back': {
    noted: true,
    shape: { ...settled, amount: someMoney, way: one(...WAYS), text: maybe(words) },
    apply: ({ at, amount, way, text: said, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      payments: [
        ...(on.before.payments ?? []),
        { at, amount: -amount, way, ...(said ? { text: said } : {}) },
      ],
      ...decision(on, end),
    }),
  },
  adjusted: {
    noted: true,
    shape: { ...settled, amount: anyMoney, text: words },
    apply: ({ at, amount, text: said, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      adjusted: [...(on.before.adjusted ?? []), { at, amount, text: said }],
      ...decision(on, end),
    }),
  },
  agreed: {
    shape: { agreements: list(agreement, 100, 1) },
    apply: ({ agreements }, { booking, seq }) => ({
      ...alsoBefore(booking, { agreed: [...(booking.agreed ?? []), ...agreements] }),
      seq,
    }),
  },
  'asked-to-sign': {
    noted: true,
    shape: { ...settled, terms: list(id, 50, 1) },
    apply: ({ terms, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      toSign: {
        terms: [...new Set([...(on.before.toSign?.terms ?? []), ...terms])],
        seq: on.seq,
        due: end > on.at ? shift(end, 1) : on.at,
      },
      ...decision(on, end),
    }),
  },
  forgiven: {
    noted: true,
    shape: { ...settled, text: words },
    apply: ({ at, text: said, settles: end }, on) => ({
      ...on.before,
      seq: on.seq,
      forgiven: { at, text: said },
      ...decision(on, end),
    }),
  },
  overruled: {
    shape: { outcome: one('fits', 'look', 'closed'), text: text(2_000) },
    apply: ({ at, outcome, text: said }, { booking, seq }) => ({
      ...alsoBefore(booking, { overruled: { at, outcome, text: said } }),
      seq,
    }),
  },
  'taken-back': {
    shape: { of: count },
    apply: (_, { booking, seq }) => {
      if (!booking.unsettled) throw new Error(`Booking ${booking.id}: nothing to take back at ${seq}.`)
      return { ...booking.unsettled.before, seq }
    },
  },
}

/** Whether what can still be taken back was only noted, by the kind of its event. */
export const isNoted = ({ what }: NonNullable<Booking['unsettled']>): boolean =>
  EVENTS[what as Later['type']].noted === true

/** The kind of an event, for what is asked of any. */
export const eventKind = (event: Later): Event<Later> => EVENTS[event.type] as Event<Later>
