import type { Message, Planner, Subject } from '../agenda/index.ts'
import { apply, type Booking, begin } from '../booking/index.ts'
import type { CalendarState, EnquiryNews } from '../contract/types.ts'
import type { Practice } from '../practice/index.ts'
import type { Instant } from '../time/index.ts'
import type { Change } from './changes.ts'
import type { House } from './house.ts'

/** The house as it will be after some changes, as far as planning looks at it. A thin view; nothing is copied. */
export const over = (house: House, changes: readonly Change[]): Planner => new Over(house, changes)

class Over implements Planner {
  readonly #house: House
  readonly #changes: readonly Change[]

  constructor(house: House, changes: readonly Change[]) {
    this.#house = house
    this.#changes = changes
  }

  /** What the last change of a kind says. */
  #last<T>(pick: (change: Change) => T | undefined): T | undefined {
    for (let i = this.#changes.length - 1; i >= 0; i--) {
      const found = pick(this.#changes[i]!)
      if (found !== undefined) return found
    }
    return undefined
  }

  /** Whether the house can know nothing of a subject yet: then it is not asked, which would be read from the file. */
  #isNew({ kind, id }: Subject): boolean {
    const [first] = this.#changes.filter((change) => change.type === 'event' && change.booking === id)
    return kind === 'booking' && first?.type === 'event' && first.event.type === 'asked'
  }

  get practice(): Practice | undefined {
    const pack =
      this.#last((change) => (change.type === 'package' ? change.pack : undefined)) ?? this.#house.pack
    return pack?.practice
  }

  booking(id: string): Booking | undefined {
    let found = this.#isNew({ kind: 'booking', id }) ? undefined : this.#house.booking(id)
    for (const change of this.#changes) {
      if (change.type === 'forget' && change.subject.kind === 'booking' && change.subject.id === id)
        found = undefined
      if (change.type !== 'event' || change.booking !== id) continue
      found = change.event.type === 'asked' ? begin(id, change.event) : found && apply(found, change.event)
    }
    return found
  }

  keep(visit: string): { until: Instant } | undefined {
    const change = this.#last((change) =>
      (change.type === 'keep' && change.keep.visit === visit) ||
      (change.type === 'unkeep' && change.visit === visit)
        ? change
        : undefined,
    )
    if (!change) return this.#house.keep(visit)
    return change.type === 'keep' ? change.keep : undefined
  }

  enquiryNews(id: string): readonly EnquiryNews[] {
    const gone = this.#changes.some(
      (change) => change.type === 'forget' && change.subject.kind === 'enquiry' && change.subject.id === id,
    )
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
    if (this.#changes.some((change) => change.type === 'done' && change.key === key)) return true
    return !this.#isNew(subject) && this.#house.done(key, subject)
  }

  message(key: string, subject: Subject): Message | undefined {
    const said = this.#last((change) =>
      change.type === 'message' && change.key === key ? change.message : undefined,
    )
    return said ?? (this.#isNew(subject) ? undefined : this.#house.message(key, subject))
  }

  forgotten(): Instant {
    return (
      this.#last((change) => (change.type === 'forgotten' ? change.at : undefined)) ?? this.#house.forgotten()
    )
  }
}
