import type { Calendars } from '../calendars/calendars.ts'
import type { Demo } from '../demo.ts'
import type { DoorAddress } from '../due/post.ts'
import type { TillRounds } from '../due/till-rounds.ts'
import type { HouseClock } from '../ground/clock.ts'
import type { Health } from '../ground/health.ts'
import type { Here } from '../house/here.ts'
import type { SqliteStore } from '../store/sqlite-store.ts'
import type { Gateway } from '../texts/gateway.ts'
import type { Till } from '../till/till.ts'
import type { Trials } from '../trial/trials.ts'
import type { Quotas } from './quotas.ts'
import type { Stream } from './stream.ts'

/** What both servers serve from. */
export interface Serving {
  here: Here
  clock: HouseClock
  store: SqliteStore
  trials: Trials
  calendars: Calendars
  deskStream: Stream
  doorStream: Stream
  address: DoorAddress
  /** How the desk's side is reached from outside. */
  deskAddress: DoorAddress
  requestsPerMinute: number
  /** What one client may hold, write and try. */
  quotas: Quotas
  /** Whose `X-Forwarded-For` is believed. */
  proxies: string[]
  health: Health
  /** Whether it answers pages of this machine alone. */
  loopbackOnly: boolean
  doorPages: string
  deskPages: string
  /** Where cards are taken. */
  till?: Till
  /** By which texts go. */
  gateway?: Gateway
  tillRounds?: TillRounds
  /** Only where stand-ins run. */
  demo?: Demo
  /** Carries out what is due without waiting for the next round, once the answer is out. */
  soon(): void
}
