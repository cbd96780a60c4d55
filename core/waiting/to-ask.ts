import type { Practice, Waitlist } from '../practice/index.ts'
import type { Instant } from '../time/index.ts'
import type { FillBy } from './fill.ts'
import type { Freed } from './freed.ts'
import { lineAt, type PlaceInLine, waitingOf } from './line.ts'
import type { Waiting } from './types.ts'

/** Of those in line, who is still to be asked for a freed time: they wait, did not have it yet, and are not left out. */
export const stillToAsk = <L extends PlaceInLine>(
  lines: readonly L[],
  freed: Partial<Pick<Freed, 'id' | 'skipped'>>,
  now: Instant,
): L[] =>
  lines.filter(
    (line) =>
      lineAt(line, now).is === 'waiting' &&
      !(freed.id !== undefined && line.had.includes(freed.id)) &&
      !freed.skipped?.includes(line.id),
  )

/**
 * Those in line as a freed time looks at them. Whoever wants an earlier time than the one they have looks for what lies
 * before it; without that booking they wait for nothing.
 * @param startOf when a booking begins; nothing where it does not stand any more
 */
export const waitingAmong = (
  practice: Practice,
  lines: readonly PlaceInLine[],
  startOf: (booking: string) => Instant | undefined,
): Waiting[] =>
  lines.flatMap((line) => {
    const { instead } = line.joined
    if (instead === undefined) return [waitingOf(practice, line)]
    const start = startOf(instead)
    return start === undefined ? [] : [waitingOf(practice, line, start)]
  })

/** Whom a waitlist prefers, and what counts as most to it. */
export const preferenceOf = ({ prefer, worth }: Waitlist): Pick<FillBy, 'prefer' | 'by'> => ({
  prefer,
  ...(worth ? { by: worth } : {}),
})
