import { waitingSubject } from '@acolhida/core/agenda'
import type { Wanted } from '@acolhida/core/contract'
import { inLine, joinLine, lineView, read, takeFreed } from '@acolhida/core/house'
import { serviceOf } from '@acolhida/core/practice'
import { sha256Hex } from '@acolhida/core/terms'
import { addDays, dateAt, HOUR, type Instant, MINUTE, time, zone } from '@acolhida/core/time'
import type { WaitingWindow } from '@acolhida/core/waiting'
import { answersTo } from './answers.ts'
import { agreedVersions, type Invented, type Life, mailed } from './life.ts'

/** What is held out since then is still to be answered when one looks, in ms. */
export const JUST_NOW = 70 * MINUTE

const HOME = zone('Europe/Lisbon')

/** Those of the scenario who wait for a time, and what they do when one is held out to them. */
export class Waits {
  readonly #life: Life
  readonly #seen = new Set<string>()

  constructor(life: Life) {
    this.#life = life
  }

  /** The link in a mail about a place in line. */
  #link(id: string, at: Instant): string {
    const link = this.#life.ids()
    this.#life.do(mailed(waitingSubject(id)), link, at, false)
    return link
  }

  /** No time suits somebody: they wait for one. */
  wait(someone: Invented, wanted: Wanted & { place: string }, at: Instant): void {
    const { practice } = this.#life.house().pack!
    const { name, email, zone } = someone
    const { by } = this.#life
    const today = dateAt(HOME, at)
    const far = { from: today, to: addDays(today, by.pick([21, 42, 60, 90])) }
    const windows: WaitingWindow[] = by.pick([
      [far],
      [{ ...far, after: time('14:00') }],
      [{ ...far, before: time('13:00') }],
      [{ ...far, weekdays: [1, 3] }],
      [
        { ...far, weekdays: [2, 4] },
        { ...far, weekdays: [3], after: time('15:00') },
      ],
    ])
    const done = this.#life.do(
      joinLine,
      {
        ...wanted,
        windows,
        clock: at,
        person: { name, email, zone },
        agreed: agreedVersions(practice, serviceOf(practice, wanted.service)!),
      },
      at,
    )
    if (!done) return
    const id = [...this.#life.store.places.keys()].at(-1)!
    const hash = sha256Hex(this.#link(id, at))
    this.#life.plan(at + by.whole(1, 20) * MINUTE, (later) => {
      this.#life.do(inLine, { hash, command: { do: 'prove' } }, later)
    })
  }

  /** Somebody new waits for a voice assessment, whenever it is. */
  waitAnyTime(at: Instant): void {
    const service = 'voice-assessment'
    const someone = this.#life.someoneNew()
    for (let tries = 0; tries < 20; tries++) {
      const wanted = {
        visit: `visit-of-${this.#life.ids()}`,
        service,
        answers: answersTo(service, this.#life.by),
      }
      if (!this.#life.do(read, wanted, at, false)?.open) continue
      this.wait(someone, { ...wanted, place: 'studio' }, at)
      return
    }
  }

  /** Whoever is held out a freed time takes it, or turns it down, or lets it go by. */
  seeOffers(at: Instant): void {
    for (const { id, offer } of this.#life.house().inLine()) {
      if (!offer || this.#seen.has(`${id} ${offer.seq}`)) continue
      this.#seen.add(`${id} ${offer.seq}`)
      if (at > this.#life.now - JUST_NOW) continue
      const how = this.#life.by.next()
      if (how > 0.8) continue
      this.#life.plan(at + this.#life.by.between(10 * MINUTE, 5 * HOUR), (later) =>
        this.#answerOffer(id, how < 0.6, later),
      )
    }
  }

  #answerOffer(id: string, takes: boolean, at: Instant): void {
    const house = this.#life.house()
    const line = house.line(id)
    if (!line?.offer || at > line.offer.until) return
    const hash = sha256Hex(this.#link(id, at))
    const { freed } = line.offer
    if (!takes) {
      this.#life.do(inLine, { hash, command: { do: 'turn', freed } }, at)
      return
    }
    const shown = lineView(house, line, at).offer?.shown
    if (shown) this.#life.do(takeFreed, { hash, freed, shown, agreed: [] }, at)
  }
}
