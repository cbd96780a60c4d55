import { type House, unprovedNow } from '@acolhida/core/house'
import { Refused } from '@acolhida/core/request'
import type { Instant } from '@acolhida/core/time'

/** How many starts may be held without a proof. */
export interface HeldLimits {
  byOne: number
  inAll: number
}

/**
 * Who holds what without having proved anything: starts that are kept, requests and places in line whose mailed link has
 * not been pressed. What each client holds is known in memory alone; how much is held in all, the house knows.
 */
export class Held {
  readonly #limits: HeldLimits
  /** Clients, by the visit or the subject that holds something of theirs. */
  readonly #clients = new Map<string, string>()

  constructor(limits: HeldLimits) {
    this.#limits = limits
  }

  /**
   * Makes sure that a client may hold one more. The latter half of what there is in all is for those who hold nothing:
   * whoever takes much leaves room for whoever takes little.
   * @throws Refused
   */
  check(house: House, now: Instant, client: string): void {
    const names = heldNames(house, now)
    for (const name of this.#clients.keys()) if (!names.has(name)) this.#clients.delete(name)
    let own = 0
    for (const other of this.#clients.values()) if (other === client) own++
    const { byOne, inAll } = this.#limits
    const room = own === 0 ? inAll : Math.floor(inAll / 2)
    if (own >= byOne) throw new Refused(429, 'too-many-held')
    if (names.size >= room) throw new Refused(429, 'too-many-unproved')
  }

  /** Notes whose it is. */
  note(name: string, client: string): void {
    this.#clients.set(name, client)
  }
}

/** Names of everything that is held without a proof. */
function heldNames(house: House, now: Instant): Set<string> {
  const names = new Set<string>(unprovedNow(house, now))
  for (const { visit, until } of house.keeps()) if (until >= now) names.add(visit)
  return names
}
