import { strFromU8, type Unzipped, unzipSync } from 'fflate'
import { readSheet, type SheetData } from 'read-excel-file/universal'
import { LARGEST_PEOPLE_FILE, NoPeople } from './arrival.ts'
import { asTable, type PeopleTable } from './people-table.ts'

/** What a workbook may come to unpacked, in bytes: a small file can be packed to swell without end. */
export const LARGEST_UNPACKED = 10 * LARGEST_PEOPLE_FILE

/** How many cells a sheet may reach over. */
const MOST_CELLS = 5_000_000

/**
 * Reads the first sheet of a workbook (ISO/IEC 29500, .xlsx) as a table of people. A date becomes YYYY-MM-DD, with
 * HH:MM where it has a time; what else a cell holds becomes its text; what a formula comes to is what was saved with it.
 * @throws NoPeople where it is none, or too large
 */
export async function readPeopleSheet(bytes: Uint8Array): Promise<PeopleTable> {
  let sheets: Unzipped
  let unpacked = 0
  try {
    // Sizes are looked at before anything is unpacked: no file becomes larger than it says.
    sheets = unzipSync(bytes, {
      filter: ({ originalSize, name }) => {
        unpacked += originalSize
        return unpacked <= LARGEST_UNPACKED && /worksheets[/].*[.]xml$/i.test(name)
      },
    })
  } catch {
    throw unreadable()
  }
  if (unpacked > LARGEST_UNPACKED)
    throw new NoPeople(`Unpacked, this workbook is larger than ${LARGEST_UNPACKED / 1_048_576} MB. Split it.`)
  for (const sheet of Object.values(sheets)) checkExtent(strFromU8(sheet))
  let cells: SheetData
  try {
    cells = await readSheet(new Uint8Array(bytes).buffer)
  } catch {
    throw unreadable()
  }
  return asTable(cells.map((row) => row.map(textOf)).filter((row) => row.some((text) => text.trim())))
}

const unreadable = (): NoPeople =>
  new NoPeople('This workbook can’t be read. Save it as .xlsx once more, or as CSV.')

function textOf(cell: unknown): string {
  if (cell === null || cell === undefined) return ''
  if (!(cell instanceof Date)) return String(cell)
  const [day = '', time = ''] = cell.toISOString().slice(0, 16).split('T')
  // What is a time of day alone counts from the last day of 1899 (ISO/IEC 29500-1, 18.17.4).
  if (cell.getUTCFullYear() < 1900) return time
  return time === '00:00' ? day : `${day} ${time}`
}

/** Makes sure that a sheet is no larger than can be held: one stray cell at its end would fill all that lies before it. */
function checkExtent(sheet: string): void {
  let rows = 0
  let columns = 0
  for (const [, letters = '', row] of sheet.matchAll(/\br\s*=\s*["']([A-Z]*)(\d+)["']/g)) {
    rows = Math.max(rows, Number(row))
    columns = Math.max(columns, letters.length > 3 ? Number.POSITIVE_INFINITY : columnOf(letters))
  }
  if (rows * columns > MOST_CELLS)
    throw new NoPeople(
      'A sheet of this workbook has cells far off from the others. Copy the people to a new sheet, or save it as CSV.',
    )
}

const columnOf = (letters: string): number =>
  [...letters].reduce((n, letter) => n * 26 + letter.charCodeAt(0) - 64, 0)
