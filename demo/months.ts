import { bookingSubject } from '@acolhida/core/agenda'
import { type Booking, type ClientDoes, type DeskDoes, replay, seenAt, stateAt } from '@acolhida/core/booking'
import type { DoorPackage, WantedOpenings } from '@acolhida/core/contract'
import type { Backup } from '@acolhida/core/formats'
import {
  answer,
  command,
  costNow,
  type Does,
  Doorkeeper,
  doStation,
  enquire,
  enter,
  fillPublished,
  keep,
  keepHalf,
  openCourses,
  openingsFor,
  openingsToMove,
  read,
  replan,
  send,
  throughLink,
  type Work,
} from '@acolhida/core/house'
import { knownPeople, normalMail, type Person } from '@acolhida/core/people'
import { serviceOf } from '@acolhida/core/practice'
import type { Answers } from '@acolhida/core/questions'
import { printOfBooking, Refused } from '@acolhida/core/request'
import { sha256Hex } from '@acolhida/core/terms'
import { DAY, HOUR, type Instant, instant, MINUTE, shift } from '@acolhida/core/time'
import { answersTo } from './answers.ts'
import { agreedVersions, type Invented, mailed } from './life.ts'
import { withMessages } from './messages.ts'
import { BRINGS, FIRST, LAST, SORRY, ZONES } from './people.ts'
import { demoPractice } from './practice.ts'
import { prepares, withPreparations } from './preparing.ts'
import { Seeded } from './seeded.ts'
import { JUST_NOW, Waits } from './waits.ts'
import { WrittenDown } from './written.ts'

/** What the demo’s desk publishes: its private answers are invented, and sealed by nobody. */
const published = ({ changes }: Work, pack: DoorPackage): void => {
  changes.push({ type: 'package', pack })
}

/** How long the practice has been going when one looks, in ms. */
const BEGAN = 150 * DAY
/** What was asked within this time before now may still wait for a word, in ms. */
const STILL_WAITS = 20 * HOUR
/** What was kept half done: nobody has the key to it. */
const HALF_SEALED = 'eyJhbGciOiJkaXIiLCJlbmMiOiJBMjU2R0NNIn0..invented.invented.invented'
const SALT = 'demo-practice-of-iria'
const FOREVER = 4_000 * DAY

/**
 * Some months of the demo practice, up to `now`: everything in them was asked, decided and changed through the very
 * machine that decides at the relay, by clients and a practitioner who follow a seed. The same moment and seed give the
 * same months.
 */
export function demoMonths(now: Instant, seed = 1): Backup {
  return new Months(now, seed).live()
}

class Months {
  readonly #now: Instant
  readonly #by: Seeded
  readonly #store = new WrittenDown()
  readonly #keeper = new Doorkeeper(this.#store)
  readonly #people: Invented[] = []
  readonly #waits: Waits
  #plans: { at: number; order: number; run: (at: Instant) => void }[] = []
  /** A chance of its own, so that the rest of the months does not hang on it. */
  readonly #preparing: Seeded
  #names = 0
  #revision = 0

  constructor(now: Instant, seed: number) {
    // To the minute: what the months hold does not hang on the second one looks.
    this.#now = instant(Math.floor(now / MINUTE) * MINUTE)
    this.#by = new Seeded(seed)
    this.#preparing = new Seeded(seed + 1_000)
    this.#waits = new Waits({
      ...{ now: this.#now, by: this.#by, store: this.#store, ids: this.#ids },
      house: () => this.#keeper.house,
      plan: (at, run) => this.#plan(at, run),
      do: (does, body, at, once) => this.#do(does, body, at, once),
      someoneNew: () => this.#someoneNew(),
    })
  }

  readonly #ids = (): string => `months-${String(++this.#names).padStart(8, '0')}`

  #plan(at: number, run: (at: Instant) => void): void {
    if (at < this.#now) this.#plans.push({ at: Math.round(at), order: this.#plans.length, run })
  }

  /** Does something as it is done at the relay; nothing where it is refused, as clients are now and then. */
  #do<B, A>(does: Does<B, A>, body: B, at: Instant, once = true): A | undefined {
    const key = this.#ids()
    const about = { now: at, ids: this.#ids, ...(once ? { once: { key, print: key } } : {}) }
    try {
      return this.#keeper.act(does, body, about)
    } catch (error) {
      if (error instanceof Refused) return undefined
      throw error
    }
  }

  live(): Backup {
    const began = shift(this.#now, -BEGAN)
    this.#publish(began)
    for (let day = 0; day * DAY < BEGAN; day++) {
      const from = shift(began, day * DAY)
      if (day % 7 === 0) this.#plan(from, (at) => this.#publish(at))
      const many = this.#by.pick([0, 1, 1, 2, 2, 3])
      for (let i = 0; i < many; i++)
        this.#plan(from + this.#by.between(7 * HOUR, 22 * HOUR), (at) => this.#arrive(at))
      // What was over by yesterday morning has been looked back on; the last ones are still to be.
      if ((day + 2) * DAY < BEGAN) this.#plan(from + DAY, (at) => this.#lookBack(at))
    }
    // Somebody has asked today, whatever the seed says.
    for (const hours of [17, 9, 4, 2])
      this.#plan(this.#now - hours * HOUR, (at) =>
        this.#ask(this.#someoneNew(), 'voice-assessment', at, false),
      )
    // Somebody waits, and a time falls free for them just now, whatever the seed says.
    this.#plan(this.#now - JUST_NOW - HOUR, (at) => this.#waits.waitAnyTime(at))
    this.#plan(this.#now - JUST_NOW + MINUTE, (at) => this.#giveUpOne(at))
    for (;;) {
      const next = this.#plans.reduce<number>((best, plan, i) => {
        const before = this.#plans[best]
        return !before || plan.at < before.at || (plan.at === before.at && plan.order < before.order)
          ? i
          : best
      }, -1)
      const [plan] = next < 0 ? [] : this.#plans.splice(next, 1)
      if (!plan) break
      const at = instant(plan.at)
      this.#keeper.catchUp(at, this.#ids, FOREVER)
      plan.run(at)
      this.#waits.seeOffers(at)
    }
    this.#keeper.catchUp(this.#now, this.#ids, FOREVER)
    return this.#backup()
  }

  /** The desk tells the relay who is known by now. */
  #publish(at: Instant): void {
    const practice = withPreparations(withMessages(demoPractice(this.#now)))
    const people = knownPeople(this.#persons(), this.#bookings(), practice, SALT, at)
    const was = this.#keeper.house.pack
    this.#do(published, { revision: ++this.#revision, practice, people, sessions: [], salt: SALT }, at)
    this.#do(replan, {}, at, false)
    this.#do(fillPublished, { was }, at, false)
  }

  #bookings(): Booking[] {
    return [...this.#store.events].map(([id, events]) => replay(id, events))
  }

  #persons(): Person[] {
    const asked = new Set(
      [...this.#store.events.values()].map(([first]) =>
        first?.type === 'asked' ? normalMail(first.person.email) : '',
      ),
    )
    return this.#people
      .filter(({ email }) => asked.has(email))
      .map(({ name, email, coached }) => ({
        id: `person-${email.split('@')[0]?.replaceAll('.', '-')}`,
        name,
        emails: [email],
        invited: coached ? ['coaching'] : [],
        blocked: false,
        note: coached && this.#by.chance(0.2) ? 'Prefers mornings.' : '',
      }))
  }

  #someoneNew(): Invented {
    for (;;) {
      const [first, last] = [this.#by.pick(FIRST), this.#by.pick(LAST)]
      const plain = `${first}.${last}`
        .normalize('NFD')
        .replaceAll(/[^A-Za-z.-]/g, '')
        .toLowerCase()
      const email = `${plain}@example.org`
      if (this.#people.some((other) => other.email === email)) continue
      const someone = { name: `${first} ${last}`, email, zone: this.#by.pick(ZONES), coached: false }
      this.#people.push(someone)
      return someone
    }
  }

  #arrive(at: Instant): void {
    const back = this.#people.filter(({ link, coached }) => link && !coached)
    const someone = back.length > 3 && this.#by.chance(0.15) ? this.#by.pick(back) : this.#someoneNew()
    const service = this.#by.pick([
      ...(['first-conversation', 'first-conversation', 'first-conversation'] as const),
      ...(['voice-assessment', 'voice-assessment', 'voice-assessment', 'reading-aloud'] as const),
    ])
    this.#ask(someone, service, at)
  }

  /** Somebody goes through the door, as far as it lets them. */
  #ask(someone: Invented, service: string, at: Instant, mayWait = true): void {
    const { house } = this.#keeper
    const { practice } = house.pack!
    const offered = serviceOf(practice, service)!
    const visit = `visit-of-${this.#ids()}`
    const answers = answersTo(service, this.#by)
    const wanted = {
      visit,
      service,
      answers,
      ...(someone.link ? { with: someone.link } : {}),
    }
    const reading = this.#do(read, wanted, at, false)
    if (!reading?.open) {
      if (this.#by.chance(0.5)) this.#write(someone, service, answers, visit, at)
      return
    }
    const place = this.#by.pick(offered.places)
    const { starts } = this.#open({ ...wanted, place, days: 30 }, at)
    if (offered.waitlist && mayWait && (starts.length === 0 || this.#by.chance(0.22))) {
      this.#waits.wait(someone, { ...wanted, place }, at)
      return
    }
    if (starts.length === 0) return
    // Most take one of the nearer times.
    const start = starts[Math.floor(starts.length * this.#by.next() ** 2)]!
    const kept = this.#do(keep, { ...wanted, place, start }, at, false)
    if (!kept) return
    const sent = shift(at, this.#by.whole(2, 8) * MINUTE)
    const { name, email, zone } = someone
    this.#plan(sent, (moment) => {
      const done = this.#do(
        send,
        {
          ...wanted,
          place,
          start,
          clock: moment,
          shown: kept.shown,
          agreed: agreedVersions(practice, offered),
          person: { name, email, zone },
        },
        moment,
      )
      if (!done) return
      const id = [...this.#store.events.keys()].at(-1)!
      // The link in their mail: opening it shows that the address is theirs.
      const link = this.#ids()
      this.#do(mailed(bookingSubject(id)), link, moment, false)
      someone.link = link
      if (this.#by.chance(0.94))
        this.#plan(shift(moment, this.#by.whole(1, 25) * MINUTE), (later) =>
          this.#through(id, link, { do: 'prove' }, later),
        )
      this.#decideSome(id, someone, moment)
    })
  }

  /** Somebody who has a session in the coming days gives it up. */
  #giveUpOne(at: Instant): void {
    const booking = [...this.#keeper.house.openBookings()]
      .filter(
        ({ status, service, start }) =>
          status === 'booked' && service === 'voice-assessment' && start > at + 2 * DAY,
      )
      .sort((a, b) => a.start - b.start)[0]
    if (booking) this.#word(booking.id, { do: 'cancel', by: 'practitioner', text: SORRY }, at)
  }

  #write(someone: Invented, service: string, answers: Answers, visit: string, at: Instant): void {
    const { name, email } = someone
    const message =
      'I have read that this is not the right beginning. Is there something else you would suggest?'
    if (!this.#do(enquire, { visit, name, email, message, service, answers }, at)) return
    const { id } = this.#store.enquiries.at(-1)!
    const text = 'Thank you for writing. Come to the reading group first; we will see from there.'
    if (at < this.#now - 3 * DAY)
      this.#plan(at + this.#by.between(HOUR, 2 * DAY), (later) => {
        this.#do(answer, { enquiry: id, text }, later)
      })
  }

  /** What is open to somebody; nothing where the door has nothing for them. */
  #open(wanted: WantedOpenings, at: Instant): { starts: readonly Instant[] } {
    try {
      return openingsFor(this.#keeper.house, wanted, at)
    } catch (error) {
      if (error instanceof Refused) return { starts: [] }
      throw error
    }
  }

  /** What the client presses in a mail, if it can still be pressed. */
  #through(id: string, link: string, does: ClientDoes, at: Instant): void {
    const { house } = this.#keeper
    const booking = house.booking(id)
    if (!booking) return
    const shown = printOfBooking(seenAt(booking, at), costNow(house, booking, at))
    this.#do(throughLink, { hash: sha256Hex(link), command: does, shown }, at)
  }

  #word(id: string, does: DeskDoes, at: Instant): void {
    this.#do(command, { booking: id, command: does }, at)
  }

  /** The practitioner looks a few hours later; what came today may still wait. */
  #decideSome(id: string, someone: Invented, asked: Instant): void {
    const at = asked + this.#by.between(0.5 * HOUR, 14 * HOUR)
    const most = this.#by.next()
    if (at < this.#now - STILL_WAITS || this.#by.chance(0.15))
      this.#plan(at, (now) => this.#decide(id, someone, most, now))
    // Also what went straight in goes on.
    this.#plan(asked + 15 * HOUR, (now) => this.#goOn(id, someone, now))
  }

  #decide(id: string, someone: Invented, most: number, now: Instant): void {
    const booking = this.#keeper.house.booking(id)
    if (!booking || stateAt(booking, now).is !== 'waiting') return
    if (most < 0.83) this.#word(id, { do: 'welcome' }, now)
    else if (most < 0.88) this.#word(id, { do: 'decline', text: SORRY }, now)
    else if (most < 0.96) {
      const body = {
        visit: `visit-of-${this.#ids()}`,
        service: booking.service,
        place: booking.place,
        answers: booking.asked.answers,
        days: 14,
      }
      const { starts } = this.#open(body, now)
      const offered = starts.filter((_, i) => i % 9 === 4).slice(0, 2)
      if (offered.length === 0) return
      const times = offered.map((start) => ({ start, place: booking.place }))
      this.#word(id, { do: 'offer', text: 'Would one of these suit you, too?', starts: times }, now)
      const { link } = someone
      if (link && this.#by.chance(0.8))
        this.#plan(now + this.#by.between(HOUR, 8 * HOUR), (later) =>
          this.#through(id, link, { do: 'accept', ...times[0]! }, later),
        )
    }
    // Otherwise it is forgotten, and lapses.
  }

  /** What becomes of a session that is booked: most take place; some are cancelled or moved; some lead to more. */
  #goOn(id: string, someone: Invented, now: Instant): void {
    const booking = this.#keeper.house.booking(id)
    if (!booking || stateAt(booking, now).is !== 'booked') return
    this.#prepare(booking, someone, now)
    const { start } = booking
    const { link } = someone
    const between = (): number => now + this.#by.next() * Math.max(0, start - HOUR - now)
    const chance = this.#by.next()
    if (chance < 0.07 && link) {
      this.#plan(between(), (at) =>
        this.#through(id, link, { do: 'cancel', by: 'client', text: 'Something has come up.' }, at),
      )
    } else if (chance < 0.11) {
      this.#plan(between(), (at) => this.#move(id, at))
    } else if (chance < 0.15 && link) {
      this.#plan(between(), (at) => this.#moveOwn(id, link, at))
    } else if (booking.service === 'voice-assessment' && this.#by.chance(0.7)) {
      someone.coached = true
      const sessions = this.#by.whole(2, 7)
      for (let i = 1; i <= sessions; i++)
        this.#plan(start + i * 9 * DAY - this.#by.between(DAY, 3 * DAY), (at) => this.#coach(someone, at))
    }
  }

  /** Most do what there is to do before a session, bit by bit; some do a part of it, and a few nothing. */
  #prepare({ course, start }: Booking, { link, name }: Invented, now: Instant): void {
    const given = course && this.#keeper.house.course(course.id)
    if (!given || !link) return
    const most = this.#preparing.pick([0, 1, 2, 2, 4, 4, 4])
    for (const { id: station } of given.given.stations.slice(0, most))
      this.#plan(now + this.#preparing.next() * Math.max(0, start - HOUR - now), (at) => {
        const does = prepares(this.#keeper.house, given.id, station, name)
        if (!does) return
        const body = { hash: sha256Hex(link), course: given.id, station, does }
        this.#do(openCourses, { hash: body.hash }, at)
        if (does.do === 'answer' && this.#preparing.chance(0.25)) {
          const half = { hash: body.hash, course: given.id, station, n: 0, sealed: HALF_SEALED }
          this.#do(keepHalf, { ...half, answered: 2, of: does.of }, at)
        } else this.#do(doStation, body, at)
      })
  }

  #moveOwn(id: string, link: string, at: Instant): void {
    const { house } = this.#keeper
    const booking = house.booking(id)
    if (!booking || stateAt(booking, at).is !== 'booked') return
    const start = openingsToMove(house, booking, { days: 14 }, at).starts.at(this.#by.whole(0, 30))
    if (start !== undefined) this.#through(id, link, { do: 'move-own', start, place: booking.place }, at)
  }

  /** Says of what is over how it went: most came, a few of them late. */
  #lookBack(at: Instant): void {
    const over = [...this.#keeper.house.openBookings()].filter((booking) => {
      const state = stateAt(booking, at)
      return state.is === 'booked' && state.over
    })
    for (const { id } of over) {
      const how = this.#by.next()
      if (how < 0.06) this.#word(id, { do: 'miss' }, at)
      else {
        this.#word(id, { do: 'attend', ...(how > 0.92 ? { late: this.#by.whole(5, 20) } : {}) }, at)
        // Most pay there and then; some by transfer, and a few have not yet.
        const { price } = this.#keeper.house.booking(id)!
        if (price > 0 && how < 0.9)
          this.#word(id, { do: 'pay', amount: price, way: how < 0.6 ? 'cash' : 'transfer' }, at)
      }
    }
  }

  #move(id: string, at: Instant): void {
    const { house } = this.#keeper
    const booking = house.booking(id)
    if (!booking || stateAt(booking, at).is !== 'booked') return
    const { service, place, minutes } = booking
    const body = {
      visit: `visit-of-${this.#ids()}`,
      service,
      place,
      answers: booking.asked.answers,
      days: 10,
    }
    const start = this.#open(body, at).starts.at(this.#by.whole(0, 20))
    if (start !== undefined)
      this.#word(
        id,
        { do: 'move', start, place, minutes, text: 'I am at a rehearsal then, sorry.', clash: false },
        at,
      )
  }

  /** Somebody who is worked with comes again: through their link, or booked in by hand after a talk. */
  #coach(someone: Invented, at: Instant): void {
    if (someone.link && this.#by.chance(0.6)) {
      this.#ask(someone, 'coaching', at)
      return
    }
    const place = this.#by.pick(['studio', 'video'] as const)
    const body = {
      visit: `visit-of-${this.#ids()}`,
      service: 'first-conversation',
      place: 'video',
      answers: { brings: BRINGS[0]!, 'for-whom': 'mine' },
      days: 9,
    }
    const start = this.#open(body, at).starts.at(this.#by.whole(0, 30))
    if (start === undefined) return
    const { name, email, zone } = someone
    this.#do(
      enter,
      {
        id: this.#ids(),
        service: 'coaching',
        place,
        start,
        minutes: 50,
        person: { name, email, zone },
        clash: false,
      },
      at,
    )
  }

  #backup(): Backup {
    const bookings = [...this.#store.events].map(([id, events]) => ({ id, events }))
    return {
      format: 'acolhida-backup',
      version: 1,
      practice: withPreparations(withMessages(demoPractice(this.#now))),
      people: this.#persons(),
      // In the order in which they were asked: so their agreements make one chain.
      bookings,
      enquiries: this.#store.enquiries.map((enquiry) => {
        const history = this.#keeper.house.enquiryNews(enquiry.id)
        return {
          ...enquiry,
          state: history.length > 0 ? ('answered' as const) : ('open' as const),
          ...(history.length > 0 ? { history: [...history] } : {}),
        }
      }),
      mails: [],
      sessions: [],
      lines: [...this.#store.places].map(([id, events]) => ({ id, events })),
      courses: [...this.#store.courses].map(([id, events]) => ({ id, events })),
      freed: [...this.#store.freed].map(([id, events]) => ({ id, events })),
      salt: SALT,
      revision: this.#revision,
      cursor: 0,
    }
  }
}
