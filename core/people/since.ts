import { canonicalJson } from '../terms/index.ts'
import type { Person } from './person.ts'

const FIELDS = (...people: Person[]): (keyof Person)[] =>
  [...new Set(people.flatMap(Object.keys))] as (keyof Person)[]
const same = (a: unknown, b: unknown): boolean =>
  a === b || (a !== undefined && b !== undefined && canonicalJson(a) === canonicalJson(b))

/**
 * What was changed about somebody on a page that showed them as they were, put on how they are by now: each part that was
 * changed there is as it was left there, each other as it is now. So nothing is lost that came while the page was open.
 * @param seen as the page showed them
 * @param wanted as they are to be by it
 * @param now as they are kept
 */
export function changedSince(seen: Person, wanted: Person, now: Person): Person {
  const from = (key: keyof Person): Person => (same(seen[key], wanted[key]) ? now : wanted)
  const entries = FIELDS(seen, wanted, now).flatMap((key) => {
    const value = from(key)[key]
    return value === undefined ? [] : [[key, value]]
  })
  return Object.fromEntries(entries)
}
