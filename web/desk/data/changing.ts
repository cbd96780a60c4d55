import { hurtBy, mayHurt } from '@acolhida/core/booking'
import { checkPractice, type Practice, type PracticeFault } from '@acolhida/core/practice'
import { BadData, letIn, practice as practiceSchema } from '@acolhida/core/schemas'
import { instant } from '@acolhida/core/time'
import { relayNow } from '../../relay-client/clock.ts'
import type { DeskDatabase } from './database.ts'
import { WouldHurt } from './would-hurt.ts'

/** How many changes of the practice can be undone. */
const REMEMBERED = 60

/** What was agreed to and has not been done yet. */
const agreed = new Set<string>()

/** @throws WouldHurt when the change takes something from what is booked, and nobody has agreed to that */
async function refuseHurt(db: DeskDatabase, what: string, before: Practice, after: Practice): Promise<void> {
  if (!mayHurt(before, after)) return
  const now = relayNow()
  const coming = await db.bookings.where('start').above(now).toArray()
  const hurt = hurtBy(before, after, coming, now)
  const key = JSON.stringify([what, hurt.map(({ booking, harm }) => [booking.id, harm])])
  if (hurt.length === 0 || agreed.delete(key)) return
  throw new WouldHurt(hurt, () => agreed.add(key))
}

/**
 * Changes the practice: what is typed is let in through its schema, kept, and the practice before it is
 * remembered for undo. One transaction.
 * @param booked `decided` where the same act says what becomes of what is booked
 * @throws BadData with the place and the reason; nothing is changed then
 * @throws WouldHurt when it takes something from what is booked and that was not agreed to; nothing is changed then
 */
export async function changeHere(
  db: DeskDatabase,
  what: string,
  change: (practice: Practice) => Practice,
  booked: 'ask' | 'decided' = 'ask',
): Promise<void> {
  await db.transaction('rw', db.practice, db.changes, db.bookings, async () => {
    const row = await db.practice.get('practice')
    if (!row) throw new Error('There is no practice to change.')
    const next = letIn<Practice>(practiceSchema, change(row.practice), 'The practice')
    refuseNewFaults(checkPractice(row.practice), checkPractice(next))
    if (booked === 'ask') await refuseHurt(db, what, row.practice, next)
    await db.practice.put({ ...row, practice: next })
    await db.changes.add({ what, at: instant(Date.now()), before: row.practice })
    const old = (await db.changes.count()) - REMEMBERED
    if (old > 0) await db.changes.orderBy('order').limit(old).delete()
  })
}

function refuseNewFaults(before: PracticeFault[], after: PracticeFault[]): void {
  const known = new Set(before.map((fault) => `${fault.path} ${fault.message}`))
  const fresh = after.filter(
    (fault) => fault.grade === 'error' && !known.has(`${fault.path} ${fault.message}`),
  )
  if (fresh.length > 0) throw new BadData('The practice', fresh)
}

/**
 * Takes the last change of the practice back and says what it was; nothing when there is none.
 * @throws WouldHurt when that takes something from what has been booked since, and nobody has agreed to it
 */
export async function undoHere(db: DeskDatabase): Promise<string | undefined> {
  return db.transaction('rw', db.practice, db.changes, db.bookings, async () => {
    const last = await db.changes.orderBy('order').last()
    const row = await db.practice.get('practice')
    if (!last || !row) return undefined
    await refuseHurt(db, `undo ${last.order}`, row.practice, last.before)
    await db.practice.put({ ...row, practice: last.before })
    await db.changes.delete(last.order)
    return last.what
  })
}
