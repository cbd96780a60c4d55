import { bookingSubject } from '@acolhida/core/agenda'
import {
  type Booking,
  type ClientDoes,
  type Command,
  type DeskDoes,
  decide,
  seenAt,
} from '@acolhida/core/booking'
import type { DoorPackage, SendBody } from '@acolhida/core/contract'
import {
  agreeThrough,
  answer,
  askTill,
  type Change,
  command,
  costNow,
  type Does,
  Doorkeeper,
  endSeries,
  endWords,
  enquire,
  enter,
  enterSeries,
  hand,
  itself,
  keep,
  lackingOf,
  MapStore,
  moveSeries,
  openingsFor,
  payableNow,
  publish,
  quote,
  read,
  renew,
  replan,
  sealAway,
  send,
  throughLink,
  throughWord,
  tillGave,
  tillSays,
  toSealNow,
  unkeep,
  went,
} from '@acolhida/core/house'
import type { PaymentLine } from '@acolhida/core/practice'
import { printOfBooking, Refused } from '@acolhida/core/request'
import { sha256Hex, versionFingerprint } from '@acolhida/core/terms'
import { DAY, type Instant, instant, MINUTE, SECOND, shift } from '@acolhida/core/time'
import { circumstances } from '../../core/house/circumstances.ts'
import { tryCourse } from './course-tries.ts'
import { type Lent, tryInLine } from './line-tries.ts'
import { FURNISHED, TO_A_START, type Try } from './tries.ts'

/** How long after a start one looks, in ms: whoever is not there by then has missed it. */
const LATE = 20 * MINUTE
/** For what a time is looked for first. */
const NEEDS_A_START = new Set<string>(['move-own', 'move', 'offer', 'enter', 'series'])

export const VISITS = ['visit-of-the-first-one', 'visit-of-the-second-one']
/** For how long finished bookings are kept in histories: short, so that forgetting happens in them. */
export const MEMORY = 12 * DAY

/** Where a history begins: when, how many names were given, and how many were sent. */
export interface Begun {
  now: Instant
  names: number
  sent: number
}

/** A store that also keeps what was written to it. */
class Written extends MapStore {
  readonly changes: Change[] = []
  override write(changes: readonly Change[]): void {
    this.changes.push(...changes)
    super.write(changes)
  }
}

/** Lets what every history begins with happen once: what was written then, and where they go on from. */
export function furnished(
  pack: DoorPackage,
  now: Instant,
  secretOf: (link: string) => string,
): { changes: Change[]; begun: Begun } {
  const store = new Written(secretOf)
  store.write([{ type: 'package', pack }])
  const history = new History({ keeper: new Doorkeeper(store), secretOf }, { now, names: 0, sent: 0 })
  for (const attempt of FURNISHED) history.do(attempt)
  return { changes: store.changes, begun: history.begun }
}

/** A house to be tried: a doorkeeper, and how its secrets are made. */
export interface Tried {
  keeper: Doorkeeper
  secretOf(link: string): string
  /** Ends it and starts it again, where it can be. */
  restart?(): Doorkeeper
}

/**
 * Lets a history happen to a house. Everything in it follows from the history alone: moments, names, choices; so two
 * houses that have had the same come out the same.
 */
export class History {
  readonly #tried: Tried
  #now: Instant
  #names = 0
  #sent = 0
  #last: { does: Does<never, unknown>; body: never; once: { key: string; print: string } } | undefined
  /** What came of each try. */
  readonly said: unknown[] = []

  constructor(tried: Tried, { now, names, sent }: Begun) {
    this.#tried = tried
    this.#now = now
    this.#names = names
    this.#sent = sent
    this.#call(replan, {})
  }

  get begun(): Begun {
    return { now: this.#now, names: this.#names, sent: this.#sent }
  }

  /**
   * Which booking something is done with: mostly one with which it can be done, now and then any.
   * @param command what would be done with it
   */
  #pick(nth: number, command: (booking: Booking) => Command): Booking | undefined {
    const all = this.bookings
    const can =
      nth % 5 === 0
        ? []
        : all.filter((one) => {
            const about = circumstances(this.keeper.house, one, this.#now)
            const decision = decide(one, command(one), about)
            return 'events' in decision && decision.events.length > 0
          })
    const from = can.length > 0 ? can : all
    return from[nth % Math.max(1, from.length)]
  }

  get keeper(): Doorkeeper {
    return this.#tried.keeper
  }
  get now(): Instant {
    return this.#now
  }
  get bookings(): Booking[] {
    return [...this.keeper.house.openBookings()].sort((a, b) => (a.id < b.id ? -1 : 1))
  }

  readonly #ids = (): string => `name-${String(++this.#names).padStart(12, '0')}`

  #call<B, A>(does: Does<B, A>, body: B, once = true): unknown {
    this.keeper.catchUp(this.#now, this.#ids, MEMORY)
    const key = this.#ids()
    const about = { now: this.#now, ids: this.#ids, ...(once ? { once: { key, print: key } } : {}) }
    if (once) this.#last = { does, body, once: { key, print: key } } as never
    try {
      return this.keeper.act(does, body, about)
    } catch (error) {
      // What was refused is not answered under its key: said again, it is another try.
      if (once) this.#last = undefined
      if (error instanceof Refused) return { refused: error.problem.code }
      throw error
    }
  }

  do(attempt: Try): void {
    this.said.push(this.#try(attempt))
  }

  #try(attempt: Try): unknown {
    switch (attempt.who) {
      case 'time':
        this.#now = attempt.ms === TO_A_START ? this.#afterAStart() : shift(this.#now, attempt.ms)
        this.keeper.catchUp(this.#now, this.#ids, MEMORY)
        this.#forget()
        return 'later'
      case 'restart':
        if (this.#tried.restart) this.#tried.keeper = this.#tried.restart()
        return 'restarted'
      case 'again': {
        const last = this.#last
        if (!last) return 'nothing'
        try {
          return this.keeper.act(last.does, last.body, { now: this.#now, ids: this.#ids, once: last.once })
        } catch (error) {
          if (error instanceof Refused) return { refused: error.problem.code }
          throw error
        }
      }
      case 'post':
        return this.#post(attempt.goes)
      case 'seal':
        return this.#seal()
      case 'client':
        return this.#client(attempt)
      case 'till':
        return this.#till(attempt)
      case 'word':
        return this.#word(attempt)
      case 'link':
        return this.#link(attempt)
      case 'line':
        return tryInLine(this.#lent(), attempt)
      case 'course':
        return tryCourse(this.#lent(), attempt)
      case 'desk':
        return this.#desk(attempt)
    }
  }

  #lent(): Lent {
    this.keeper.catchUp(this.#now, this.#ids, MEMORY)
    return {
      keeper: this.keeper,
      now: this.#now,
      secretOf: (link) => this.#tried.secretOf(link),
      name: this.#ids,
      call: (does, body, once) => this.#call(does, body, once),
    }
  }

  #afterAStart(): Instant {
    const starts = this.bookings.flatMap(({ status, start }) =>
      status === 'booked' && start > this.#now ? [start + LATE] : [],
    )
    return starts.length > 0 ? instant(Math.min(...starts)) : this.#now
  }

  #forget(): void {
    const due = this.keeper.due(this.#now, ({ doing }) => doing.do === 'forget')
    if (due) this.#call(itself, { due, memory: MEMORY, really: this.#now }, false)
  }

  /** Hands the first due message over, and notes whether it went. */
  #post(goes: boolean): unknown {
    this.keeper.catchUp(this.#now, this.#ids, MEMORY)
    const due = this.keeper.due(this.#now, ({ doing }) => doing.do === 'message')
    if (!due) return 'no post'
    const handed = this.#call(hand, { due }, false) as { recipient: string; subject: string; text: string }
    if (!handed) return 'of no use any more'
    const { recipient, subject, text } = handed
    this.#call(went, { due, recipient, subject, text, ...(goes ? {} : { problem: 'no answer' }) }, false)
    return { handed: text }
  }

  /** Seals everything that is due, as the relay does outside of the house. */
  #seal(): unknown {
    this.keeper.catchUp(this.#now, this.#ids, MEMORY)
    for (let n = 0; ; n++) {
      const due = this.keeper.due(this.#now, ({ doing }) => doing.do === 'seal')
      const sealing = due && toSealNow(this.keeper.house, due.subject, this.#now)
      if (!due || !sealing) return n === 0 ? { refused: 'nothing to seal' } : { sealed: n }
      const { subject } = due
      this.#call(sealAway, { subject, part: sealing.part, sealed: `head..${n}.of.it` }, false)
    }
  }

  #starts(visit: string): Instant[] {
    const body = { visit, service: 'a', place: 'video', answers: {}, days: 4 }
    return openingsFor(this.keeper.house, body, this.#now).starts
  }

  #start(visit: string, nth: number): Instant {
    const starts = this.#starts(visit)
    return starts[nth % Math.max(1, starts.length)] ?? instant(0)
  }

  #client({ does, visit: number, nth }: Extract<Try, { who: 'client' }>): unknown {
    const visit = VISITS[number]!
    const wanted = { visit, service: 'a', place: 'video', answers: nth % 2 ? { q: 'more' } : {} }
    switch (does) {
      case 'read':
        return this.#call(read, wanted, false)
      case 'renew':
        return this.#call(renew, { visit }, false)
      case 'unkeep':
        return this.#call(unkeep, { visit }, false)
      case 'enquire':
        return this.#call(enquire, {
          visit,
          name: 'E',
          email: `e${++this.#sent}@example.org`,
          message: 'Hello',
        })
      case 'keep':
        return this.#call(keep, { ...wanted, start: this.#start(visit, nth) }, false)
      case 'send': {
        const start = this.#start(visit, nth)
        const kept = this.#call(keep, { ...wanted, start }, false) as { shown?: string }
        const { practice } = this.keeper.house.pack!
        const agreed = practice.terms.map(({ id, versions }) => ({
          terms: id,
          number: 1,
          fingerprint: versionFingerprint(id, versions[0]!),
        }))
        const body: SendBody = {
          ...wanted,
          start,
          clock: this.#now,
          shown: nth === 7 ? 'f'.repeat(64) : (kept.shown ?? ''),
          agreed: nth === 9 ? [] : agreed,
          person: { name: 'S', email: `s${++this.#sent % 6}@example.org`, zone: 'Europe/Lisbon' },
        }
        const sent = this.#call(send, body)
        // Most open the mailed link at once.
        const mailed = this.bookings.findIndex(({ unproved }) => unproved)
        if (nth % 4 > 0 && mailed >= 0)
          this.#link({ who: 'link', does: 'prove', booking: mailed, nth: 0, stale: false })
        return sent
      }
    }
  }

  /** What the practitioner says of a booking. */
  #said(booking: Booking, does: DeskDoes['do'], start: Instant, which: number): DeskDoes {
    const commands: Record<DeskDoes['do'], DeskDoes> = {
      welcome: { do: 'welcome', ...(which % 2 === 0 ? { text: 'Gladly.' } : {}) },
      ask: { do: 'ask', text: 'How long?' },
      pay: {
        do: 'pay',
        amount: 1 + which,
        way: 'transfer',
        ...(which % 2 === 0 ? { source: `entry ${which}` } : {}),
      },
      'give-back': { do: 'give-back', amount: 1 + (which % 7), way: 'cash' },
      charge: {
        do: 'charge',
        payment: `charge-number-${which}`.padEnd(20, '0'),
        amount: 1 + which,
        text: 'So.',
      },
      invoice: { do: 'invoice' },
      'correct-invoice': {
        do: 'correct-invoice',
        number: booking.invoices?.at(-1)?.number ?? 'none',
        text: 'So.',
      },
      adjust: { do: 'adjust', amount: (which % 9) - 4, text: 'So.' },
      sign: { do: 'sign', terms: ['studio-terms'] },
      concern: {
        do: 'concern',
        others:
          which % 3 === 0
            ? {}
            : {
                comes: {
                  name: 'C',
                  email: 'c@example.org',
                  reminded: which % 2 === 0,
                  agrees: which % 3 === 1,
                },
                pays: { name: 'P' },
              },
      },
      'run-late': { do: 'run-late', minutes: 1 + (which % 30) },
      except: { do: 'except', granted: which % 2 === 0, text: '' },
      decline: { do: 'decline', text: 'No.' },
      offer: { do: 'offer', text: '', starts: [{ start, place: 'video' }] },
      'take-back': { do: 'take-back', of: booking.seq - (which % 2) },
      overrule: { do: 'overrule', outcome: 'look', text: 'So.' },
      cancel: { do: 'cancel', by: 'practitioner', text: '' },
      attend: { do: 'attend', ...(which % 3 === 0 ? { late: 5 + (which % 20) } : {}) },
      miss: { do: 'miss' },
      forgive: { do: 'forgive', text: 'So be it.' },
      write: { do: 'write', channel: 'email', subject: `So ${which}`, text: 'So.' },
      steer: {
        do: 'steer',
        message: `step:day-before/email/${booking.placed}`,
        how: (['hold', 'release', 'now', 'edit'] as const)[which % 4]!,
        ...(which % 4 === 3 ? { text: 'So.' } : {}),
      },
      move: { do: 'move', start, place: 'video', minutes: 50, text: '', clash: which % 7 === 0 },
    }
    return commands[does]
  }

  #word({ does, booking: nth, nth: which, stale }: Extract<Try, { who: 'word' }>): unknown {
    if (does === 'end') return this.#call(endWords, {}, false)
    const start = NEEDS_A_START.has(does) ? this.#start(VISITS[0]!, which) : instant(0)
    const booking = this.#pick(nth, (one) => this.#said(one, does, start, which))
    if (!booking) return 'nobody'
    const mint: Does<undefined, string> = (work) => {
      const id = work.ids()
      const subject = bookingSubject(booking.id)
      work.changes.push({ type: 'link', link: { id, subject, proves: false, word: true } })
      return id
    }
    const hash = sha256Hex(this.#tried.secretOf(String(this.#call(mint, undefined, false))))
    const said = this.#said(booking, does, start, which)
    const seen = stale ? 'e'.repeat(64) : printOfBooking(booking)
    return this.#call(throughWord, { hash, command: said, seen })
  }

  /** A client pays by card; the till tells of it, also twice and late, and gives back what is due. */
  #till({ does, booking: nth, nth: which }: Extract<Try, { who: 'till' }>): unknown {
    this.keeper.catchUp(this.#now, this.#ids, MEMORY)
    const { house } = this.keeper
    if (does === 'give') {
      // Something that was paid by card is cancelled; once that can't be taken back any more, it is given back.
      const paid = this.bookings.find(({ status, payments }) =>
        status === 'booked' ? payments?.some(({ source }) => source?.startsWith('till ')) : false,
      )
      if (paid && which % 2 === 0)
        this.#call(command, { booking: paid.id, command: { do: 'cancel', by: 'practitioner', text: '' } })
      this.#now = shift(this.#now, 9 * SECOND)
      this.keeper.catchUp(this.#now, this.#ids, MEMORY)
      const due = this.keeper.due(this.#now, ({ doing }) => doing.do === 'give-back')
      if (due?.doing.do !== 'give-back') return 'nothing to give'
      const { payment, n, amount } = due.doing
      return this.#call(tillGave, { booking: due.subject.id, payment, n, amount }, false)
    }
    const all = this.bookings
    const can = all.filter((one) =>
      does === 'ask' ? payableNow(house.practice!, one, this.#now) > 0 : one.till !== undefined,
    )
    const booking = can[nth % Math.max(1, can.length)] ?? all[nth % Math.max(1, all.length)]
    if (!booking) return 'nobody'
    if (does === 'ask') {
      const amount = payableNow(house.practice!, seenAt(booking, this.#now), this.#now)
      return this.#call(askTill, { hash: this.#mailed(booking), what: 'pay', amount }, false)
    }
    const { payment = 'a-payment-of-nobody', amount = 1 } =
      booking.till?.[which % Math.max(1, booking.till.length)] ?? {}
    const says = (['paid', 'paid', 'paid', 'failed', 'over'] as const)[which % 5]!
    const said = { payment, message: `m${which}`, booking: booking.id, currency: booking.asked.currency }
    return this.#call(tillSays, { ...said, amount: amount + Number(which === 11), says, text: '' }, false)
  }

  /** A link as a mail brings it. */
  #mailed(booking: Booking): string {
    const mint: Does<undefined, string> = (work) => {
      const id = work.ids()
      work.changes.push({ type: 'link', link: { id, subject: bookingSubject(booking.id), proves: true } })
      return id
    }
    return sha256Hex(this.#tried.secretOf(String(this.#call(mint, undefined, false))))
  }

  #link({ does, booking: nth, nth: which, stale }: Extract<Try, { who: 'link' }>): unknown {
    const start = NEEDS_A_START.has(does) ? this.#start(VISITS[0]!, which) : instant(0)
    const commandOf = ({ offers, start: own, place }: Booking): ClientDoes => {
      const offer = offers[which % Math.max(1, offers.length)] ?? { start: own, place }
      const commands: Record<ClientDoes['do'], ClientDoes> = {
        prove: { do: 'prove' },
        accept: { do: 'accept', ...offer },
        refuse: { do: 'refuse', text: '' },
        reply: { do: 'reply', text: 'So.' },
        plead: { do: 'plead', text: 'Please.' },
        agree: { do: 'agree', agreements: [] },
        withdraw: { do: 'withdraw' },
        cancel: { do: 'cancel', by: 'client', text: '' },
        'move-own': { do: 'move-own', start, place: 'video' },
        come: { do: 'come' },
        speak: { do: 'speak', language: which % 2 === 0 ? 'pt' : 'en' },
        prepare: { do: 'prepare', done: which % 3 > 0 },
        unwant: { do: 'unwant', what: which % 2 === 0 ? 'texts' : 'follow-ups', on: which % 3 > 0 },
      }
      return commands[does]
    }
    const lacks = (one: Booking): boolean =>
      lackingOf(this.keeper.house, seenAt(one, this.#now), this.#now).length > 0
    const lacking = does === 'agree' ? this.bookings.find(lacks) : undefined
    const booking = lacking ?? this.#pick(nth, commandOf)
    if (!booking) return 'nobody'
    const hash = this.#mailed(booking)
    const shown = stale ? 'e'.repeat(64) : shownTo(this.keeper, booking.id, this.#now)
    if (does === 'agree') {
      const agreed = lackingOf(this.keeper.house, seenAt(booking, this.#now), this.#now).map(
        ({ id, version }) => ({
          ...{ terms: id, number: version.number },
          fingerprint: stale ? 'e'.repeat(64) : versionFingerprint(id, version),
        }),
      )
      return this.#call(agreeThrough, { hash, name: 'D', agreed })
    }
    return this.#call(throughLink, { hash, command: commandOf(booking), shown })
  }

  #desk(attempt: Extract<Try, { who: 'desk' }>): unknown {
    const { house } = this.keeper
    const { does, booking: nth, nth: which } = attempt
    const person = { name: 'D', email: `d${which % 3}@example.org`, zone: 'Europe/Lisbon' }
    const start = NEEDS_A_START.has(does) ? this.#start(VISITS[0]!, which) : instant(0)
    switch (does) {
      case 'enter':
        return this.#call(enter, {
          id: this.#ids(),
          service: which % 4 ? 'a' : 'b',
          place: 'video',
          start,
          minutes: 60,
          person,
          clash: which % 5 === 0,
        })
      case 'series':
        // A day apart, and now and then in each other's way.
        return this.#call(enterSeries, {
          ...{ service: 'a', place: 'video', minutes: 60, person, silent: which % 2 === 0 },
          sessions: [0, which % 5 === 0 ? 30 * MINUTE : DAY].map((later) => ({
            id: this.#ids(),
            start: shift(start, later),
          })),
        })
      case 'move-series': {
        // What is booked with whoever comes first, each to where the next one was; now and then all to one start.
        const booked = this.bookings.filter(({ status }) => status === 'booked')
        const theirs = booked.filter(({ asked }) => asked.person.email === booked[0]!.asked.person.email)
        if (theirs.length === 0) return 'nobody'
        const bookings = theirs.map((one, i) => ({
          ...{ booking: one.id, seen: printOfBooking(one) },
          start: which % 5 === 0 ? start : shift((theirs[i + 1] ?? one).start, (which % 2) * DAY),
        }))
        return this.#call(moveSeries, { bookings, ...(which % 3 === 0 ? { silent: true } : { text: 'So.' }) })
      }
      case 'end-series': {
        // What is booked with whoever comes first, from one on; now and then with one that can't be cancelled.
        const [first, ...others] = this.bookings.filter(
          ({ status }) => status === 'booked' || (status === 'requested' && which % 4 === 0),
        )
        if (!first) return 'nobody'
        const theirs = others.filter(({ asked }) => asked.person.email === first.asked.person.email)
        const bookings = [first, ...theirs].map((one) => ({ booking: one.id, seen: printOfBooking(one) }))
        return this.#call(endSeries, { bookings, ...(which % 3 === 0 ? { silent: true } : { text: 'So.' }) })
      }
      case 'quote':
        return this.#call(quote, {
          enquiry: `enquiry-${nth % 3}`,
          service: 'a',
          person,
          answers: {},
          until: shift(this.#now, DAY),
          text: 'As we said.',
        })
      case 'answer':
        return this.#call(answer, { enquiry: `enquiry-${nth % 3}`, text: 'Yes.' })
      case 'publish': {
        const pack: DoorPackage = house.pack!
        const services = pack.practice.services.map(({ payment: _, ...service }) => ({
          ...service,
          price: { kind: 'fixed' as const, amount: 5_000 + (which % 3) * 1_000 },
          // From then on something must be paid first, or no longer.
          ...(which % 3 === 0 ? { payment: [FIRST] } : {}),
        }))
        const next = { ...pack, revision: pack.revision + 1, practice: { ...pack.practice, services } }
        const answer = this.#call(publish, next)
        this.#call(replan, {}, false)
        return answer
      }
    }
    // Money comes for what waits for it.
    const awaited = attempt.does === 'pay' ? this.bookings.find(({ owes }) => owes) : undefined
    const booking = awaited ?? this.#pick(nth, (one) => this.#said(one, does, start, which))
    if (!booking) return 'nobody'
    return this.#call(command, {
      booking: booking.id,
      command: this.#said(booking, does, start, which),
    })
  }
}

const shownTo = (keeper: Doorkeeper, id: string, now: Instant): string => {
  const booking = keeper.house.booking(id)!
  return printOfBooking(seenAt(booking, now), costNow(keeper.house, booking, now))
}

/** So much must be paid before it is booked. */
export const FIRST: PaymentLine = {
  id: 'l',
  much: { kind: 'sum', amount: 10 },
  due: { kind: 'word' },
  first: true,
}
