import ICAL from 'ical.js'
import type { Person } from '../people/index.ts'
import { type Arrival, checkHowMany, NoPeople, type Unread } from './arrival.ts'

/** Cards of people (RFC 6350, and RFC 2426 before it), each read by itself: what can't be read of one keeps out no other. */
export function readCards(text: string): { arrivals: Arrival[]; unread: Unread[] } {
  const cards = text.match(/^BEGIN:VCARD[ \t]*$[\s\S]*?^END:VCARD[ \t]*$/gim) ?? []
  if (cards.length === 0) throw new NoPeople('There is no card in this file: none begins with BEGIN:VCARD.')
  checkHowMany(cards.length, 'cards')
  const arrivals: Arrival[] = []
  const unread: Unread[] = []
  for (const [i, card] of cards.entries()) {
    try {
      arrivals.push(arrivalIn(card, i + 1))
    } catch (error) {
      unread.push({ row: i + 1, what: firstLine(card), why: (error as Error).message })
    }
  }
  return { arrivals, unread }
}

/** Texts whose semicolons divide nothing: written as \\; (RFC 2426, 4; allowed by RFC 6350, 3.4), they are read as they are. */
const PLAIN = /^(?:[^:;]*\.)?(?:FN|EMAIL|TEL|NOTE|CATEGORIES|PRONOUNS)[;:]/i

/** The lines of a card, unfolded, as the library reads them. */
const linesOf = (card: string): string =>
  card
    .replaceAll(/\r?\n[ \t]/g, '')
    .split(/\r?\n/)
    .map((line) =>
      PLAIN.test(line) ? line.replaceAll(/\\\\|\\;/g, (pair) => pair.replace(/^\\;$/, ';')) : line,
    )
    .join('\r\n')

/** A number as it is written: of an address of the kind tel: without what belongs to it (RFC 3966). */
const phoneIn = (value: string): string =>
  /^tel:/i.test(value) ? value.slice('tel:'.length).replace(/;.*$/, '') : value

const firstLine = (card: string): string => /^FN[^:]*:(.*)$/im.exec(card)?.[1]?.trim().slice(0, 80) ?? ''

function arrivalIn(card: string, row: number): Arrival {
  if (/^VERSION:2\.1/im.test(card))
    throw new Error('It is of version 2.1; let the program that made it write version 3 or 4.')
  const component = new ICAL.Component(ICAL.parse(linesOf(card)) as unknown[])
  const texts = (name: string): string[] =>
    component
      .getAllProperties(name)
      .flatMap((property) => property.getValues().map((value) => String(value).trim()))
      .filter(Boolean)
  const [named] = component.getAllProperties('n').map((property) => property.getFirstValue() as unknown)
  const parts = Array.isArray(named) ? named : []
  return {
    row,
    name: texts('fn')[0] ?? [parts[1], parts[0]].flat().filter(Boolean).join(' '),
    emails: texts('email').map((email) => email.replace(/^mailto:/i, '')),
    phone: phoneIn(texts('tel')[0] ?? ''),
    pronouns: texts('pronouns')[0] ?? '',
    birthday: texts('bday')[0] ?? '',
    stage: '',
    cameFrom: '',
    tags: texts('categories'),
    note: texts('note').join('\n'),
  }
}

/** Somebody as a card of version 4 (RFC 6350; pronouns by RFC 9554). What the practitioner keeps for themselves stays out. */
export function cardOf({ name, emails, phone, pronouns, birthday }: Person): string {
  const card = new ICAL.Component('vcard')
  const add = (property: string, value: string | undefined): void => {
    if (value) card.addPropertyWithValue(property, value)
  }
  add('version', '4.0')
  add('kind', 'individual')
  add('fn', name)
  for (const email of emails) add('email', email)
  if (phone) {
    const tel = new ICAL.Property('tel', card)
    tel.resetType('text')
    tel.setValue(phone)
    card.addProperty(tel)
  }
  add('pronouns', pronouns)
  if (birthday) {
    const bday = new ICAL.Property('bday', card)
    bday.setValue(ICAL.VCardTime.fromDateAndOrTimeString(birthday, 'date-and-or-time'))
    card.addProperty(bday)
  }
  return `${card.toString()}\r\n`
}
