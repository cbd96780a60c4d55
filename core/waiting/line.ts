import type { Attempt, Contact } from '../booking/record.ts'
import { clientClocks, type Practice } from '../practice/index.ts'
import type { Answers } from '../questions/index.ts'
import type { Agreement } from '../terms/types.ts'
import { addDays, type Duration, dayNumber, type Instant, shift, zone } from '../time/index.ts'
import type { Waiting, WaitingWindow } from './types.ts'

/** What somebody who has got in line said of when they could come, and how they want to hear of it. */
export interface LineWishes {
  windows: WaitingWindow[]
  /** At how short notice they could come. */
  notice?: Duration
  /** A freed time is told by text message, too. */
  by?: 'text'
}

/** Somebody has got in line: what they want, as they said it, and what it came to then. */
export interface Joined extends LineWishes {
  service: string
  place: string
  minutes: number
  /** In minor units. */
  price: number
  person: Contact
  answers: Answers
  attempts: Attempt[]
  extras?: string[]
  travel?: string
  address?: string
  code?: string
  agreements: Agreement[]
  /** Their address is not proved yet: until when it can be. */
  until?: Instant
  /** By the practitioner's hand; `silent`: they are not told. */
  byHand?: boolean
  silent?: boolean
  /** The rules say that somebody like them is looked at first. */
  look?: boolean
  /** The booking that they would rather have earlier. */
  instead?: string
  /** What the relay has sealed for the desk of the answers and attempts; see `SealedPart`. */
  sealed?: string[]
}

/** Why a freed time that was held out to somebody is not theirs. */
export type WhyPassed = 'taken' | 'gone' | 'stopped'

/** What can happen to a place in line, each with what is its own. */
export interface OwnOfLine {
  joined: Joined
  /** The link mailed to them was pressed. */
  proved: object
  /** They could come at other times; or the practitioner has said so for them. */
  changed: LineWishes
  paused: ByWhom
  resumed: ByWhom
  /** The practitioner has looked at them: what they take needs no second word. */
  looked: object
  /** A freed time is held out to them until a moment; `hand`: the practitioner has chosen them. */
  'held-out': {
    freed: string
    start: Instant
    minutes: number
    price: number
    until: Instant
    hand?: boolean
    /** Others are asked for the same time. */
    shared?: boolean
  }
  /** Not for them; `let-go`: they have let it go by; `still`: so often that they are asked whether they still wait. */
  turned: { freed: string }
  'let-go': { freed: string; still?: boolean }
  passed: { freed: string; why: WhyPassed }
  taken: { freed: string; booking: string }
  /** They still wait. */
  still: object
  /** `settles`: until when it can be taken back, and nothing is told; `into`: the place they had already, and keep. */
  ended: ByWhom & { why: WhyEnded; text: string; settles?: Instant; into?: string }
  /** What ended it is taken back. */
  returned: object
}

interface ByWhom {
  by: 'client' | 'practitioner' | 'rules'
}

/**
 * Why somebody no longer waits: they left, were taken out, never proved their address, every window is past, they were
 * booked in by hand, or had a place already.
 */
export type WhyEnded = 'left' | 'out' | 'unproved' | 'over' | 'booked' | 'double'

export type LineEvent = {
  [K in keyof OwnOfLine]: Whole<{ type: K; at: Instant } & OwnOfLine[K]>
}[keyof OwnOfLine]
type Whole<T> = { [P in keyof T]: T[P] }
type EventOf<K extends LineEvent['type']> = Extract<LineEvent, { type: K }>

/** A freed time that is held out to somebody. */
export interface HeldOut extends Omit<OwnOfLine['held-out'], 'hand'> {
  /** Its place in the record, and when it was held out. */
  seq: number
  at: Instant
}

/** What is written to somebody in line. */
export type LineStep = 'line-joined' | 'freed-time' | 'freed-passed' | 'line-still' | 'line-ended'

/** A place in line, as its record tells. What it is at a moment, `lineAt` tells. */
export interface PlaceInLine {
  id: string
  seq: number
  latest: Instant
  joined: EventOf<'joined'>
  wishes: LineWishes
  status: 'unproved' | 'waiting' | 'paused' | 'taken' | 'ended'
  looked: boolean
  offer?: HeldOut
  /** The freed times that were held out to them, and how many of the last they have let go by in a row. */
  had: string[]
  letGo: number
  /** What became of the last one. */
  last?: { start: Instant; how: WhyPassed | 'turned' | 'let-go' }
  /** They are asked whether they still wait, and nothing is held out meanwhile. */
  doubted?: boolean
  /** The booking it has become. */
  booking?: string
  ended?: Omit<EventOf<'ended'>, 'type'>
  /** What it was before it was ended, as long as that can be taken back. */
  before?: PlaceInLine
  /** The event that tells them something, in which words, and from when on. */
  tells?: { seq: number; step: LineStep; due: Instant }
}

/** A place in line as it begins. */
export function beginLine(id: string, joined: EventOf<'joined'>): PlaceInLine {
  const { windows, notice, by, at, until, byHand, look, silent } = joined
  return {
    id,
    seq: 1,
    latest: at,
    joined,
    wishes: { windows, ...(notice ? { notice } : {}), ...(by ? { by } : {}) },
    status: until === undefined ? 'waiting' : 'unproved',
    looked: byHand === true || look !== true,
    had: [],
    letGo: 0,
    ...(silent ? {} : { tells: { seq: 1, step: 'line-joined', due: at } }),
  }
}

const told = (line: PlaceInLine, at: Instant, step: LineStep, due = at): PlaceInLine => ({
  ...line,
  tells: { seq: line.seq, step, due },
})
const quiet = ({ tells: _, ...line }: PlaceInLine): PlaceInLine => line
/** What was held out is theirs no more. */
const free = ({ offer: _, ...line }: PlaceInLine): PlaceInLine => line
const lost = (line: PlaceInLine, how: NonNullable<PlaceInLine['last']>['how']): PlaceInLine =>
  line.offer ? { ...free(line), last: { start: line.offer.start, how } } : line
const sure = ({ doubted: _, ...line }: PlaceInLine): PlaceInLine => line
/** Whether an event is about what is held out just now. */
const isOf = ({ offer }: PlaceInLine, { freed }: { freed: string }): boolean => offer?.freed === freed

const APPLY: { [K in LineEvent['type']]: (line: PlaceInLine, event: EventOf<K>) => PlaceInLine } = {
  joined: (line) => line,
  proved: (line) => quiet({ ...line, status: 'waiting' }),
  changed: (line, { windows, notice, by }) => ({
    ...line,
    wishes: { windows, ...(notice ? { notice } : {}), ...(by ? { by } : {}) },
  }),
  paused: (line) => ({ ...line, status: 'paused' }),
  resumed: (line) => sure({ ...line, status: 'waiting', letGo: 0 }),
  looked: (line) => ({ ...line, looked: true }),
  'held-out': (line, { type: _, hand: __, ...offer }) =>
    told(
      { ...line, offer: { ...offer, seq: line.seq }, had: [...line.had, offer.freed] },
      offer.at,
      'freed-time',
    ),
  turned: (line) => quiet(lost({ ...line, letGo: 0 }, 'turned')),
  'let-go': (line, { at, still }) => {
    const next = lost({ ...line, letGo: line.letGo + 1 }, 'let-go')
    return still ? told({ ...next, doubted: true }, at, 'line-still') : quiet(next)
  },
  passed: (line, event) => (isOf(line, event) ? told(lost(line, event.why), event.at, 'freed-passed') : line),
  taken: (line, { booking }) => quiet(free({ ...line, status: 'taken', booking, letGo: 0 })),
  still: (line) => sure({ ...line, letGo: 0 }),
  ended: (line, { type: _, ...ended }) => {
    const { before: __, ...before } = line
    const over: PlaceInLine = { ...free(line), status: 'ended', ended, before }
    const silent = ended.why === 'unproved' || ended.why === 'booked' || ended.why === 'double'
    if (ended.by === 'client' || silent) return quiet(over)
    return told(
      over,
      ended.at,
      'line-ended',
      ended.settles === undefined ? ended.at : shift(ended.settles, 1),
    )
  },
  // What was held out to them has gone on meanwhile.
  returned: (line) => (line.before ? { ...free(line.before), seq: line.seq, latest: line.latest } : line),
}

/** A place in line after something has happened to it. */
export function applyLine(before: PlaceInLine, event: LineEvent): PlaceInLine {
  const line = { ...before, seq: before.seq + 1, latest: event.at }
  // What is over stays so, but for what ended it being taken back.
  const over = before.status === 'ended' || before.status === 'taken'
  if (over && event.type !== 'returned') return line
  return (APPLY[event.type] as (line: PlaceInLine, event: LineEvent) => PlaceInLine)(line, event)
}

/** A place in line from its whole record. @throws RangeError for a record that does not begin with somebody's joining */
export function replayLine(id: string, record: readonly LineEvent[]): PlaceInLine {
  const [first, ...rest] = record
  if (first?.type !== 'joined') throw new RangeError(`The record of ${id} has no beginning.`)
  return rest.reduce(applyLine, beginLine(id, first))
}

/** What a place in line is at a moment. */
export type LineState =
  | { is: 'unproved'; until: Instant }
  | { is: 'waiting' }
  | { is: 'paused' }
  /** A freed time is held out to them. */
  | { is: 'offered'; offer: HeldOut }
  /** They are asked whether they still wait. */
  | { is: 'doubted' }
  | { is: 'taken'; booking: string }
  | { is: 'ended'; why: WhyEnded }

/** The one telling of a place in line. */
export function lineAt(
  { status, joined, offer, doubted, booking, ended }: PlaceInLine,
  now: Instant,
): LineState {
  if (status === 'ended') return { is: 'ended', why: ended?.why ?? 'left' }
  if (status === 'taken') return { is: 'taken', booking: booking ?? '' }
  if (status === 'unproved') {
    const until = joined.until ?? now
    return now <= until ? { is: 'unproved', until } : { is: 'ended', why: 'unproved' }
  }
  if (offer && now <= offer.until) return { is: 'offered', offer }
  if (status === 'paused') return { is: 'paused' }
  return doubted ? { is: 'doubted' } : { is: 'waiting' }
}

/** When the last window is past: nothing where one has no end, or there is none. */
export function overFrom({ joined, wishes: { windows } }: PlaceInLine): Instant | undefined {
  const ends = windows.map(({ to }) => to)
  if (ends.length === 0 || ends.some((to) => to === undefined)) return undefined
  const last = ends.toSorted().at(-1)!
  return zone(joined.person.zone).toInstant(dayNumber(addDays(last, 1)), 0)
}

/** What is told by text message: that a time is free, and that it is no longer, to whoever wants that. */
export const tellsByText = ({ tells, wishes, joined }: PlaceInLine): boolean =>
  wishes.by === 'text' &&
  joined.person.phone !== undefined &&
  (tells?.step === 'freed-time' || tells?.step === 'freed-passed')

/** Whether it is still a place in line. */
export const isInLine = ({ is }: LineState): boolean =>
  is === 'waiting' || is === 'paused' || is === 'offered' || is === 'doubted'

/** How a place in line is looked at when a freed time is filled. @param earlier only before this moment */
export function waitingOf(
  practice: Practice,
  { id, joined, wishes }: PlaceInLine,
  earlier?: Instant,
): Waiting {
  const { person, service, place, minutes, price, at, travel } = joined
  return {
    id,
    person: person.email,
    ...{
      service,
      place,
      minutes,
      price,
      since: at,
      zone: clientClocks(practice, place, person.zone).first.name,
      windows: wishes.windows,
    },
    ...(wishes.notice ? { notice: wishes.notice } : {}),
    ...(travel ? { travel } : {}),
    ...(earlier === undefined ? {} : { earlier }),
  }
}
