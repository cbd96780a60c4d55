import type { BringInBody } from '../contract/bring-types.ts'
import { DAY, formatInstant, type Instant, shift } from '../time/index.ts'
import type { Brought } from './sift-sessions.ts'

/** When what is owed from before is due, from the day on which it is brought in. */
const OWED_WITHIN = 30 * DAY

/** How sessions are to be brought in. */
export interface BringAs {
  /** How new names are made. */
  ids(): string
  /** The file they came from. */
  file: string
  now: Instant
  /** By whose clock times are told to them. */
  zone: string
  /** What balances are called, also for whom they are of. */
  standing: string
  /** Whether somebody is told, by their row. */
  tells: (row: number) => boolean
}

/** What the relay is to be asked. */
export function bringBody(
  come: readonly Brought[],
  { ids, file, now, zone, standing, tells }: BringAs,
): BringInBody {
  const contact = (one: Brought) => ({ ...one.person, zone })
  return {
    batch: `${formatInstant(now)} ${file}`.trim().slice(0, 200),
    sessions: come.flatMap((one) =>
      one.session
        ? [
            {
              ...{ id: ids(), person: contact(one), ...one.session },
              ...(tells(one.row) ? { tell: true } : {}),
            },
          ]
        : [],
    ),
    standing: come.flatMap((one) =>
      one.left || one.owes
        ? [
            {
              ...{ id: ids(), person: contact(one), name: standing },
              ...(one.left ? { left: one.left } : {}),
              ...(one.owes ? { owes: { amount: one.owes, due: shift(now, OWED_WITHIN) } } : {}),
            },
          ]
        : [],
    ),
  }
}
