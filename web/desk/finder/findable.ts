import type { Practice } from '@acolhida/core/practice'
import type { LocalDate } from '@acolhida/core/time'
import { wordsOf } from '../data/rows.ts'
import { PRACTICE_PARTS } from '../parts/practice-parts.ts'
import { SHOWN, WHAT } from '../service/what.ts'
import { whenFields } from '../service/when.ts'
import { whomFields } from '../service/whom.ts'
import { COUNTS } from '../settings/counting.ts'
import { MUCH, WORD } from '../settings/limits.ts'
import { AFTER, LATE, MOVING, MY_SIDE } from '../settings/rules.ts'
import { FILLING } from '../waiting/fill-settings.ts'

/** Something that can be found by its words, and where it is. */
export interface Findable {
  /** What it is called. */
  name: string
  /** What it belongs to. */
  of: string
  to: string
}

const PLACES: readonly Findable[] = [
  { name: 'Today', of: 'what awaits your answer, and the day', to: '/' },
  { name: 'Arrivals', of: 'requests, bookings and messages', to: '/arrivals' },
  { name: 'Diary', of: 'what is booked and what is open', to: '/diary' },
  { name: 'Waiting', of: 'who waits for a time, and freed times', to: '/waiting' },
  { name: 'People', of: 'everybody who has asked for your time', to: '/people' },
  { name: 'My practice', of: 'all that your door goes by', to: '/practice' },
]

/** What one does, by the words one would look for it with. */
const DOINGS: readonly Findable[] = [
  { name: 'Cards, paying by card, the till', of: 'Money', to: '/money' },
  { name: 'Invoices, tax, VAT, registration number', of: 'Money', to: '/money' },
  { name: 'Money: what is open, ledger, bank statement, account number', of: 'Money', to: '/money' },
  { name: 'The record of everything, export', of: 'Arrivals', to: '/record' },
  { name: 'I can’t today', of: 'Today', to: '/' },
  { name: 'Add or invite somebody', of: 'People', to: '/people' },
  { name: 'Move people in: CSV, vCard, contacts', of: 'People', to: '/people/move-in' },
  { name: 'Plan ahead, several sessions at once', of: 'People', to: '/people' },
  { name: 'Getting ready: who has done what, ask again', of: 'People', to: '/people/preparing' },
  {
    name: 'Letters, forms and questionnaires before a session',
    of: 'What clients prepare',
    to: '/preparations',
  },
  { name: 'Programmes, packages, instalments, prepaid sessions', of: 'Paths', to: '/paths' },
  { name: 'Book somebody in', of: 'Diary', to: '/diary' },
  { name: 'Keep time for myself', of: 'Diary', to: '/diary' },
  { name: 'Put somebody in line, waitlist', of: 'Waiting', to: '/waiting' },
  { name: 'Time away, vacation, public holidays', of: 'Hours', to: '/hours' },
  { name: 'A day with other hours', of: 'Hours', to: '/hours' },
  { name: 'Save a backup, restore one', of: 'This desk', to: '/desk' },
  { name: 'Pair this desk with a relay', of: 'This desk', to: '/desk' },
  { name: 'Make a code for another browser', of: 'This desk', to: '/desk' },
  { name: 'The first steps', of: 'My practice', to: '/first/hours' },
  { name: 'QR code, link for mails', of: 'Hand out the link', to: '/hand-out' },
  { name: 'Close or open my door', of: 'Who I am', to: '/profile' },
]

/** Settings that have no descriptor of their own, by the page they are on. */
const LABELS: readonly [page: string, labels: readonly string[]][] = [
  [
    '/profile',
    ['Name', 'Greeting', 'Time zone', 'Weeks begin on', 'Currency', 'Mail address for answers', 'Phone'],
  ],
  [
    '/limits',
    ['Between two sessions', 'The coming week closes', ...[...MUCH, ...WORD].map(({ label }) => label)],
  ],
  [
    '/rules',
    [
      'What cancelling costs',
      'Forgiving, exceptions, no-shows',
      ...[...AFTER, ...MOVING, ...LATE, ...MY_SIDE, ...COUNTS].map(({ label }) => label),
    ],
  ],
  ['/places', ['The address of a place', 'How far I travel, postal codes, surcharge', 'Who calls']],
]

/** Everything of a practice that can be found, the most general first. */
export function findables(practice: Practice, today: LocalDate): Findable[] {
  const pages = PRACTICE_PARTS.map(({ to, name, now }) => ({ name, of: now(practice, today), to }))
  const nameOf = new Map(PRACTICE_PARTS.map(({ to, name }) => [to, name]))
  return [
    ...PLACES,
    ...pages,
    ...DOINGS,
    ...practice.services.map(({ id, name }) => ({ name, of: 'a service', to: `/services/${id}` })),
    ...practice.questionnaires.map(({ id, name }) => ({ name, of: 'questions', to: `/questions/${id}` })),
    ...LABELS.flatMap(([to, labels]) =>
      labels.map((name) => ({ name, of: nameOf.get(to) ?? '', to: `${to}?set=${encodeURIComponent(name)}` })),
    ),
    ...practice.services.flatMap((service) =>
      [...WHAT, ...SHOWN, ...whenFields(today), ...FILLING, ...whomFields(practice)]
        .filter((setting) => !setting.show || setting.show(service))
        .map(({ label, path }) => ({
          name: label,
          of: service.name,
          to: `/services/${service.id}?set=${encodeURIComponent(path ?? label)}`,
        })),
    ),
  ]
}

/** Those of which every typed word begins a word, at most so many; where it begins the name, first. */
export function found(all: readonly Findable[], typed: string, most: number): Findable[] {
  const looked = wordsOf(typed)
  if (looked.length === 0) return []
  const within = (words: readonly string[]): boolean =>
    looked.every((word) => words.some((other) => other.startsWith(word)))
  const hits = all.filter(({ name, of }) => within(wordsOf(name, of)))
  const byName = new Set(hits.filter(({ name }) => within(wordsOf(name))))
  return [...byName, ...hits.filter((hit) => !byName.has(hit))].slice(0, most)
}
