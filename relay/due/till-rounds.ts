import type { Doing, Due } from '@acolhida/core/agenda'
import { currencyAtTill, type ForTill, openPayments, tillGave, tillSays } from '@acolhida/core/house'
import { Refused } from '@acolhida/core/request'
import { type Instant, MINUTE, shift } from '@acolhida/core/time'
import { log } from '../ground/log.ts'
import type { Here } from '../house/here.ts'
import { type Till, TillAway } from '../till/till.ts'

type AtTill = Extract<Doing, { do: 'ask-till' | 'give-back' }>

/** How long the till is left alone after it has not answered, or had nothing to tell, in minutes. */
const WAITS = [1, 2, 5, 15, 60, 180, 360]

/**
 * What is done at the till by itself: asking it in doubt, taking what is charged, giving back. Everything is asked by a
 * name, so that after an end in between it can be asked again, and happens once.
 */
export class TillRounds {
  readonly #here: Here
  readonly #till: Till
  /** How often a due thing was tried for nothing, and from when on it may be again. */
  readonly #resting = new Map<string, { tries: number; until: Instant }>()
  #round: Promise<void> | undefined

  constructor(here: Here, till: Till) {
    this.#here = here
    this.#till = till
  }

  /** Does everything due now; a second call joins the round under way. */
  round(): Promise<void> {
    this.#round ??= this.#go().finally(() => {
      this.#round = undefined
    })
    return this.#round
  }

  async close(): Promise<void> {
    await this.#round
  }

  /** What the till is asked for, and where its page is. @throws Refused where it does not answer */
  async page(of: ForTill, back: string): Promise<{ to: string }> {
    try {
      const { page } = await this.#till.ask({ ...of, back })
      return { to: page }
    } catch (error) {
      throw this.#away(error)
    }
  }

  /** Asks about everything of a booking or a path that is still open: whoever comes back from the till may have paid. */
  async lookAt(booking: string): Promise<void> {
    for (const { payment, what } of openPayments(this.#here.keeper.house, booking)) {
      // A charge may still be taken back; its own moment comes.
      if (what === 'charge') continue
      try {
        await this.#ask(booking, payment)
      } catch (error) {
        throw this.#away(error)
      }
    }
  }

  #away(error: unknown): unknown {
    if (!(error instanceof TillAway)) return error
    log.warn({ err: error }, 'The till does not answer.')
    return new Refused(503, 'till-away')
  }

  async #go(): Promise<void> {
    const now = this.#here.now()
    const dues: Due[] = []
    for (const due of this.#here.keeper.house.agenda()) {
      if (due.at > now) break
      const { do: kind } = due.doing
      if (kind !== 'ask-till' && kind !== 'give-back') continue
      if ((this.#resting.get(due.key)?.until ?? 0) <= now) dues.push(due)
    }
    for (const due of dues) {
      const done = await this.#carryOut(due.subject.id, due.doing as AtTill).catch((error: unknown) => {
        log.warn({ err: error }, 'The till could not be asked.')
        return false
      })
      if (done) this.#resting.delete(due.key)
      else this.#rest(due.key)
    }
  }

  #rest(key: string): void {
    const tries = (this.#resting.get(key)?.tries ?? 0) + 1
    const minutes = WAITS[Math.min(tries, WAITS.length) - 1]!
    this.#resting.set(key, { tries, until: shift(this.#here.now(), minutes * MINUTE) })
  }

  /** @returns whether it has come to an end */
  async #carryOut(booking: string, doing: AtTill): Promise<boolean> {
    if (doing.do === 'give-back') {
      const { payment, n, amount } = doing
      await this.#till.giveBack({ payment, name: `${payment}-${n}-${amount}`, amount })
      this.#here.call(tillGave, { booking, payment, n, amount })
      return true
    }
    return this.#ask(booking, doing.payment)
  }

  async #ask(id: string, payment: string): Promise<boolean> {
    const { house } = this.#here.keeper
    const booking = house.booking(id)
    const currency = currencyAtTill(house, id)
    const asked = openPayments(house, id).find((one) => one.payment === payment)
    const { practice } = house
    if (currency === undefined || !asked || !practice) return false
    const of = { payment, booking: id, amount: asked.amount, currency }
    const key = asked.what === 'charge' ? booking?.card?.key : undefined
    const title = practice.profile.name
    const said =
      key === undefined
        ? await this.#till.look(payment)
        : await this.#till.charge({ ...of, title, card: key })
    if (said === 'open') return false
    if (said !== 'unknown') this.#here.call(tillSays, said)
    // It was to be asked for there, and never was: nobody can pay by it any more.
    else if (this.#here.now() > asked.until)
      this.#here.call(tillSays, { ...of, message: `${payment}-unknown`, says: 'over', text: '' })
    else return false
    return true
  }
}
