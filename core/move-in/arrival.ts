/** Somebody as another place tells of them, before anything of it is looked at. */
export interface Arrival {
  /** The line of the table, or the number of the card. */
  row: number
  name: string
  emails: string[]
  phone: string
  pronouns: string
  birthday: string
  stage: string
  cameFrom: string
  tags: string[]
  note: string
}

/** What of a file can't be read, and where. */
export interface Unread {
  row: number
  what: string
  why: string
}

/** The most people that are taken in at once, and the largest file, in bytes. */
export const MOST_PEOPLE = 20_000
export const LARGEST_PEOPLE_FILE = 20 * 1024 * 1024

/** Makes sure that there are not too many lines or cards. @throws NoPeople */
export function checkHowMany(many: number, of: 'lines' | 'cards'): void {
  if (many > MOST_PEOPLE)
    throw new NoPeople(
      `There are ${many.toLocaleString('en')} ${of}; ${MOST_PEOPLE.toLocaleString('en')} can be taken in at once. Split the file.`,
    )
}

/** The file can't be used at all. */
export class NoPeople extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'NoPeople'
  }
}

/** Whether bytes are those of a packed file, as every workbook is one: they begin with "PK" (APPNOTE.TXT, 4.3.7). */
export const isPacked = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b
