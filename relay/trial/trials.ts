import { randomInt } from 'node:crypto'
import type { TrialBody } from '@acolhida/core/door'
import type { Entry } from '@acolhida/core/openings'
import type { KnownPerson } from '@acolhida/core/people'
import { HOUR, type Instant, shift } from '@acolhida/core/time'
import type { Clock } from '../clock.ts'
import { diaryAt, published } from '../door/circumstances.ts'
import { Store } from '../store/store.ts'

/** How many trials there are at once, and how long one lasts, in ms. */
const MOST = 4
const LASTS = HOUR

/** A door to try: the practice as it is, what is taken, and nobody else; in memory alone. */
export interface Trial {
  slug: string
  store: Store
  clock: Clock
  /** The page it may be shown in. */
  ancestor: string
  until: Instant
}

/** What begins the address of a trial's door; no practice's own can. */
export const TRIAL = 'try_'

const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'

/** Doors to try. Nothing that happens in one reaches the relay's file, the desk, or anybody's mailbox. */
export class Trials {
  readonly #store: Store
  readonly #clock: Clock
  readonly #trials = new Map<string, Trial>()

  constructor(store: Store, clock: Clock) {
    this.#store = store
    this.#clock = clock
  }

  /**
   * Opens a door to try, for somebody, at some moment.
   * @param ancestor origin of the page it may be shown in
   */
  open({ as, at }: TrialBody, ancestor: string): Trial {
    const now = this.#clock.now()
    const ahead = at === undefined ? 0 : at - now
    const clock: Clock = { now: () => shift(this.#clock.now(), ahead), moved: ahead !== 0 }
    const slug = TRIAL + Array.from({ length: 20 }, () => LETTERS[randomInt(LETTERS.length)]).join('')
    const { practice, salt, revision } = published(this.#store)
    const store = new Store(':memory:')
    const { calendars: _, ...own } = practice
    const taken = diaryAt(this.#store, now).entries.map(anonymous)
    store.act(() =>
      store.savePackage({
        revision,
        practice: { ...own, profile: { ...practice.profile, slug } },
        sessions: taken,
        people: [],
        salt,
      }),
    )
    if (as === 'known') store.visitor = somebodyKnown(practice.services.map((service) => service.id))
    const trial = { slug, store, clock, ancestor, until: shift(now, LASTS) }
    this.#trials.set(slug, trial)
    this.#forget(now)
    return trial
  }

  of(slug: string): Trial | undefined {
    this.#forget(this.#clock.now())
    return this.#trials.get(slug)
  }

  /** The trial in which a private link was handed out. */
  withLink(secret: string): Trial | undefined {
    return [...this.#trials.values()].find((one) => one.store.link(secret) !== undefined)
  }

  close(): void {
    for (const { slug } of this.#trials.values()) this.#end(slug)
  }

  #forget(now: Instant): void {
    const all = [...this.#trials.values()]
    const over = all.filter((one, i) => one.until < now || i < all.length - MOST)
    for (const { slug } of over) this.#end(slug)
  }

  #end(slug: string): void {
    this.#trials.get(slug)?.store.close()
    this.#trials.delete(slug)
  }
}

/** A taken stretch of time without whose it is. */
const anonymous = (entry: Entry, i: number): Entry => {
  const { request: _, ...rest } = entry
  return { ...rest, id: `taken-${i}` }
}

/** Whoever comes to this trial: somebody the practitioner works with, invited to everything. */
const somebodyKnown = (services: string[]): KnownPerson => ({
  id: 'somebody',
  mailHashes: [],
  standing: 'known',
  invited: services,
  blocked: false,
})
