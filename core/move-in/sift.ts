import { isMail, isPhone, nameProblem, normalMail, type Person, withoutUnseen } from '../people/index.ts'
import { dateTyped, type LocalDate } from '../time/index.ts'
import type { Arrival, Unread } from './arrival.ts'

/** What would come of taking people in. */
export interface Sifted {
  /** Who comes in. */
  come: Person[]
  /** Whose address is here already: they stay as they are. */
  here: { row: number; name: string; email: string; known: string }[]
  /** Who stands in the file twice: the first counts, and takes the other's addresses and what it lacks. */
  twice: { row: number; name: string; first: number }[]
  /** Who can't be taken in, and why. */
  wrong: Unread[]
}

/** What is looked at beside the people: whose each address is, today, and how new names are made. */
export interface Among {
  /** The name of whoever has an address, in its normal form. */
  known(email: string): string | undefined
  today: LocalDate
  ids(): string
  /** Names this moving in, so that it can be undone as a whole. */
  batch: string
  /** Whether they have been worked with before. */
  worked?: boolean
}

/** How many addresses somebody can have. */
const MOST_MAILS = 100

/** Why somebody can't be taken in; nothing where they can. */
function faultIn({
  name,
  emails,
  phone,
  pronouns,
  stage,
  cameFrom,
  note,
  tags,
}: Arrival): string | undefined {
  if (!name) return 'There is no name.'
  if (name.length > 200) return 'The name is longer than 200 characters.'
  if (nameProblem(name) === 'unseen') return 'There is something in the name that can’t be seen.'
  if (nameProblem(name) === 'address') return 'The name holds a web or mail address.'
  if (emails.length > MOST_MAILS) return `There are more than ${MOST_MAILS} mail addresses.`
  if (emails.length === 0) return 'There is no mail address: people are known by theirs.'
  const odd = emails.find((email) => !isMail(email))
  if (odd !== undefined) return `“${odd.slice(0, 80)}” is no mail address.`
  if (phone && !isPhone(phone)) return `“${phone.slice(0, 40)}” is no phone number.`
  if (pronouns.length > 60) return 'The pronouns are longer than 60 characters.'
  if (cameFrom.length > 200) return 'Where they came from is longer than 200 characters.'
  if (stage.length > 60) return 'The word for how far you have come is longer than 60 characters.'
  if (note.length > 20_000) return 'The note is longer than 20,000 characters.'
  const long = tags.find((tag) => tag.length > 60)
  return long === undefined ? undefined : `The tag “${long.slice(0, 40)}…” is longer than 60 characters.`
}

/** A day on which somebody was born. @throws Error where it is none, or is still to come */
function birthdayIn(text: string, today: LocalDate): LocalDate | undefined {
  const [day = ''] = text.split('T')
  // A day without its year (RFC 6350, 4.3.1) is no date to be kept here.
  if (!day || day.startsWith('--')) return undefined
  const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(day)
  const read = dateTyped(compact ? `${compact[1]}-${compact[2]}-${compact[3]}` : day, today)
  if (read > today) throw new Error(`“${text}” is still to come.`)
  return read
}

const clean = (text: string): string => withoutUnseen(text, ' ').trim()

/** Tries taking people in, and changes nothing: who would come, who is here or twice, who can't and why. */
export function sift(arrivals: readonly Arrival[], { known, today, ids, batch, worked }: Among): Sifted {
  const sifted: Sifted = { come: [], here: [], twice: [], wrong: [] }
  const rows = new Map<string, { row: number; person: Person }>()
  for (const arrival of arrivals) {
    const { row, name } = arrival
    const fault = faultIn(arrival)
    if (fault) {
      sifted.wrong.push({ row, what: name || arrival.emails[0] || '', why: fault })
      continue
    }
    let birthday: LocalDate | undefined
    try {
      birthday = birthdayIn(arrival.birthday, today)
    } catch (error) {
      sifted.wrong.push({ row, what: name, why: `Birthday: ${(error as Error).message}` })
      continue
    }
    const emails = [...new Set(arrival.emails.map(normalMail))]
    const mine = emails.find((email) => known(email) !== undefined)
    if (mine !== undefined) {
      sifted.here.push({ row, name, email: mine, known: known(mine)! })
      continue
    }
    const before = emails.map((email) => rows.get(email)).find((one) => one !== undefined)
    if (before) {
      // What another of them has already stays theirs: an address is one person's.
      for (const email of emails
        .filter((one) => !rows.has(one))
        .slice(0, MOST_MAILS - before.person.emails.length)) {
        before.person.emails.push(email)
        rows.set(email, before)
      }
      if (before.person.phone === undefined && arrival.phone) before.person.phone = arrival.phone
      sifted.twice.push({ row, name, first: before.row })
      continue
    }
    const tags = [...new Set(arrival.tags.map(clean).filter(Boolean))].slice(0, 100)
    const pronouns = clean(arrival.pronouns)
    const stage = clean(arrival.stage)
    const cameFrom = clean(arrival.cameFrom)
    const person: Person = {
      id: `person-${ids()}`,
      name,
      ...(pronouns ? { pronouns } : {}),
      ...(birthday ? { birthday } : {}),
      emails,
      ...(arrival.phone ? { phone: arrival.phone } : {}),
      invited: [],
      blocked: false,
      note: arrival.note,
      ...(tags.length > 0 ? { tags } : {}),
      ...(stage ? { stage } : {}),
      ...(cameFrom ? { cameFrom } : {}),
      ...(worked ? { known: true } : {}),
      movedIn: batch,
    }
    sifted.come.push(person)
    for (const email of emails) rows.set(email, { row, person })
  }
  return sifted
}
