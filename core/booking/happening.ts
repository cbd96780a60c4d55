import type { Channel } from '../practice/messaging.ts'
import type { Outcome } from '../questions/index.ts'
import { epochMs } from '../shape/plain.ts'
import { id, type KeysOf, maybe, number, one, text, whole, yes } from '../shape/shape.ts'
import type { Agreement } from '../terms/types.ts'
import { type Duration, type Instant, instant, type Language, shift } from '../time/index.ts'
import type {
  Asked,
  Booking,
  CardFacts,
  Happened,
  Invoice,
  Mark,
  Others,
  PayWay,
  Start,
  Telling,
  TellingStep,
  TillPayment,
  Unwanted,
} from './record.ts'

/** What can happen to a booking after it was asked for, each with what is its own. */
export interface OwnOfEvent {
  /** The address has proved true; what was unproved until then is held for the practitioner's word from now on. */
  proved: { until?: Instant; marks?: Mark[] }
  /** `text`: a word with it, where somebody was booked in by hand. */
  welcomed: Undoable & { by: 'practitioner' | 'rules'; text?: string } & Owes & Silent
  declined: Undoable & { text: string; by?: 'rules' } & Silent
  /** `gives`: what is promised where the time of a session is given up so late, unless one of the others is taken. */
  offered: Undoable & Silent & { starts: Start[]; until: Instant; text: string; gives?: number }
  accepted: Start & Owes
  refused: { text: string }
  /**
   * To another time, place, length or service; the rules of the day one asked go with it. `by` the client through their
   * link, with what cancelling would have cost them then (`least`, in percent): it costs no less afterwards.
   */
  moved: Undoable &
    Start & {
      minutes: number
      text: string
      service?: string
      by?: 'client'
      least?: number
      /** The earlier time that its client had waited for: by its freed time. */
      freed?: string
    } & Silent
  lapsed: object
  withdrawn: object
  /** What was brought in from another place is taken out again, as if it had not been. */
  'taken-out': object
  /** `gives`: what the practitioner has promised for that, in percent of the price. */
  cancelled: Undoable & {
    by: 'client' | 'practitioner'
    share: number
    text: string
    gives?: number
  } & Silent
  /** The session has taken place; `late`: how many minutes late the client came, `minutes`: how long it really was. */
  attended: Undoable & { late?: number; minutes?: number }
  missed: Undoable
  /** The practitioner asks something before their word; held until `until` for it. */
  questioned: Undoable & { text: string; until: Instant }
  replied: { text: string }
  /** The practitioner will be so many minutes late. */
  'running-late': Undoable & { minutes: number; gives?: number }
  /** The client asks for an exception from the rules, and the practitioner answers. */
  pleaded: { text: string }
  excepted: Undoable & Silent & { granted: boolean; text: string }
  /** Money has come; or has been given back. */
  paid: Undoable & { amount: number; way: PayWay; text?: string; source?: string; books?: boolean } & Owes
  'given-back': Undoable & { amount: number; way: PayWay; text?: string; source?: string }
  /** The till is asked for something; the client goes there. */
  'till-asked': Pick<TillPayment, 'payment' | 'amount' | 'until'> & { what: 'pay' | 'card' }
  /** The practitioner has money taken from the card that is kept, within what was agreed. */
  charged: Undoable & { payment: string; amount: number; text: string; agreed: string }
  /** What the till has told, but for money that has come; `message`: by which message. */
  'till-said': {
    payment: string
    message: string
    is: 'failed' | 'over' | 'kept'
    text: string
    card?: CardFacts
  }
  /** An invoice, or what takes one back; `n` is its running number. */
  invoiced: Omit<Invoice, 'at'> & { n: number }
  /** Something is added to what is owed, or taken off it. */
  adjusted: Undoable & { amount: number; text: string }
  /** The client agrees to what has been lacking. */
  agreed: { agreements: Agreement[] }
  /** Who else it concerns, in place of what was said before. */
  concerns: Undoable & { others: Others }
  /** The practitioner asks for texts to be signed by themselves. */
  'asked-to-sign': Undoable & { terms: string[] }
  /** What counted against the client no longer does; the practitioner says why. */
  forgiven: Undoable & { text: string }
  /** The client says that they will be there; or that what was to be done before is done, or not after all. */
  coming: object
  prepared: { done: boolean }
  /** There is something to do before it, given by this course; `what`: preparations; `done`: all of it is. */
  'to-prepare': { course: string; what: string[]; by: Duration; done?: boolean }
  /** They no longer want such messages, or want them again. */
  unwanted: { what: Unwanted; on: boolean }
  /** They read in another language from now on. */
  speaks: { language: Language }
  /** The practitioner writes by hand; `own`: from their own phone, which is only noted. */
  written: Undoable & { channel: Channel; subject: string; text: string; own?: boolean }
  /** The practitioner holds one message back or lets it go again, sends it now, or has it say something else. */
  steered: { message: string; how: 'hold' | 'release' | 'now' | 'edit'; subject?: string; text?: string }
  /** The practitioner has judged otherwise than the rules, and says why. */
  overruled: { outcome: Outcome; text: string }
  /** Takes the decision `of` (its place in the record, from 1) back as if it had not been. */
  'taken-back': { of: number }
}

/** The client is not told of it. */
export interface Silent {
  silent?: boolean | undefined
}

/** Until when what must be paid first, or the rest of it, is waited for; without it, it is booked. */
export interface Owes {
  owes?: Instant
}

/** A decision that can be taken back while `now ≤ settles`; its message waits as long. */
export interface Undoable {
  settles: Instant
  /** Away from the desk: by the link in a mail, or on the phone. */
  away?: boolean
}

export type Later = { [K in keyof OwnOfEvent]: Happened & { type: K } & OwnOfEvent[K] }[keyof OwnOfEvent]
/** One thing that happened to a booking. The list of them is the booking. */
export type BookingEvent = Asked | Later

/** Events as they were written before version 2. */
export type EarlierEvent =
  | (Omit<Asked, 'v' | 'asking' | 'proof' | 'shown'> & { standing: 'new' | 'known'; byHand?: boolean })
  | (Happened & { type: 'cancelled' } & Omit<OwnOfEvent['cancelled'], keyof Undoable | keyof Silent>)

/** Events as files and databases hold them; they are never rewritten. */
export type StoredEvent = BookingEvent | EarlierEvent

/** What an event is applied to. */
export interface On {
  booking: Booking
  /** The booking without a decision that can be taken back: what is said now stands. */
  before: Booking
  seq: number
  at: Instant
  /** The kind of the event. */
  what: Later['type']
}

export interface Event<E> {
  shape: KeysOf<Omit<E, 'at' | 'type'> & object>
  /** Noted by the practitioner: it contradicts nothing that the client does meanwhile, and stays. */
  noted?: true
  apply(event: E, on: On): Booking
}

export const words = text(5_000)
export const owes = maybe(epochMs)
export const silent = maybe(yes)
/** Money of a record, in minor units: some, or some more or less. */
export const someMoney = whole(1, 100_000_000_000)
export const anyMoney = whole(-100_000_000_000, 100_000_000_000)
export const settled = { settles: epochMs, away: maybe(yes) }
export const start = { start: epochMs, place: id }
/** A length as a record holds it. */
export const length = whole(-1_000_000, 1_000_000)
/** What the practitioner's own side of the rules gives the client, in percent of the price. */
export const gives = maybe(number(0, 100))
/** What a cancellation says, of any version. */
export const cancelled = { by: one('client', 'practitioner'), share: number(0, 100), text: words, gives }

/** A decision that was never open to being taken back leaves nothing to wait for. */
export const decision = ({ before, seq, at, what }: On, until: Instant): Pick<Booking, 'unsettled'> =>
  until > at ? { unsettled: { seq, until, before, what } } : {}

/** What this tells the client, once it can't be taken back any more: an inclusive end is over a moment later. */
export const telling = ({ seq, at }: On, step: TellingStep, until: Instant = at): { tells: Telling } => ({
  tells: { seq, step, due: until > at ? shift(until, 1) : at },
})

export const untold = ({ tells: _, ...rest }: Booking): Booking => rest

/** What was done in silence tells nothing, nor does what would have been told before. */
export const unlessSilent = (booking: Booking, { silent }: Silent): Booking =>
  silent ? untold(booking) : booking

/** From when on a decision stands: an inclusive end is over a moment later. */
export const standsFrom = ({ at }: On, settles: Instant): Instant => (settles > at ? shift(settles, 1) : at)

/** An end without a word: nobody has shown yet that the address is theirs. */
export function ended(on: On, step: TellingStep, offered = false): Pick<Booking, 'tells'> {
  if (on.booking.unproved || isUndone(on.booking)) return {}
  const { tells } = telling(on, step)
  return { tells: offered ? { ...tells, offered } : tells }
}

/** Booked in by hand, and that taken back: nobody was ever told of it. */
export const isUndone = ({ asked, status }: Booking): boolean =>
  asked.proof === 'hand' && status === 'requested'

/** What a move leaves of who moves: the practitioner's own costs the client nothing, nor counts as theirs. */
export function whoMoved(
  booking: Booking,
  { by, least = 0, freed }: { by?: 'client'; least?: number; freed?: string },
): Booking {
  // What was said of another time, or excepted for it, goes with that.
  const { movedBy: _, leastShare = 0, runsLate: __, plea: ___, coming: ____, ...rest } = booking
  // An earlier time from the waitlist costs nothing and is not counted; what an own move has cost stays.
  if (freed !== undefined) return leastShare > 0 ? { ...rest, leastShare } : rest
  if (by !== 'client') return rest
  const share = Math.max(leastShare, least)
  return {
    ...rest,
    moves: (booking.moves ?? 0) + 1,
    movedBy: by,
    ...(share > 0 ? { leastShare: share } : {}),
  }
}

export const unowed = ({ owes: _, ...rest }: Booking): Booking => rest

/** What the word makes of a booking: it is booked, unless something must be paid first. */
export function worded(booking: Booking, on: On, { owes }: Owes, settles: Instant = on.at): Booking {
  const at = instant(Math.max(on.at, settles))
  const now = { ...unowed(placed(booking)), seq: on.seq, offers: [] }
  return owes === undefined
    ? { ...now, status: 'booked', worded: at, ...telling(on, 'confirmation', settles) }
    : {
        ...{ ...now, status: 'requested', until: owes, owes: { given: at } },
        ...telling(on, 'to-pay', settles),
      }
}

/** It has a time again: what giving one up would have given is not given. */
export const placed = ({ gives: _, ...rest }: Booking): Booking => rest

/** What was said before of how it went, if anything, no longer stands; nothing is told of it. */
export const came = ({ late: _, lasted: __, forgiven: ___, wentAt: ____, ...rest }: Booking): Booking => rest

/** Also what a decision would be taken back to is changed: taking it back must not forget what came meanwhile. */
export function alsoBefore(booking: Booking, change: Partial<Booking>): Booking {
  const { unsettled } = booking
  const next = { ...booking, ...change }
  return unsettled
    ? { ...next, unsettled: { ...unsettled, before: { ...unsettled.before, ...change } } }
    : next
}

/** What there is to know of each event. */
export type EventKinds = { [K in keyof OwnOfEvent]: Event<Happened & { type: K } & OwnOfEvent[K]> }
