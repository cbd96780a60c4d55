import { type House, unprovedNow } from '@acolhida/core/house'
import { Refused } from '@acolhida/core/request'
import type { Instant } from '@acolhida/core/time'

/** How many starts may be held without a proof: by one client, and in all. */
export interface HeldLimits {
  byOne: number
  inAll: number
}

/**
 * Who holds what without having proved anything: starts that are kept, and requests whose mailed link has not been
 * pressed. What each client holds is known in memory alone; how much is held in all, the house knows.
 */
export class Held {
  readonly #limits: HeldLimits
  /** Clients, by the visit or the subject that holds something of theirs. */
  readonly #clients = new Map<string, string>()

  constructor(limits: HeldLimits) {
    this.#limits = limits
  }

  /**
   * Makes sure that a client may hold one more.
   * @returns whether there is room for it in all: where there is not, it is kept from nobody until it is proved, so that
   * nobody's times are taken by those who prove nothing, however many they are
   * @throws Refused
   */
  mayHold(house: House, now: Instant, client: string): boolean {
    const names = heldNames(house, now)
    for (const name of this.#clients.keys()) if (!names.has(name)) this.#clients.delete(name)
    let own = 0
    for (const other of this.#clients.values()) if (other === client) own++
    if (own >= this.#limits.byOne) throw new Refused(429, 'too-many-held')
    let held = 0
    for (const holds of names.values()) if (holds) held++
    return held < this.#limits.inAll
  }

  /** Notes whose it is. */
  note(name: string, client: string): void {
    this.#clients.set(name, client)
  }
}

/** Everything that waits for a proof, and whether it keeps a time from others meanwhile. */
function heldNames(house: House, now: Instant): Map<string, boolean> {
  const names = new Map<string, boolean>()
  for (const { id, asked } of unprovedNow(house, now)) names.set(id, asked.unheld !== true)
  for (const { visit, until } of house.keeps()) if (until >= now) names.set(visit, true)
  return names
}
