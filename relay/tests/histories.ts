import { bookingSubject, type Due, inOrder, nameOf, type Subject } from '@acolhida/core/agenda'
import { type Booking, type ClientDoes, type DeskDoes, seenAt, stateAt } from '@acolhida/core/booking'
import type { DoorPackage, SendBody } from '@acolhida/core/contract'
import {
  agendaAnew,
  agreeThrough,
  answer,
  command,
  costNow,
  type Does,
  type Doorkeeper,
  endWords,
  enquire,
  enter,
  hand,
  itself,
  keep,
  lackingOf,
  openingsFor,
  publish,
  quote,
  read,
  renew,
  replan,
  send,
  throughLink,
  throughWord,
  unkeep,
  went,
} from '@acolhida/core/house'
import type { PaymentLine } from '@acolhida/core/practice'
import { printOfBooking, Refused } from '@acolhida/core/request'
import { sha256Hex, versionFingerprint } from '@acolhida/core/terms'
import { DAY, HOUR, type Instant, instant, MINUTE, SECOND, shift } from '@acolhida/core/time'
import fc from 'fast-check'

/** One thing that anybody may try, with numbers that pick among what there is. */
export type Try =
  | {
      who: 'client'
      does: 'read' | 'keep' | 'renew' | 'unkeep' | 'send' | 'enquire'
      visit: number
      nth: number
    }
  | { who: 'link'; does: ClientDoes['do']; booking: number; nth: number; stale: boolean }
  | { who: 'desk'; does: DeskDoes['do']; booking: number; nth: number }
  | { who: 'desk'; does: 'enter' | 'quote' | 'answer' | 'publish'; booking: number; nth: number }
  /** The practitioner, by the link in a mail. */
  | {
      who: 'word'
      does: 'welcome' | 'decline' | 'offer' | 'ask' | 'take-back' | 'end'
      booking: number
      nth: number
      stale: boolean
    }
  | { who: 'post'; goes: boolean }
  | { who: 'time'; ms: number }
  /** The same call once more, under the same key. */
  | { who: 'again' }
  /** The relay ends and is started again. */
  | { who: 'restart' }

const some = fc.nat({ max: 40 })
export const tries: fc.Arbitrary<Try> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      who: fc.constant('client' as const),
      does: fc.constantFrom(
        ...(['read', 'keep', 'keep', 'renew', 'unkeep', 'send', 'send', 'send', 'enquire'] as const),
      ),
      visit: fc.nat({ max: 1 }),
      nth: some,
    }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      who: fc.constant('link' as const),
      does: fc.constantFrom(
        ...([
          'prove',
          'prove',
          'prove',
          'accept',
          'refuse',
          'withdraw',
          'cancel',
          'move-own',
          'move-own',
          'reply',
          'plead',
          'agree',
          'agree',
        ] as const),
      ),
      booking: some,
      nth: some,
      stale: fc.boolean(),
    }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      who: fc.constant('desk' as const),
      does: fc.constantFrom(
        ...([
          'welcome',
          'welcome',
          'decline',
          'offer',
          'ask',
          'take-back',
          'overrule',
          'move',
          'cancel',
        ] as const),
        ...([
          'attend',
          'miss',
          'miss',
          'forgive',
          'run-late',
          'except',
          'sign',
          'pay',
          'pay',
          'give-back',
          'adjust',
        ] as const),
      ),
      booking: some,
      nth: some,
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      who: fc.constant('desk' as const),
      does: fc.constantFrom(...(['enter', 'quote', 'answer', 'publish'] as const)),
      booking: some,
      nth: some,
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      who: fc.constant('word' as const),
      does: fc.constantFrom(
        ...(['welcome', 'welcome', 'decline', 'offer', 'ask', 'take-back', 'take-back', 'end'] as const),
      ),
      booking: some,
      nth: some,
      stale: fc.boolean(),
    }),
  },
  { weight: 2, arbitrary: fc.record({ who: fc.constant('post' as const), goes: fc.boolean() }) },
  {
    weight: 4,
    arbitrary: fc.record({
      who: fc.constant('time' as const),
      ms: fc.constantFrom(
        1,
        SECOND,
        8 * SECOND,
        8 * SECOND + 1,
        10 * MINUTE,
        31 * MINUTE,
        25 * HOUR,
        9 * DAY,
      ),
    }),
  },
  { weight: 1, arbitrary: fc.record({ who: fc.constant('again' as const) }) },
  { weight: 1, arbitrary: fc.record({ who: fc.constant('restart' as const) }) },
)

const VISITS = ['visit-of-the-first-one', 'visit-of-the-second-one']
/** For how long finished bookings are kept in histories: short, so that forgetting happens in them. */
export const MEMORY = 12 * DAY

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

  constructor(tried: Tried, now: Instant) {
    this.#tried = tried
    this.#now = now
    this.#call(replan, {})
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
        this.#now = shift(this.#now, attempt.ms)
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
      case 'client':
        return this.#client(attempt)
      case 'word':
        return this.#word(attempt)
      case 'link':
        return this.#link(attempt)
      case 'desk':
        return this.#desk(attempt)
    }
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

  #starts(visit: string): Instant[] {
    const body = { visit, service: 'a', place: 'video', answers: {}, days: 10 }
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
      adjust: { do: 'adjust', amount: (which % 9) - 4, text: 'So.' },
      sign: { do: 'sign', terms: ['studio-terms'] },
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
      move: { do: 'move', start, place: 'video', minutes: 50, text: '', clash: which % 7 === 0 },
    }
    return commands[does]
  }

  #word({ does, booking: nth, nth: which, stale }: Extract<Try, { who: 'word' }>): unknown {
    if (does === 'end') return this.#call(endWords, {}, false)
    const all = this.bookings
    const booking = all[nth % Math.max(1, all.length)]
    if (!booking) return 'nobody'
    const mint: Does<undefined, string> = (work) => {
      const id = work.ids()
      const subject = bookingSubject(booking.id)
      work.changes.push({ type: 'link', link: { id, subject, proves: false, word: true } })
      return id
    }
    const hash = sha256Hex(this.#tried.secretOf(String(this.#call(mint, undefined, false))))
    const said = this.#said(booking, does, this.#start(VISITS[0]!, which), which)
    const seen = stale ? 'e'.repeat(64) : printOfBooking(booking)
    return this.#call(throughWord, { hash, command: said, seen })
  }

  #link({ does, booking: nth, nth: which, stale }: Extract<Try, { who: 'link' }>): unknown {
    const all = this.bookings
    const booking = all[nth % Math.max(1, all.length)]
    if (!booking) return 'nobody'
    const mint: Does<undefined, string> = (work) => {
      const id = work.ids()
      work.changes.push({ type: 'link', link: { id, subject: bookingSubject(booking.id), proves: true } })
      return id
    }
    const hash = sha256Hex(this.#tried.secretOf(String(this.#call(mint, undefined, false))))
    const offer = booking.offers[which % Math.max(1, booking.offers.length)] ?? booking
    const commands: Record<ClientDoes['do'], ClientDoes> = {
      prove: { do: 'prove' },
      accept: { do: 'accept', start: offer.start, place: offer.place },
      refuse: { do: 'refuse', text: '' },
      reply: { do: 'reply', text: 'So.' },
      plead: { do: 'plead', text: 'Please.' },
      agree: { do: 'agree', agreements: [] },
      withdraw: { do: 'withdraw' },
      cancel: { do: 'cancel', by: 'client', text: '' },
      'move-own': { do: 'move-own', start: this.#start(VISITS[0]!, which), place: 'video' },
    }
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
    return this.#call(throughLink, { hash, command: commands[does], shown })
  }

  #desk(attempt: Extract<Try, { who: 'desk' }>): unknown {
    const { house } = this.keeper
    const { booking: nth, nth: which } = attempt
    const person = { name: 'D', email: `d${which % 3}@example.org`, zone: 'Europe/Lisbon' }
    const start = this.#start(VISITS[0]!, which)
    switch (attempt.does) {
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
    const all = this.bookings
    // Money comes for what waits for it.
    const awaited = attempt.does === 'pay' ? all.find(({ owes }) => owes) : undefined
    const booking = awaited ?? all[nth % Math.max(1, all.length)]
    if (!booking) return 'nobody'
    return this.#call(command, {
      booking: booking.id,
      command: this.#said(booking, attempt.does, start, which),
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

/** Everything by which two houses can be told apart. */
export function portrait(keeper: Doorkeeper, now: Instant): unknown {
  const { house } = keeper
  const bookings = [...house.openBookings()].sort((a, b) => (a.id < b.id ? -1 : 1))
  const { entries } = house.diary(shift(now, -20 * DAY), shift(now, 60 * DAY))
  return {
    bookings,
    states: bookings.map((booking) => stateAt(booking, now)),
    entries: [...entries].sort((a, b) => a.start - b.start || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)),
    agenda: [...house.agenda()],
    chain: house.chain,
    revision: house.pack?.revision,
    forgotten: house.forgotten(),
    attempts: VISITS.map((visit) => house.attempts(visit)),
    keeps: VISITS.map((visit) => house.keep(visit)),
    enquiries: [0, 1, 2].map((n) => house.enquiryNews(`enquiry-${n}`)),
  }
}

/** The agenda as it would be made anew from the house, and as it has been kept. */
export function agendas({ house }: Doorkeeper): { kept: Due[]; anew: Due[] } {
  const kept = [...house.agenda()]
  const subjects = new Map<string, Subject>(kept.map(({ subject }) => [nameOf(subject), subject]))
  for (const { id } of house.openBookings()) subjects.set(nameOf(bookingSubject(id)), bookingSubject(id))
  return { kept, anew: agendaAnew(house, subjects.values()).sort(inOrder) }
}

/** Times kept for one that meet those kept for another, where nobody has wished for a clash. */
export function overlaps(keeper: Doorkeeper, clashes: ReadonlySet<string>): string[] {
  const { house } = keeper
  const entries = house
    .diary(instant(0), instant(4_000_000_000_000))
    .entries.filter((entry) => entry.service === 'a' && !clashes.has(entry.id))
  return entries.flatMap((a, i) =>
    entries
      .slice(i + 1)
      .flatMap((b) => (a.id !== b.id && a.start < b.end && b.start < a.end ? [`${a.id} and ${b.id}`] : [])),
  )
}
