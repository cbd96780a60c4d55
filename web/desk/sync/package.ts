import type { DoorPackage } from '@acolhida/core/contract'
import { tellingOf } from '@acolhida/core/people'
import { forDoor } from '@acolhida/core/practice'
import { fingerprint } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'
import { publicHalf } from '../../seal/open.ts'
import type { DeskDatabase } from '../data/database.ts'

/** What the desk would publish, without its revision. */
export type Unpublished = Omit<DoorPackage, 'revision'>

/** What of the desk's data the door's package is made of. */
export const MADE_OF = ['practice', 'people', 'sessions'] as const

/** What the package has come to. */
export interface Packed {
  print: string
  /** The package itself, where it differs from what was published. */
  next: Unpublished | undefined
  /** When somebody becomes known next, and it will be another; nothing when nobody will. */
  until: Instant | undefined
}

/** Makes what the door is to be told at `now`; nothing where there is no practice. @param published the print of what it shows */
export async function pack(db: DeskDatabase, published: string, now: Instant): Promise<Packed | undefined> {
  const [row, people, sessions, next] = await db.transaction(
    'r',
    [db.practice, db.people, db.sessions],
    async () =>
      Promise.all([
        db.practice.get('practice'),
        db.people.toArray(),
        db.sessions.toArray(),
        db.people.where('knownFrom').above(now).first(),
      ]),
  )
  if (!row) return undefined
  const { practice, salt, seal } = row
  const told = tellingOf(practice, salt, now)
  const found: Unpublished = {
    practice: forDoor(practice),
    sessions,
    people: people.map((person) =>
      told(person, {
        ...person,
        tags: person.allTags,
        counted: person.counted ?? [],
        agreed: person.agreed ?? {},
      }),
    ),
    salt,
    ...(seal ? { seal: publicHalf(seal) } : {}),
  }
  const print = fingerprint(found)
  return { print, next: print === published ? undefined : found, until: next?.knownFrom }
}
