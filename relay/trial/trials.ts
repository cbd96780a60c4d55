import { randomInt } from 'node:crypto'
import type { TrialBody } from '@acolhida/core/contract'
import { Doorkeeper, MapStore, published } from '@acolhida/core/house'
import type { Entry } from '@acolhida/core/openings'
import type { KnownPerson } from '@acolhida/core/people'
import { DAY, HOUR, type Instant, shift } from '@acolhida/core/time'
import { Here } from '../house/here.ts'
import { Secrets } from '../store/keys.ts'

/** How many trials there are at once, and how long one lasts, in ms. */
const MOST = 4
const LASTS = HOUR
/** How far ahead is taken over what is taken. */
const AHEAD = 400 * DAY

/** A door to try: the practice as it is, what is taken, and nobody else; in memory alone. */
export interface Trial {
  slug: string
  here: Here
  /** The page it may be shown in. */
  ancestor: string
  until: Instant
}

/** What begins the address of a trial's door; no practice's own can. */
export const TRIAL = 'try_'

const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'

/**
 * Doors to try. Each is a house of its own with the very same doorkeeper; nothing that happens in one reaches the
 * relay's file, the desk, or anybody's mailbox.
 */
export class Trials {
  readonly #here: Here
  readonly #trials = new Map<string, Trial>()

  constructor(here: Here) {
    this.#here = here
  }

  /**
   * Opens a door to try, for somebody, at some moment.
   * @param ancestor origin of the page it may be shown in
   */
  open({ as, at }: TrialBody, ancestor: string): Trial {
    const now = this.#here.now()
    const ahead = at === undefined ? 0 : at - now
    const slug = TRIAL + Array.from({ length: 20 }, () => LETTERS[randomInt(LETTERS.length)]).join('')
    const { house } = this.#here.keeper
    const { practice, salt, revision } = published(house)
    const { calendars: _, ...own } = practice
    const secrets = new Secrets()
    const store = new MapStore((link) => secrets.of(link))
    const then = shift(now, ahead)
    store.write([
      {
        type: 'package',
        pack: {
          revision,
          practice: { ...own, profile: { ...practice.profile, slug } },
          sessions: house.diary(then, shift(then, AHEAD)).entries.map(anonymous),
          people: [],
          salt,
        },
      },
    ])
    const visitor = as === 'known' ? somebodyKnown(practice.services.map((service) => service.id)) : undefined
    const clock = { now: () => shift(this.#here.clock.now(), ahead) }
    const here = new Here(new Doorkeeper(store, { visitor }), clock, secrets, AHEAD)
    const trial = { slug, here, ancestor, until: shift(now, LASTS) }
    this.#trials.set(slug, trial)
    this.#forget(now)
    return trial
  }

  of(slug: string): Trial | undefined {
    this.#forget(this.#here.clock.now())
    return this.#trials.get(slug)
  }

  /** The trial in which a private link was handed out, by the hash of its secret. */
  withLink(hash: string): Trial | undefined {
    return [...this.#trials.values()].find((trial) => trial.here.keeper.house.link(hash) !== undefined)
  }

  #forget(now: Instant): void {
    const all = [...this.#trials.values()]
    const over = all.filter((trial, i) => trial.until < now || i < all.length - MOST)
    for (const { slug } of over) this.#trials.delete(slug)
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
