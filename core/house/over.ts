import type { Message, Planner, Subject } from '../agenda/index.ts'
import { apply, type Booking, begin, sealedBooking } from '../booking/index.ts'
import type { CalendarState } from '../contract/desk-types.ts'
import type { Enquiry, EnquiryNews } from '../contract/types.ts'
import { normalMail } from '../people/index.ts'
import type { Practice } from '../practice/index.ts'
import { applyCourse, type Course, type CourseEvent, replayCourse } from '../preparing/index.ts'
import type { Instant } from '../time/index.ts'
import {
  applyFreed,
  applyLine,
  type Freed,
  type FreedEvent,
  type LineEvent,
  type PlaceInLine,
  replayFreed,
  replayLine,
} from '../waiting/index.ts'
import type { Change } from './changes.ts'
import type { House } from './house.ts'

/** The house as it will be after some changes, as far as planning looks at it. They are gone through once. */
export const over = (house: House, changes: readonly Change[]): Planner => new Over(house, changes)

/** What changes a booking, in order: what happens to it, and that it is forgotten. */
type OfBooking = Extract<Change, { type: 'event' | 'forget' | 'sealed' }>

class Over implements Planner {
  readonly #house: House
  readonly #changes: readonly Change[]
  readonly #bookings = new Map<string, OfBooking[]>()
  readonly #lines = new Map<string, LineEvent[]>()
  readonly #freed = new Map<string, FreedEvent[]>()
  readonly #courses = new Map<string, CourseEvent[]>()
  readonly #keeps = new Map<string, { until: Instant } | undefined>()
  readonly #messages = new Map<string, Message>()
  readonly #done = new Set<string>()
  /** What these records begin with since a part of it was sealed. */
  readonly #sealedLines = new Map<string, PlaceInLine['joined']>()
  readonly #sealedEnquiries = new Map<string, Enquiry>()
  #practice: Practice | undefined
  #seals: boolean | undefined
  #forgotten: Instant | undefined

  constructor(house: House, changes: readonly Change[]) {
    this.#house = house
    this.#changes = changes
    for (const change of changes) this.#look(change)
  }

  #ofBooking(id: string, one: OfBooking): void {
    const before = this.#bookings.get(id)
    if (before) before.push(one)
    else this.#bookings.set(id, [one])
  }

  #look(change: Change): void {
    switch (change.type) {
      case 'package':
        this.#practice = change.pack.practice
        this.#seals = change.pack.seal !== undefined
        break
      case 'event':
        this.#ofBooking(change.booking, change)
        break
      case 'forget':
        if (change.subject.kind === 'booking') this.#ofBooking(change.subject.id, change)
        break
      case 'waiting':
        this.#lines.set(change.id, [...(this.#lines.get(change.id) ?? []), change.event])
        break
      case 'freed':
        this.#freed.set(change.id, [...(this.#freed.get(change.id) ?? []), change.event])
        break
      case 'course':
        this.#courses.set(change.id, [...(this.#courses.get(change.id) ?? []), change.event])
        break
      case 'sealed':
        if (change.kind === 'booking') this.#ofBooking(change.id, change)
        if (change.kind === 'waiting') this.#sealedLines.set(change.id, change.body)
        if (change.kind === 'enquiry') this.#sealedEnquiries.set(change.id, change.body)
        break
      case 'keep':
        this.#keeps.set(change.keep.visit, change.keep)
        break
      case 'unkeep':
        this.#keeps.set(change.visit, undefined)
        break
      case 'done':
        this.#done.add(change.key)
        break
      case 'message':
        this.#messages.set(change.key, change.message)
        break
      case 'forgotten':
        this.#forgotten = change.at
        break
      default:
    }
  }

  /** Whether the house can know nothing of a subject yet: then it is not asked, which would be read from the file. */
  #isNew({ kind, id }: Subject): boolean {
    if (kind !== 'booking') return false
    const first = this.#bookings.get(id)?.find(({ type }) => type === 'event')
    return first?.type === 'event' && first.event.type === 'asked'
  }

  get practice(): Practice | undefined {
    return this.#practice ?? this.#house.practice
  }

  get seals(): boolean {
    return this.#seals ?? this.#house.seals
  }

  booking(id: string): Booking | undefined {
    let found = this.#isNew({ kind: 'booking', id }) ? undefined : this.#house.booking(id)
    for (const change of this.#bookings.get(id) ?? []) {
      if (change.type === 'forget') found = undefined
      else if (change.type === 'sealed')
        found = found && change.kind === 'booking' ? sealedBooking(found, change.body) : found
      else
        found = change.event.type === 'asked' ? begin(id, change.event) : found && apply(found, change.event)
    }
    return found
  }

  line(id: string): PlaceInLine | undefined {
    if (this.#isForgotten('waiting', id)) return undefined
    const events = this.#lines.get(id) ?? []
    const known = this.#house.line(id)
    const line = known
      ? events.reduce(applyLine, known)
      : events.length > 0
        ? replayLine(id, events)
        : undefined
    const sealed = this.#sealedLines.get(id)
    return line && sealed ? { ...line, joined: sealed } : line
  }

  freed(id: string): Freed | undefined {
    if (this.#isForgotten('freed', id)) return undefined
    const events = this.#freed.get(id) ?? []
    const known = this.#house.freed(id)
    return known ? events.reduce(applyFreed, known) : events.length > 0 ? replayFreed(id, events) : undefined
  }

  course(id: string): Course | undefined {
    if (this.#isForgotten('course', id)) return undefined
    const events = this.#courses.get(id) ?? []
    const known = this.#house.course(id)
    return known
      ? events.reduce(applyCourse, known)
      : events.length > 0
        ? replayCourse(id, events)
        : undefined
  }

  coursesOf(mail: string): Course[] {
    const ids = new Set([...this.#house.coursesOf(mail).map(({ id }) => id), ...this.#courses.keys()])
    return [...ids].flatMap((id) => {
      const course = this.course(id)
      return course && normalMail(course.given.person.email) === mail ? [course] : []
    })
  }

  #isForgotten(kind: Subject['kind'], id: string): boolean {
    return this.#changes.some(
      (change) => change.type === 'forget' && change.subject.kind === kind && change.subject.id === id,
    )
  }

  keep(visit: string): { until: Instant } | undefined {
    return this.#keeps.has(visit) ? this.#keeps.get(visit) : this.#house.keep(visit)
  }

  enquiry(id: string): Enquiry | undefined {
    if (this.#isForgotten('enquiry', id)) return undefined
    const begun = this.#changes.flatMap((change) =>
      change.type === 'enquiry' && change.id === id && !('news' in change.body) ? [change.body] : [],
    )
    return this.#sealedEnquiries.get(id) ?? begun[0] ?? this.#house.enquiry(id)
  }

  enquiryNews(id: string): readonly EnquiryNews[] {
    const gone = this.#isForgotten('enquiry', id)
    const more = this.#changes.flatMap((change) =>
      change.type === 'enquiry' && change.id === id && 'news' in change.body ? [change.body] : [],
    )
    return [...(gone ? [] : this.#house.enquiryNews(id)), ...more]
  }

  calendars(): readonly CalendarState[] {
    const states = new Map(this.#house.calendars().map((state) => [state.id, state]))
    for (const change of this.#changes) {
      if (change.type === 'calendar') states.set(change.state.id, change.state)
      if (change.type === 'calendar-gone') states.delete(change.id)
    }
    return [...states.values()]
  }

  done(key: string, subject: Subject): boolean {
    return this.#done.has(key) || (!this.#isNew(subject) && this.#house.done(key, subject))
  }

  message(key: string, subject: Subject): Message | undefined {
    return this.#messages.get(key) ?? (this.#isNew(subject) ? undefined : this.#house.message(key, subject))
  }

  forgotten(): Instant {
    return this.#forgotten ?? this.#house.forgotten()
  }
}
