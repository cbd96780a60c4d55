import type { Asker } from '../openings/index.ts'
import { type KnownPerson, mailHash } from '../people/index.ts'
import { type Asking, newcomer } from '../questions/index.ts'

/**
 * Who a wish is read as. By whose hand it comes decides what must be there: a client answers everything and says how
 * far to travel; the practitioner may leave things open.
 */
export interface Who {
  by: 'client' | 'practitioner'
  asking: Asking
  /** The person's id, where they are known: some codes are theirs alone. */
  person?: string | undefined
}

/** How the rules look at a person; at a newcomer where nobody is known. */
export const askingOf = (
  person: Pick<KnownPerson, 'standing' | 'invited' | 'tags'> | undefined,
  service: string,
  attempts = 0,
): Asking =>
  person
    ? {
        standing: person.standing,
        invited: person.invited.includes(service),
        tags: person.tags ?? [],
        attempts,
      }
    : { ...newcomer, attempts }

/** How openings look at a person. */
export const askerFor = (person: KnownPerson): Asker => ({
  who: 'client',
  standing: person.standing,
  invited: person.invited,
  blocked: person.blocked,
})

/** The person behind a mail address, as far as the relay has been told. */
export function personBehind(
  { people, salt }: { people: readonly KnownPerson[]; salt: string },
  email: string,
): KnownPerson | undefined {
  return byHash(people).get(mailHash(email, salt))
}

const known = new WeakMap<readonly KnownPerson[], Map<string, KnownPerson>>()

/** Thousands of people are looked up by each request, and told anew only when the desk publishes. */
function byHash(people: readonly KnownPerson[]): Map<string, KnownPerson> {
  const before = known.get(people)
  if (before) return before
  const made = new Map<string, KnownPerson>()
  for (const person of people)
    for (const hash of person.mailHashes) if (!made.has(hash)) made.set(hash, person)
  known.set(people, made)
  return made
}
