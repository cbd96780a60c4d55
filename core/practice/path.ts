import type { Minor } from '../money/index.ts'
import type { Duration } from '../time/index.ts'

/** The most sessions that one path is given with, and the most parts its price comes in. */
export const MOST_OF_A_PATH = 60
export const MOST_PARTS = 60

/** What stands on the line of a path. */
export type PathStation = { id: string } & (
  | { does: 'prepare'; preparation: string }
  /** Sessions one after another, each so many whole days after the one before at least, and at most. */
  | { does: 'sessions'; service: string; minutes: number; many: number; least?: number; most?: number }
  /** So many equal parts of what is left of the price, each so long after the one before; the first so long after the giving. */
  | { does: 'pay'; parts: number; after: Duration; every: Duration }
  /** Nothing happens for so many days. */
  | { does: 'pause'; days: number }
)

/** A programme: sessions, what is prepared and paid, in their order; given to a client after a first talk. */
export interface Path {
  id: string
  name: string
  text: string
  /** For all of it. */
  price: Minor
  stations: PathStation[]
}
