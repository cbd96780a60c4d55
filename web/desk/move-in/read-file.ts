import { isPacked, LARGEST_PEOPLE_FILE, NoPeople, type PeopleTable } from '@acolhida/core/move-in'
import { withoutUnseen } from '@acolhida/core/people'

/** A file as it was read: its name, and a workbook's table or a text. */
export type OpenedFile = { name: string } & ({ table: PeopleTable } | { text: string })

/** Reads a file of another place: a workbook as a table, all else as text. @throws NoPeople where it is too large, or none of both */
export async function readFile(file: File): Promise<OpenedFile> {
  if (file.size > LARGEST_PEOPLE_FILE)
    throw new NoPeople(`“${file.name}” is larger than ${LARGEST_PEOPLE_FILE / 1_048_576} MB. Split it.`)
  const bytes = new Uint8Array(await file.arrayBuffer())
  const name = withoutUnseen(file.name).slice(0, 50)
  // A workbook's reader is fetched when there is a workbook to read.
  if (isPacked(bytes))
    return { name, table: await (await import('@acolhida/core/move-in/sheet')).readPeopleSheet(bytes) }
  if (bytes.includes(0))
    throw new NoPeople(`“${file.name}” is no text. Save it as CSV, as .xlsx, or as vCard.`)
  try {
    return { name, text: new TextDecoder('utf-8', { fatal: true }).decode(bytes) }
  } catch {
    // What spreadsheets on older machines write (WHATWG Encoding, windows-1252).
    return { name, text: new TextDecoder('windows-1252').decode(bytes) }
  }
}
