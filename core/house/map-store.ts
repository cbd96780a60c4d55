import { type Due, type Message, nameOf, quoteSubject, type Subject } from '../agenda/index.ts'
import { type Attempt, type Booking, type BookingEvent, replay, usesIn } from '../booking/index.ts'
import type { CalendarState, MailNews } from '../contract/desk-types.ts'
import type { DoorPackage, Enquiry, EnquiryNews } from '../contract/types.ts'
import type { CourseEvent } from '../preparing/index.ts'
import { canonicalJson, sha256Hex } from '../terms/index.ts'
import { type Instant, instant } from '../time/index.ts'
import type { FreedEvent, LineEvent } from '../waiting/index.ts'
import type { Answered, Change, FileFacts, Half, Keep, KeptQuote, Link } from './changes.ts'
import type { Loaded, Old, Store, Untold } from './house.ts'
import { isLongOver } from './memory.ts'

/** A store in memory: for a trial of the door, and for holding the relay's own against it. */
export class MapStore implements Store {
  readonly #secretOf: (link: string) => string
  readonly #records = new Map<string, BookingEvent[]>()
  readonly #enquiries = new Map<string, (Enquiry | EnquiryNews)[]>()
  readonly #lines = new Map<string, LineEvent[]>()
  readonly #freed = new Map<string, FreedEvent[]>()
  readonly #courses = new Map<string, CourseEvent[]>()
  readonly #halves = new Map<string, Half>()
  readonly #mails = new Map<string, MailNews[]>()
  readonly #attempts = new Map<string, Attempt[]>()
  /** In which enquiry an attempt stands. */
  readonly #told = new WeakMap<Attempt, string>()
  /** In which request an attempt stands. */
  readonly #sent = new WeakMap<Attempt, string>()
  readonly #files = new Map<string, FileFacts>()
  readonly #quotes = new Map<string, KeptQuote>()
  readonly #links = new Map<string, Link>()
  readonly #answered = new Map<string, Answered>()
  readonly #done = new Map<string, Subject>()
  readonly #messages = new Map<string, { subject: Subject; message: Message }>()
  readonly #keeps = new Map<string, Keep>()
  readonly #calendars = new Map<string, CalendarState>()
  readonly #dues = new Map<string, Due>()
  #pack: DoorPackage | undefined
  #chain = ''
  #numbered = 0
  #forgotten = instant(0)

  /** @param secretOf the secret of a private link, by the link's name */
  constructor(secretOf: (link: string) => string = (link) => link) {
    this.#secretOf = secretOf
  }

  write(changes: readonly Change[]): void {
    for (const change of changes) this.#write(change)
  }

  #write(change: Change): void {
    const push = <T>(map: Map<string, T[]>, key: string, value: T): unknown =>
      map.set(key, [...(map.get(key) ?? []), value])
    switch (change.type) {
      case 'emptied':
        this.#empty()
        return
      case 'package':
        this.#pack = change.pack
        return
      case 'event':
        push(this.#records, change.booking, change.event)
        return
      case 'enquiry':
        push(this.#enquiries, change.id, change.body)
        return
      case 'waiting':
        push(this.#lines, change.id, change.event)
        return
      case 'freed':
        push(this.#freed, change.id, change.event)
        return
      case 'course':
        push(this.#courses, change.id, change.event)
        return
      case 'half':
        this.#halves.set(`${change.course} ${change.station}`, change.half)
        return
      case 'half-gone':
        this.#halves.delete(`${change.course} ${change.station}`)
        return
      case 'sealed':
        this.#seal(change)
        return
      case 'mail':
        push(this.#mails, nameOf(change.subject), change.body)
        return
      case 'keep':
        this.#keeps.set(change.keep.visit, change.keep)
        return
      case 'unkeep':
        this.#keeps.delete(change.visit)
        return
      case 'attempt': {
        const { visit, attempt } = change
        const same = ({ service, answers }: Attempt): boolean =>
          service === attempt.service && canonicalJson(answers) === canonicalJson(attempt.answers)
        const others = (this.#attempts.get(visit) ?? []).filter(
          (other) => !same(other) && !change.gone?.includes(other),
        )
        this.#attempts.set(visit, [...others, attempt])
        return
      }
      case 'attempts-told': {
        const { visit, enquiry } = change
        for (const attempt of this.#attempts.get(visit) ?? [])
          if (!this.#told.has(attempt)) this.#told.set(attempt, enquiry)
        return
      }
      case 'attempts-sent': {
        const { visit, booking } = change
        for (const attempt of this.#attempts.get(visit) ?? [])
          if (!this.#sent.has(attempt)) this.#sent.set(attempt, booking)
        return
      }
      case 'file':
        this.#files.set(change.file.id, change.file)
        return
      case 'claim': {
        const file = this.#files.get(change.file)
        if (file) this.#files.set(file.id, { ...file, booking: change.booking })
        return
      }
      case 'quote':
        this.#quotes.set(change.quote.id, change.quote)
        return
      case 'quote-used': {
        const quote = this.#quotes.get(change.id)
        if (quote) this.#quotes.set(quote.id, { ...quote, booking: change.booking })
        return
      }
      case 'link':
        this.#links.set(sha256Hex(this.#secretOf(change.link.id)), change.link)
        return
      case 'words-ended':
        for (const [hash, { word }] of this.#links) if (word) this.#links.delete(hash)
        return
      case 'chain':
        this.#chain = change.head
        return
      case 'numbered':
        this.#numbered = change.n
        return
      case 'calendar':
        this.#calendars.set(change.state.id, change.state)
        return
      case 'calendar-gone':
        this.#calendars.delete(change.id)
        return
      case 'due':
        this.#dues.set(change.due.key, change.due)
        return
      case 'undue':
        this.#dues.delete(change.key)
        return
      case 'done':
        this.#done.set(change.key, change.subject)
        return
      case 'message':
        this.#messages.set(change.key, { subject: change.subject, message: change.message })
        return
      case 'answered':
        this.#answered.set(change.answered.key, change.answered)
        return
      case 'forget':
        this.#forget(change.subject)
        return
      case 'forget-old':
        for (const [visit, attempts] of this.#attempts) {
          const left = attempts.filter((attempt) => attempt.at >= change.short)
          if (left.length > 0) this.#attempts.set(visit, left)
          else this.#attempts.delete(visit)
        }
        for (const [key, { at }] of this.#answered) if (at < change.short) this.#answered.delete(key)
        for (const [id, file] of this.#files)
          if (!file.booking && file.at < change.files) this.#files.delete(id)
        return
      case 'forgotten':
        this.#forgotten = change.at
        return
    }
  }

  #seal(change: Extract<Change, { type: 'sealed' }>): void {
    const instead = <T>(records: Map<string, T[]>, first: T): unknown =>
      records.set(change.id, [first, ...(records.get(change.id) ?? []).slice(1)])
    const without = (stand: WeakMap<Attempt, string>): void => {
      for (const [visit, attempts] of this.#attempts)
        this.#attempts.set(
          visit,
          attempts.filter((one) => stand.get(one) !== change.id),
        )
    }
    switch (change.kind) {
      case 'booking':
        without(this.#sent)
        instead(this.#records, change.body)
        return
      case 'waiting':
        instead(this.#lines, change.body)
        return
      case 'enquiry':
        without(this.#told)
        instead(this.#enquiries, change.body)
        for (const quote of this.quotesOf(change.id)) this.#quotes.set(quote.id, { ...quote, answers: {} })
    }
  }

  #empty(): void {
    for (const held of [
      this.#records,
      this.#enquiries,
      this.#lines,
      this.#freed,
      this.#courses,
      this.#halves,
      this.#mails,
      this.#attempts,
      this.#files,
      this.#quotes,
      this.#links,
      this.#answered,
      this.#done,
      this.#messages,
      this.#keeps,
      this.#calendars,
      this.#dues,
    ])
      held.clear()
    this.#pack = undefined
    this.#chain = ''
    this.#numbered = 0
    this.#forgotten = instant(0)
  }

  #forget(subject: Subject): void {
    const name = nameOf(subject)
    const theirs = (other: Subject | undefined): boolean => other !== undefined && nameOf(other) === name
    if (subject.kind === 'booking') this.#records.delete(subject.id)
    if (subject.kind === 'enquiry') this.#enquiries.delete(subject.id)
    if (subject.kind === 'waiting') this.#lines.delete(subject.id)
    if (subject.kind === 'freed') this.#freed.delete(subject.id)
    if (subject.kind === 'course') {
      this.#courses.delete(subject.id)
      for (const key of this.#halves.keys()) if (key.startsWith(`${subject.id} `)) this.#halves.delete(key)
    }
    if (subject.kind === 'quote') this.#quotes.delete(subject.id)
    this.#mails.delete(name)
    for (const [hash, link] of this.#links) if (theirs(link.subject)) this.#links.delete(hash)
    for (const [key, of] of this.#done) if (theirs(of)) this.#done.delete(key)
    for (const [key, message] of this.#messages) if (theirs(message.subject)) this.#messages.delete(key)
    for (const [key, answered] of this.#answered) if (theirs(answered.subject)) this.#answered.delete(key)
    for (const [id, file] of this.#files)
      if ((subject.kind === 'booking' || subject.kind === 'course') && file.booking === subject.id)
        this.#files.delete(id)
  }

  booking(id: string): Booking | undefined {
    const record = this.#records.get(id)
    return record && replay(id, record)
  }
  untold(visit: string): Untold {
    const all = this.#attempts.get(visit) ?? []
    const told = all.flatMap((attempt) => this.#told.get(attempt) ?? [])
    const earlier = told.at(-1)
    return {
      attempts: all.filter((attempt) => !this.#told.has(attempt)),
      ...(earlier === undefined ? {} : { earlier }),
    }
  }

  attempts(visit: string): Attempt[] {
    return [...(this.#attempts.get(visit) ?? [])].sort((a, b) => a.at - b.at)
  }
  file(id: string): FileFacts | undefined {
    return this.#files.get(id)
  }
  half(course: string, station: string): Half | undefined {
    return this.#halves.get(`${course} ${station}`)
  }
  waitingBytes(visit?: string): number {
    let bytes = 0
    for (const file of this.#files.values())
      if (!file.booking && (visit === undefined || file.visit === visit)) bytes += file.size
    return bytes
  }
  quote(id: string): KeptQuote | undefined {
    return this.#quotes.get(id)
  }
  quotesOf(enquiry: string): KeptQuote[] {
    return [...this.#quotes.values()].filter((quote) => quote.enquiry === enquiry)
  }
  link(hash: string): Link | undefined {
    return this.#links.get(hash)
  }
  enquiryLines(id: string): (Enquiry | EnquiryNews)[] {
    return this.#enquiries.get(id) ?? []
  }
  lines(kind: 'enquiry' | 'mail', subject: Subject): number {
    return (kind === 'mail' ? this.#mails.get(nameOf(subject)) : this.#enquiries.get(subject.id))?.length ?? 0
  }
  done(key: string): boolean {
    return this.#done.has(key)
  }
  message(key: string): Message | undefined {
    return this.#messages.get(key)?.message
  }
  answered(key: string): Answered | undefined {
    return this.#answered.get(key)
  }
  subjectsOf(theirs: (email: string, at: number) => boolean): Subject[] {
    const found: Subject[] = []
    for (const [id, [first]] of this.#records)
      if (first?.type === 'asked' && theirs(first.person.email, first.at)) found.push({ kind: 'booking', id })
    for (const [id, [first]] of this.#enquiries) {
      if (!first || 'news' in first || !theirs(first.email, first.at)) continue
      found.push({ kind: 'enquiry', id }, ...this.quotesOf(id).map((quote) => quoteSubject(quote.id)))
    }
    for (const [id, [first]] of this.#lines)
      if (first?.type === 'joined' && theirs(first.person.email, first.at))
        found.push({ kind: 'waiting', id })
    for (const [id, [first]] of this.#courses)
      if (first?.type === 'given' && theirs(first.person.email, first.at)) found.push({ kind: 'course', id })
    return found.sort((a, b) => (nameOf(a) < nameOf(b) ? -1 : 1))
  }
  old(bookingsBefore: Instant, quotesBefore: Instant): Old {
    const bookings = [...this.#records].flatMap(([id, record]) => {
      const { start, status, until } = replay(id, record)
      return start >= bookingsBefore || (status === 'requested' && until >= bookingsBefore) ? [] : [id]
    })
    const enquiries = [...this.#enquiries].flatMap(([id, [first]]) =>
      first && first.at < bookingsBefore ? [id] : [],
    )
    const quotes = [...this.#quotes.values()].flatMap(({ id, until }) => (until < quotesBefore ? [id] : []))
    const endedBefore = <E extends { at: Instant }>(records: Map<string, E[]>): string[] =>
      [...records].flatMap(([id, record]) => (record.at(-1)!.at < bookingsBefore ? [id] : [])).sort()
    return {
      ...{ bookings: bookings.sort(), enquiries: enquiries.sort(), quotes: quotes.sort() },
      ...{
        lines: endedBefore(this.#lines),
        freed: endedBefore(this.#freed),
        courses: endedBefore(this.#courses),
      },
    }
  }

  load(): Loaded {
    const bookings = [...this.#records].map(([id, record]) => replay(id, record))
    const uses = new Map<string, number>()
    const used = usesIn(bookings, instant(0))
    for (const { asked } of bookings) if (asked.code) uses.set(asked.code, used(asked.code))
    return {
      pack: this.#pack,
      bookings: bookings.filter((booking) => !isLongOver(booking, this.#forgotten)),
      uses,
      keeps: [...this.#keeps.values()],
      lines: this.#lines,
      freed: this.#freed,
      courses: this.#courses,
      calendars: [...this.#calendars.values()],
      chain: this.#chain,
      numbered: this.#numbered,
      dues: [...this.#dues.values()],
      done: [...this.#done.keys()],
      messages: new Map([...this.#messages].map(([key, { message }]) => [key, message])),
      forgotten: this.#forgotten,
    }
  }
}
