import type { Practice } from '@acolhida/core/practice'
import { dateTimeAt, type Instant, zone } from '@acolhida/core/time'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { withAway } from '../hours/away.ts'

/** What undo calls it. */
export const OWN_TIME = 'time kept for yourself'

/** Keeps a stretch of time for oneself. */
export function keepForMyself(practice: Practice, from: Instant, to: Instant, note = ''): Promise<void> {
  const home = zone(practice.profile.zone)
  const away = {
    id: `own-${from}`,
    from: dateTimeAt(home, from),
    to: dateTimeAt(home, to),
    note: note.trim() || 'kept for myself',
  }
  return changePractice(db, OWN_TIME, (p) => withAway(p, [away]))
}
