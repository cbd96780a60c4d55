import type { Doing } from '@acolhida/core/agenda'
import { itself } from '@acolhida/core/house'
import { type Instant, MINUTE } from '@acolhida/core/time'
import type { Calendars } from '../calendars/calendars.ts'
import { fileTrouble } from '../ground/health.ts'
import { log } from '../ground/log.ts'
import type { Here } from '../house/here.ts'
import type { Post } from './post.ts'
import type { Sealings } from './sealings.ts'
import type { TillRounds } from './till-rounds.ts'

/** What goes on outside the house: each carries out everything of its own that is due. */
export interface Outside {
  post: Post
  calendars: Calendars
  sealings: Sealings
  /** Where cards are taken. */
  till?: TillRounds
}

/** What the relay does by itself when its moment has come. Looks at the agenda every second. */
export class Rounds {
  #timer: NodeJS.Timeout | undefined
  #noted: Instant | undefined
  readonly #here: Here
  readonly #outside: Outside
  readonly #note: (now: Instant) => void

  /** @param note keeps the newest moment seen, now and then */
  constructor(here: Here, outside: Outside, note: (now: Instant) => void) {
    this.#here = here
    this.#outside = outside
    this.#note = note
  }

  start(): void {
    this.#timer = setInterval(() => this.turn(), 1_000)
    this.#timer.unref()
    void this.turn()
  }

  /**
   * Carries out what is due, at once: also after the clock has been moved. Waits for what takes longer, and for what is
   * under way already.
   */
  async turn(): Promise<void> {
    try {
      const now = this.#here.now()
      if (this.#noted === undefined || now - this.#noted >= MINUTE) {
        this.#note(now)
        this.#noted = now
      }
      if (this.#here.clock.leapt) return
      const first = this.#here.keeper.house.agenda()[0]
      if (first && first.at <= now) await this.#carryOut(now)
      await this.#outside.post.underWay
    } catch (error) {
      this.#failed(error)
    }
  }

  async #carryOut(now: Instant): Promise<void> {
    const { keeper, memory } = this.#here
    const forgetting = keeper.due(now, (due) => due.doing.do === 'forget')
    if (forgetting) this.#here.call(itself, { due: forgetting, memory, really: now })
    const isDue = (kind: Doing['do']): boolean =>
      keeper.due(now, ({ doing }) => doing.do === kind) !== undefined
    const outside: Promise<void>[] = []
    const { post, calendars, till, sealings } = this.#outside
    if (isDue('read-calendar')) outside.push(calendars.round())
    if (isDue('message')) outside.push(post.round())
    if (isDue('seal')) outside.push(sealings.round())
    if (till && (isDue('ask-till') || isDue('give-back'))) outside.push(till.round())
    for (const end of await Promise.allSettled(outside))
      if (end.status === 'rejected') this.#failed(end.reason)
  }

  /** What hinders the file is known, and logged where that was found out: a round comes each second. */
  #failed(error: unknown): void {
    if (fileTrouble(error) === undefined) log.error({ err: error }, 'A round of the relay failed.')
  }

  stop(): void {
    clearInterval(this.#timer)
  }
}
