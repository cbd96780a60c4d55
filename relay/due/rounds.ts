import { itself } from '@acolhida/core/house'
import { type Instant, MINUTE } from '@acolhida/core/time'
import type { Calendars } from '../calendars/calendars.ts'
import type { Here } from '../here.ts'
import type { Post } from './post.ts'

/** What the relay does by itself when its moment has come. Looks at the agenda every second. */
export class Rounds {
  #timer: NodeJS.Timeout | undefined
  #noted: Instant | undefined
  readonly #here: Here
  readonly #post: Post
  readonly #calendars: Calendars
  readonly #note: (now: Instant) => void

  /** @param note keeps the newest moment seen, now and then */
  constructor(here: Here, post: Post, calendars: Calendars, note: (now: Instant) => void) {
    this.#here = here
    this.#post = post
    this.#calendars = calendars
    this.#note = note
  }

  start(): void {
    this.#timer = setInterval(() => this.turn(), 1_000)
    this.#timer.unref()
    this.turn()
  }

  /** Carries out what is due, at once: also after the clock has been moved. */
  turn(): void {
    try {
      const now = this.#here.now()
      if (this.#noted === undefined || now - this.#noted >= MINUTE) {
        this.#note(now)
        this.#noted = now
      }
      if (this.#here.clock.leapt) return
      const first = this.#here.keeper.house.agenda()[0]
      if (first && first.at <= now) this.#carryOut(now)
    } catch (error) {
      console.error('A round of the relay failed:', error)
    }
  }

  #carryOut(now: Instant): void {
    const { keeper, memory } = this.#here
    const forgetting = keeper.due(now, (due) => due.doing.do === 'forget')
    if (forgetting) this.#here.call(itself, { due: forgetting, memory, really: now })
    if (keeper.due(now, (due) => due.doing.do === 'read-calendar'))
      this.#calendars.round().catch((error) => console.error('Reading calendars failed:', error))
    if (keeper.due(now, (due) => due.doing.do === 'message'))
      this.#post.round().catch((error) => console.error('Sending mail failed:', error))
  }

  stop(): void {
    clearInterval(this.#timer)
  }
}
