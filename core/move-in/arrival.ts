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

/** The file can't be used at all. */
export class NoPeople extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'NoPeople'
  }
}
