import { referenceOf } from '@acolhida/core/ledger'
import { type OwingOfPath, owingOf } from '@acolhida/core/preparing'
import type { Instant } from '@acolhida/core/time'
import type { DeskDatabase } from '../data/database.ts'
import type { CourseRow } from '../data/tables.ts'

/** A path of which money is still to come. */
export interface OwingPath extends OwingOfPath {
  row: CourseRow
  name: string
  currency: string
  reference: string
}

/** The paths that somebody was given. */
export const pathsOf = (db: DeskDatabase): Promise<CourseRow[]> =>
  db.courses.filter(({ course }) => course.given.path !== undefined).toArray()

/** Those of them of which money is still to come, in order of its dates. */
export const owingPaths = (rows: readonly CourseRow[], now: Instant): OwingPath[] =>
  rows
    .flatMap((row): OwingPath[] => {
      const { path, person } = row.course.given
      const owing = path && owingOf(row.course, now)
      if (!owing) return []
      const { currency } = path
      return [{ ...owing, row, name: person.name, currency, reference: referenceOf(row.course) }]
    })
    .sort((a, b) => a.next.due - b.next.due)
