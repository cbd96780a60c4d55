import {
  bookingSubject,
  type Due,
  type Message,
  nameOf,
  type Subject,
  visitSubject,
  waitingSubject,
} from '../agenda/index.ts'
import { type Attempt, apply, type Booking, begin, sealedBooking } from '../booking/index.ts'
import type { CalendarState } from '../contract/desk-types.ts'
import type { DoorPackage, Enquiry, EnquiryNews } from '../contract/types.ts'
import type { Diary, Entry } from '../openings/index.ts'
import { countedMail, normalMail } from '../people/index.ts'
import { applyCourse, beginCourse, type Course, replayCourse } from '../preparing/index.ts'
import { DAY, type Instant, instant } from '../time/index.ts'
import {
  applyFreed,
  applyLine,
  beginFreed,
  beginLine,
  type Freed,
  type PlaceInLine,
  replayFreed,
  replayLine,
} from '../waiting/index.ts'
import {
  type Answered,
  type Change,
  type FileFacts,
  type Half,
  type Keep,
  type KeptQuote,
  type Link,
  overAt,
} from './changes.ts'
import type { But, House, Old, Store, Untold } from './house.ts'
import { LiveAgenda } from './live-agenda.ts'
import { LiveDiary } from './live-diary.ts'
import { bookingTakes, keepTakes, lineTakes } from './takes.ts'

/** For how long after its end a booking stays in memory whole: as far back as the feed of bookings goes. */
export const REMEMBERED = 62 * DAY

/** Whether a booking is over for so long that it is only read when it is asked for. */
export const isLongOver = (booking: Booking, now: Instant): boolean => overAt(booking) < now - REMEMBERED

const usesCode = ({ status }: Pick<Booking, 'status'>): boolean =>
  status === 'requested' || status === 'booked' || status === 'attended' || status === 'missed'

/** The house in memory: what is open whole, the rest through its store. It follows change by change. */
export class Memory implements House {
  readonly trial: House['trial']
  readonly #store: Store
  readonly #bookings = new Map<string, Booking>()
  /** The names of each address's bookings: looked up for every message, among ten years of them. */
  readonly #byMail = new Map<string, Set<string>>()
  readonly #uses: Map<string, number>
  readonly #keeps = new Map<string, Keep>()
  readonly #lines = new Map<string, PlaceInLine>()
  readonly #freed = new Map<string, Freed>()
  readonly #courses = new Map<string, Course>()
  /** The names of what each address was given. */
  readonly #coursesByMail = new Map<string, Set<string>>()
  readonly #calendars = new Map<string, CalendarState>()
  readonly #diary = new LiveDiary()
  readonly #agenda = new LiveAgenda()
  readonly #done: Set<string>
  readonly #messages: Map<string, Message>
  #pack: DoorPackage | undefined
  #chain: string
  #numbered: number
  #forgotten: Instant

  constructor(store: Store, trial?: House['trial']) {
    this.#store = store
    this.trial = trial
    const loaded = store.load()
    this.#pack = loaded.pack
    this.#uses = loaded.uses
    this.#chain = loaded.chain
    this.#numbered = loaded.numbered
    this.#forgotten = loaded.forgotten
    this.#done = new Set(loaded.done)
    this.#messages = loaded.messages
    for (const booking of loaded.bookings) this.#setBooking(booking)
    for (const keep of loaded.keeps) this.#keeps.set(keep.visit, keep)
    for (const [id, record] of loaded.lines) this.#lines.set(id, replayLine(id, record))
    for (const [id, record] of loaded.freed) this.#freed.set(id, replayFreed(id, record))
    for (const [id, record] of loaded.courses) this.#setCourse(replayCourse(id, record))
    for (const state of loaded.calendars) this.#calendars.set(state.id, state)
    for (const due of loaded.dues) this.#agenda.add(due)
    this.#makeDiary()
  }

  get pack(): DoorPackage | undefined {
    return this.#pack
  }
  get practice(): DoorPackage['practice'] | undefined {
    return this.#pack?.practice
  }
  get seals(): boolean {
    return this.#pack?.seal !== undefined
  }
  get chain(): string {
    return this.#chain
  }
  get numbered(): number {
    return this.#numbered
  }

  booking(id: string): Booking | undefined {
    return this.#bookings.get(id) ?? this.#store.booking(id)
  }
  openBookings(): Iterable<Booking> {
    return this.#bookings.values()
  }
  bookingsOf(email: string): Booking[] {
    const mail = normalMail(email)
    return this.countedOf(email).filter(({ asked }) => normalMail(asked.person.email) === mail)
  }
  countedOf(email: string): Booking[] {
    return [...(this.#byMail.get(countedMail(email)) ?? [])].map((id) => this.#bookings.get(id)!)
  }
  used(code: string): number {
    return this.#uses.get(code) ?? 0
  }
  keep(visit: string): Keep | undefined {
    return this.#keeps.get(visit)
  }
  line(id: string): PlaceInLine | undefined {
    return this.#lines.get(id)
  }
  inLine(): Iterable<PlaceInLine> {
    return this.#lines.values()
  }
  freed(id: string): Freed | undefined {
    return this.#freed.get(id)
  }
  freedTimes(): Iterable<Freed> {
    return this.#freed.values()
  }
  course(id: string): Course | undefined {
    return this.#courses.get(id)
  }
  courses(): Iterable<Course> {
    return this.#courses.values()
  }
  coursesOf(mail: string): Course[] {
    return [...(this.#coursesByMail.get(mail) ?? [])].map((id) => this.#courses.get(id)!)
  }
  half(course: string, station: string): Half | undefined {
    return this.#store.half(course, station)
  }
  taken(owner: string): readonly Entry[] {
    return this.#diary.of(owner)
  }
  calendars(): readonly CalendarState[] {
    return [...this.#calendars.values()]
  }
  untold(visit: string): Untold {
    return this.#store.untold(visit)
  }

  keeps(): Iterable<Keep> {
    return this.#keeps.values()
  }

  attempts(visit: string): readonly Attempt[] {
    return this.#store.attempts(visit)
  }
  file(id: string): FileFacts | undefined {
    return this.#store.file(id)
  }
  waitingBytes(visit?: string): number {
    return this.#store.waitingBytes(visit)
  }
  quote(id: string): KeptQuote | undefined {
    return this.#store.quote(id)
  }
  quotesOf(enquiry: string): KeptQuote[] {
    return this.#store.quotesOf(enquiry)
  }
  link(hash: string): Link | undefined {
    return this.#store.link(hash)
  }
  enquiry(id: string): Enquiry | undefined {
    const [first] = this.#store.enquiryLines(id)
    return first && !('news' in first) ? first : undefined
  }
  enquiryNews(id: string): readonly EnquiryNews[] {
    return this.#store.enquiryLines(id).flatMap((line) => ('news' in line ? [line] : []))
  }
  lines(kind: 'enquiry' | 'mail', subject: Subject): number {
    return this.#store.lines(kind, subject)
  }
  answered(key: string): Answered | undefined {
    return this.#store.answered(key)
  }
  subjectsOf(theirs: (email: string, at: number) => boolean): Subject[] {
    return this.#store.subjectsOf(theirs)
  }
  old(bookingsBefore: Instant, quotesBefore: Instant): Old {
    return this.#store.old(bookingsBefore, quotesBefore)
  }
  forgotten(): Instant {
    return this.#forgotten
  }
  #isOpen({ kind, id }: Subject): boolean {
    return kind === 'booking' && this.#bookings.has(id)
  }
  done(key: string, subject: Subject): boolean {
    return this.#done.has(key) || (!this.#isOpen(subject) && this.#store.done(key))
  }
  message(key: string, subject: Subject): Message | undefined {
    return this.#messages.get(key) ?? (this.#isOpen(subject) ? undefined : this.#store.message(key))
  }

  failing(since: Instant): number {
    let many = 0
    for (const { state, due } of this.#messages.values())
      if (due >= since && (state === 'failed' || state === 'unknown')) many += 1
    return many
  }

  dues(subject: Subject): readonly Due[] {
    return this.#agenda.of(subject)
  }
  due(key: string): Due | undefined {
    return this.#agenda.due(key)
  }
  agenda(): readonly Due[] {
    return this.#agenda.order
  }

  diary(
    from: Instant,
    to: Instant,
    { visit, booking, freed, owners = [] }: But = {},
    also: readonly Entry[] = [],
  ): Diary {
    const but = [
      ...owners,
      ...(freed === undefined ? [] : this.#heldOutOf(freed)),
      ...(visit === undefined ? [] : [nameOf(visitSubject(visit))]),
      ...(booking === undefined ? [] : [nameOf(bookingSubject(booking))]),
    ]
    return this.#diary.slice(this.#pack!.practice, from, to, but, also)
  }

  /** Those to whom a freed time is held out, as the diary names them. */
  #heldOutOf(freed: string): string[] {
    const names: string[] = []
    for (const { id, offer } of this.#lines.values())
      if (offer?.freed === freed) names.push(nameOf(waitingSubject(id)))
    return names
  }

  /** Takes a change in that has been written. It checks nothing. */
  follow(change: Change): void {
    switch (change.type) {
      case 'emptied':
        this.#empty()
        return
      case 'package':
        this.#pack = change.pack
        this.#makeDiary()
        return
      case 'event':
        this.#followEvent(change)
        return
      case 'waiting': {
        const { id, event } = change
        const line = this.#lines.get(id)
        const next = event.type === 'joined' ? beginLine(id, event) : line && applyLine(line, event)
        if (!next) throw new Error(`There is no place in line ${id}.`)
        this.#lines.set(id, next)
        this.#putLine(next)
        return
      }
      case 'freed': {
        const { id, event } = change
        const freed = this.#freed.get(id)
        const next = event.type === 'freed' ? beginFreed(id, event) : freed && applyFreed(freed, event)
        if (!next) throw new Error(`There is no freed time ${id}.`)
        this.#freed.set(id, next)
        return
      }
      case 'course': {
        const { id, event } = change
        const course = this.#courses.get(id)
        const next = event.type === 'given' ? beginCourse(id, event) : course && applyCourse(course, event)
        if (!next) throw new Error(`There is no course ${id}.`)
        this.#setCourse(next)
        return
      }
      case 'sealed':
        this.#followSealed(change)
        return
      case 'keep':
        this.#keeps.set(change.keep.visit, change.keep)
        this.#putKeep(change.keep)
        return
      case 'unkeep':
        this.#keeps.delete(change.visit)
        this.#diary.put(nameOf(visitSubject(change.visit)), [])
        return
      case 'chain':
        this.#chain = change.head
        return
      case 'numbered':
        this.#numbered = change.n
        return
      case 'calendar':
        this.#calendars.set(change.state.id, change.state)
        this.#diary.put(`calendar/${change.state.id}`, change.state.entries)
        return
      case 'calendar-gone':
        this.#calendars.delete(change.id)
        this.#diary.put(`calendar/${change.id}`, [])
        return
      case 'due':
        this.#agenda.take(change.due.key)
        this.#agenda.add(change.due)
        return
      case 'undue':
        this.#agenda.take(change.key)
        return
      case 'done': {
        if (!this.#isOpen(change.subject)) return
        this.#done.add(change.key)
        const booking = this.#bookings.get(change.subject.id)
        if (booking) this.#putBooking(booking)
        return
      }
      case 'message':
        if (this.#isOpen(change.subject)) this.#messages.set(change.key, change.message)
        return
      case 'forget':
        this.#forget(change.subject)
        return
      case 'forgotten':
        this.#forgotten = change.at
        for (const booking of this.#bookings.values()) {
          if (isLongOver(booking, change.at)) this.#forget(bookingSubject(booking.id), false)
        }
        return
      // Read from the store when they are asked for.
      case 'enquiry':
      case 'mail':
      case 'attempt':
      case 'attempts-told':
      case 'attempts-sent':
      case 'file':
      case 'claim':
      case 'quote':
      case 'quote-used':
      case 'half':
      case 'half-gone':
      case 'link':
      case 'answered':
      case 'forget-old':
        return
    }
  }

  /** As an empty store is loaded. */
  #empty(): void {
    for (const held of [
      this.#bookings,
      this.#byMail,
      this.#uses,
      this.#keeps,
      this.#lines,
      this.#freed,
      this.#courses,
      this.#coursesByMail,
      this.#calendars,
      this.#diary,
      this.#agenda,
      this.#done,
      this.#messages,
    ])
      held.clear()
    this.#pack = undefined
    this.#chain = ''
    this.#numbered = 0
    this.#forgotten = instant(0)
  }

  #followEvent({ booking: id, event, was }: Extract<Change, { type: 'event' }>): void {
    const before = this.#bookings.get(id)
    const after =
      event.type === 'asked' ? begin(id, event) : before ? apply(before, event) : this.#store.booking(id)
    if (!after) throw new Error(`There is no booking ${id}.`)
    const { code } = after.asked
    if (code !== undefined) {
      const more = Number(usesCode(after)) - Number(was !== undefined && usesCode({ status: was }))
      this.#uses.set(code, this.used(code) + more)
    }
    if (event.type !== 'asked' && !before) return
    this.#setBooking(after)
    this.#putBooking(after)
  }

  #followSealed(change: Extract<Change, { type: 'sealed' }>): void {
    if (change.kind === 'booking') {
      const booking = this.#bookings.get(change.id)
      if (booking) this.#bookings.set(change.id, sealedBooking(booking, change.body))
    }
    if (change.kind === 'waiting') {
      const line = this.#lines.get(change.id)
      if (line) this.#lines.set(change.id, { ...line, joined: change.body })
    }
  }

  #setCourse(course: Course): void {
    this.#courses.set(course.id, course)
    const mail = normalMail(course.given.person.email)
    const theirs = this.#coursesByMail.get(mail)
    if (theirs) theirs.add(course.id)
    else this.#coursesByMail.set(mail, new Set([course.id]))
  }

  #setBooking(booking: Booking): void {
    this.#bookings.set(booking.id, booking)
    const mail = countedMail(booking.asked.person.email)
    const theirs = this.#byMail.get(mail)
    if (theirs) theirs.add(booking.id)
    else this.#byMail.set(mail, new Set([booking.id]))
  }

  /** @param whole also what it had done, and its uses of codes; else it is only let out of memory */
  #forget({ kind, id }: Subject, whole = true): void {
    if (kind === 'waiting') this.#lines.delete(id)
    if (kind === 'freed') this.#freed.delete(id)
    const course = kind === 'course' ? this.#courses.get(id) : undefined
    if (course) {
      this.#courses.delete(id)
      this.#coursesByMail.get(normalMail(course.given.person.email))?.delete(id)
    }
    const booking = kind === 'booking' ? this.#bookings.get(id) : undefined
    if (!booking) return
    this.#bookings.delete(id)
    const mail = countedMail(booking.asked.person.email)
    const theirs = this.#byMail.get(mail)
    theirs?.delete(id)
    if (theirs?.size === 0) this.#byMail.delete(mail)
    const own = `${nameOf({ kind, id })}/`
    for (const key of this.#done) if (key.startsWith(own)) this.#done.delete(key)
    for (const key of this.#messages.keys()) if (key.startsWith(own)) this.#messages.delete(key)
    this.#diary.put(nameOf(bookingSubject(id)), [])
    if (whole && booking.asked.code !== undefined && usesCode(booking))
      this.#uses.set(booking.asked.code, this.used(booking.asked.code) - 1)
  }

  #putBooking(booking: Booking): void {
    if (!this.#pack) return
    const done = (key: string): boolean => this.#done.has(key)
    this.#diary.put(nameOf(bookingSubject(booking.id)), bookingTakes(this.#pack.practice, booking, done))
  }

  #putKeep(keep: Keep): void {
    if (this.#pack) this.#diary.put(nameOf(visitSubject(keep.visit)), keepTakes(this.#pack.practice, keep))
  }

  #putLine(line: PlaceInLine): void {
    if (this.#pack) this.#diary.put(nameOf(waitingSubject(line.id)), lineTakes(this.#pack.practice, line))
  }

  /** Makes the diary whole: when it begins, and when the practice has changed. */
  #makeDiary(): void {
    this.#diary.clear()
    if (!this.#pack) return
    this.#diary.put('sessions', this.#pack.sessions)
    for (const booking of this.#bookings.values()) this.#putBooking(booking)
    for (const keep of this.#keeps.values()) this.#putKeep(keep)
    for (const line of this.#lines.values()) if (line.offer) this.#putLine(line)
    for (const { id, entries } of this.#calendars.values()) this.#diary.put(`calendar/${id}`, entries)
  }
}
