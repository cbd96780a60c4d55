import type { Does, Doorkeeper, House } from '@acolhida/core/house'
import { Refused } from '@acolhida/core/request'
import { canonicalJson, sha256Hex } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'
import type { Leap } from '../ground/clock.ts'
import { type Secrets, token } from '../store/keys.ts'

/** What is said once: whose key it is, and what was said with it. */
export interface Once {
  scope: string
  key: string | undefined
  /** The body, less what another try of the same says otherwise. */
  body: unknown
}

const KEY = /^[A-Za-z0-9_-]{16,64}$/

/** The name and print of a call. @throws Refused without a key */
function named({ scope, key, body }: Once): { key: string; print: string } {
  if (!key || !KEY.test(key)) {
    throw new Refused(400, 'no-key', { where: 'idempotency-key' })
  }
  return { key: `${scope} ${key}`, print: sha256Hex(canonicalJson(body)) }
}

/** A clock that may have leapt. */
export interface HereClock {
  now(): Instant
  readonly leapt?: Leap | undefined
}

/** Where a call is answered: a doorkeeper with a clock and its secrets; the relay's own, or a trial's. */
export class Here {
  readonly keeper: Doorkeeper
  readonly clock: HereClock
  readonly secrets: Secrets
  /** For how long finished bookings are remembered, in ms. */
  readonly memory: number

  constructor(keeper: Doorkeeper, clock: HereClock, secrets: Secrets, memory: number) {
    this.keeper = keeper
    this.clock = clock
    this.secrets = secrets
    this.memory = memory
  }

  /** The time it is, with everything done that was due before: so a record is in order of time. */
  now(): Instant {
    const now = this.clock.now()
    if (!this.clock.leapt) this.keeper.catchUp(now, token, this.memory)
    return now
  }

  /** Looks something up as it stands now. */
  look<T>(view: (house: House, now: Instant) => T): T {
    const now = this.now()
    return view(this.keeper.house, now)
  }

  /** Does one thing, once where that is said. @throws Refused */
  call<B, A>(does: Does<B, A>, body: B, once?: Once, bytes?: Uint8Array): A {
    const about = once ? { once: named(once) } : {}
    return this.keeper.act(does, body, { now: this.now(), ids: token, ...about }, bytes)
  }
}
