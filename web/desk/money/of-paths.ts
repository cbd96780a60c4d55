import { referenceOf } from '@acolhida/core/ledger'
import { balanceOf, type PayOfPath, paysAt } from '@acolhida/core/preparing'
import type { Instant } from '@acolhida/core/time'
import type { DeskDatabase } from '../data/database.ts'
import type { CourseRow } from '../data/tables.ts'

/** A path of which money is still to come. */
export interface OwingPath {
  row: CourseRow
  name: string
  currency: string
  reference: string
  /** What is open of it in all, and of what is due or late by now. */
  open: number
  due: number
  late: boolean
  /** The next part that has not come whole. */
  next: PayOfPath
}

/** The paths that somebody was given. */
export const pathsOf = (db: DeskDatabase): Promise<CourseRow[]> =>
  db.courses.filter(({ course }) => course.given.path !== undefined).toArray()

/** Those of them of which money is still to come, in order of its dates. */
export function owingPaths(rows: readonly CourseRow[], now: Instant): OwingPath[] {
  return rows
    .flatMap((row): OwingPath[] => {
      const { course } = row
      const { path, person } = course.given
      const parts = paysAt(course, now).filter(({ open }) => open > 0)
      const [next] = parts
      if (!path || !next || course.ended !== undefined) return []
      const { open } = balanceOf(course, () => undefined, now)
      return [
        {
          ...{ row, name: person.name, currency: path.currency, reference: referenceOf(course), open, next },
          due: parts.reduce((sum, one) => (one.due <= now ? sum + one.open : sum), 0),
          late: next.is === 'overdue',
        },
      ]
    })
    .sort((a, b) => a.next.due - b.next.due)
}
