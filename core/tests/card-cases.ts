import fc from 'fast-check'
import { cardOf, readCards } from '../move-in/vcard.ts'
import type { Person } from '../people/index.ts'
import { addDays, type LocalDate } from '../time/index.ts'

/** What a card says of somebody, as far as cards of versions 3 and 4 say it alike. */
export interface OnCard {
  name: string
  emails: string[]
  phone: string
  birthday: string
}
/** Somebody as another program writes them. */
export interface CardToWrite extends OnCard {
  note: string
  tags: string[]
}

/** Letters of several scripts, and whatever has a meaning of its own in a card. */
const letter = fc.constantFrom(...'abcdeéñßłçãЖ文ع😀 ,;:\\"\'()=^&|-.'.match(/./gu)!)
const text = (most: number) =>
  fc.string({ unit: letter, minLength: 1, maxLength: most }).map((one) => one.trim() || 'x')
const onCard = {
  name: text(120),
  emails: fc.uniqueArray(
    fc.nat(999).map((n) => `p${n}@example.org`),
    { minLength: 1, maxLength: 3 },
  ),
  phone: fc.constantFrom('+351 912 345 678', '(0)30/123-45', '0800;ext=7'),
  birthday: fc.nat(40_000).map((days): string => addDays('1920-01-01' as LocalDate, days)),
}
const sampled = <T>(arbitrary: fc.Arbitrary<T>, many: number): T[] =>
  fc.sample(arbitrary, { numRuns: many, seed: 2_026 })

/** People whose cards others read. */
export const cardsToRead = (many: number): OnCard[] => sampled(fc.record(onCard), many)

/** People whose cards others write. */
export const cardsToWrite = (many: number): CardToWrite[] =>
  sampled(
    fc.record({
      ...onCard,
      note: fc.array(text(60), { minLength: 1, maxLength: 4 }).map((lines) => lines.join('\n')),
      // One that ends with a backslash is taken by our library for one with the next.
      tags: fc.uniqueArray(
        text(20).filter((tag) => !tag.endsWith('\\')),
        { minLength: 1, maxLength: 3 },
      ),
    }),
    many,
  )

/** A card as we write it. */
export function ownCard({ birthday, ...of }: OnCard): string {
  const person: Person = { id: 'p', invited: [], blocked: false, note: '', ...of }
  return cardOf({ ...person, birthday: birthday as LocalDate })
}

/** What we read on a card. */
export function ownReading(card: string): CardToWrite | string {
  const { arrivals, unread } = readCards(card)
  const [one] = arrivals
  if (!one) return unread[0]?.why ?? 'nothing'
  const { name, emails, phone, birthday, note, tags } = one
  return { name, emails, phone, birthday, note, tags }
}
