import { changesState, type Due } from '../agenda/index.ts'
import type { Instant } from '../time/index.ts'
import { act } from './act.ts'
import { type Change, type Told, touches } from './changes.ts'
import type { House, Store } from './house.ts'
import { itself } from './itself.ts'
import { Memory } from './memory.ts'
import type { About, Does } from './work.ts'

/**
 * The doorkeeper: reads, decides, writes, follows, in one go. It knows no HTTP, no mail and no clock of its own; the
 * relay, a trial of the door and the tests run the very same one over stores of their own.
 */
export class Doorkeeper {
  readonly house: Memory
  readonly #store: Store
  /** Called after something has been written that others want to know of; with the widest of what it was. */
  onChange: (what: Told) => void = () => {}
  /** Called when following has failed: what is in memory is no longer what is written. */
  onBroken: (error: unknown) => void = (error) => {
    throw error
  }

  constructor(store: Store, trial?: House['trial']) {
    this.#store = store
    this.house = new Memory(store, trial)
  }

  /**
   * Does one thing, whole or not at all. Nothing else happens between reading and following.
   * @param bytes of a file that is taken
   * @throws Refused when it is not done
   */
  act<B, A>(does: Does<B, A>, body: B, about: About, bytes?: Uint8Array): A {
    const done = act(this.house, does, body, about)
    if (done.changes.length > 0) {
      this.#store.write(done.changes, bytes)
      this.#follow(done.changes)
    }
    if ('refused' in done) throw done.refused
    return done.answer
  }

  #follow(changes: readonly Change[]): void {
    try {
      for (const change of changes) this.house.follow(change)
    } catch (error) {
      this.onBroken(error)
    }
    const told = new Set(changes.map(touches))
    const widest = (['practice', 'openings', 'record'] as const).find((what) => told.has(what))
    if (widest) this.onChange(widest)
  }

  /** The first thing that is due at `now` and of a kind. */
  due(now: Instant, is: (due: Due) => boolean): Due | undefined {
    for (const due of this.house.agenda()) {
      if (due.at > now) return undefined
      if (is(due)) return due
    }
    return undefined
  }

  /**
   * Carries out what changes how things stand and was due by `now`, each as of its own moment, so that a record is in
   * order of time after a pause, too.
   * @param memory for how long finished bookings are kept, in ms
   */
  catchUp(now: Instant, ids: About['ids'], memory: number): void {
    for (;;) {
      const due = this.due(now, changesState)
      if (!due) return
      this.act(itself, { due, memory, really: now }, { now: due.at, really: now, ids })
    }
  }
}
