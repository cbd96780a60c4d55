import { type Due, dueOf, inOrder, nameOf, type Subject } from '../agenda/index.ts'
import type { House } from './house.ts'

/** What is to happen by itself, in its order, kept so from one change to the next. */
export class LiveAgenda {
  readonly #dues = new Map<string, Due>()
  readonly #duesOf = new Map<string, Due[]>()
  #order: Due[] = []

  get order(): readonly Due[] {
    return this.#order
  }
  due(key: string): Due | undefined {
    return this.#dues.get(key)
  }
  of(subject: Subject): readonly Due[] {
    return this.#duesOf.get(nameOf(subject)) ?? []
  }

  /** Puts something in its place. */
  add(due: Due): void {
    this.#dues.set(due.key, due)
    const name = nameOf(due.subject)
    this.#duesOf.set(name, [...(this.#duesOf.get(name) ?? []), due])
    this.#order.splice(this.#placeOf(due), 0, due)
  }

  /** Takes something out, if it is there. */
  take(key: string): void {
    const due = this.#dues.get(key)
    if (!due) return
    this.#dues.delete(key)
    const name = nameOf(due.subject)
    const left = (this.#duesOf.get(name) ?? []).filter((other) => other.key !== key)
    if (left.length > 0) this.#duesOf.set(name, left)
    else this.#duesOf.delete(name)
    this.#order.splice(this.#placeOf(due), 1)
  }

  #placeOf(due: Due): number {
    let low = 0
    let high = this.#order.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (inOrder(this.#order[middle]!, due) < 0) low = middle + 1
      else high = middle
    }
    return low
  }

  /** As it begins. */
  clear(): void {
    this.#dues.clear()
    this.#duesOf.clear()
    this.#order = []
  }
}

/** What the agenda would be, made anew from the house: for looking whether it has been kept well. */
export const agendaAnew = (house: House, subjects: Iterable<Subject>): Due[] =>
  [...subjects].flatMap((subject) => dueOf(house, subject)).sort(inOrder)
