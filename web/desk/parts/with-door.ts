import type { Practice } from '@acolhida/core/practice'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'

/** What changing it is called. */
const WHAT = 'opening or closing the door'

/** The practice with its door opened, closed, or saying something else while it is closed. */
export const withDoor = (practice: Practice, part: Partial<NonNullable<Practice['door']>>): Practice => ({
  ...practice,
  door: { open: true, text: '', ...practice.door, ...part },
})

/** Opens or closes it. */
export const openOrClose = (open: boolean): Promise<void> =>
  changePractice(db, WHAT, (p) => withDoor(p, { open }))
