import Papa from 'papaparse'
import { type Arrival, checkHowMany, NoPeople } from './arrival.ts'
import type { PersonColumn } from './columns.ts'

/** A table as it was read: its headings, and its rows below them. */
export interface PeopleTable {
  headings: string[]
  rows: string[][]
}

/**
 * Reads a table of people (RFC 4180, with whatever stands between its columns: commas, semicolons, tabs).
 * @throws NoPeople where it is none, or too long
 */
export function readPeopleTable(text: string): PeopleTable {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
  })
  return asTable(data)
}

/** A table of what stands in the lines of a file. @throws NoPeople where it is none, or too long */
export function asTable([headings, ...rows]: string[][]): PeopleTable {
  if (!headings || headings.length < 1) throw new NoPeople('This file is empty.')
  if (rows.length === 0) throw new NoPeople('This file has headings, or one line, and nobody below them.')
  checkHowMany(rows.length, 'lines')
  if (headings.length > 500) throw new NoPeople('This table has more than 500 columns.')
  return { headings: headings.map((heading) => heading.trim()), rows }
}

/** The people of a table, by what its columns are said to be. The first row below the headings is row 2. */
export function peopleOfTable(table: PeopleTable, columns: readonly (PersonColumn | undefined)[]): Arrival[] {
  return table.rows.map((cells, i) => {
    const all = (column: PersonColumn): string[] =>
      columns.flatMap((one, at) => {
        const said = one === column ? (cells[at] ?? '').trim() : ''
        return said ? [said] : []
      })
    const first = (column: PersonColumn): string => all(column)[0] ?? ''
    return {
      row: i + 2,
      name: first('name') || [first('given'), first('family')].filter(Boolean).join(' '),
      emails: all('email').flatMap(apart(/[,;]+/)),
      phone: first('phone'),
      pronouns: first('pronouns'),
      birthday: first('birthday'),
      stage: first('stage'),
      cameFrom: first('cameFrom'),
      tags: all('tags').flatMap(apart(/[,;|]+/)),
      note: all('note').join('\n'),
    }
  })
}

const apart =
  (by: RegExp) =>
  (text: string): string[] =>
    text
      .split(by)
      .map((one) => one.trim())
      .filter(Boolean)
