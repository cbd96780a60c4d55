import type { PeopleTable } from './people-table.ts'
import type { SessionColumn } from './session-columns.ts'

/** The most sessions that are taken in at once. */
export const MOST_SESSIONS = 1_000

/** A session as another place tells of it, before anything of it is looked at. */
export type SessionRow = { row: number } & Record<Exclude<SessionColumn, 'given' | 'family'>, string>

/** The sessions of a table, by what its columns are said to be. The first row below the headings is row 2. */
export function sessionsOfTable(
  { rows }: PeopleTable,
  columns: readonly (SessionColumn | undefined)[],
): SessionRow[] {
  return rows.map((cells, i): SessionRow => {
    const said = (column: SessionColumn): string => (cells[columns.indexOf(column)] ?? '').trim()
    return {
      row: i + 2,
      name: said('name') || [said('given'), said('family')].filter(Boolean).join(' '),
      ...{ email: said('email'), phone: said('phone'), start: said('start'), date: said('date') },
      ...{ time: said('time'), end: said('end'), minutes: said('minutes'), service: said('service') },
      ...{ place: said('place'), price: said('price'), paid: said('paid'), left: said('left') },
      owes: said('owes'),
    }
  })
}
