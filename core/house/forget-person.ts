import { isToCome, stateAt } from '../booking/index.ts'
import type { ForgetBody } from '../contract/desk-types.ts'
import { mailHash } from '../people/index.ts'
import { pathGoesOn } from '../preparing/index.ts'
import { Refused } from '../request/index.ts'
import { isInLine, lineAt } from '../waiting/index.ts'
import { published } from './house.ts'
import type { Work } from './work.ts'

/**
 * Forgets people, who are named by the hashes of their addresses: everything of theirs that began before they were
 * forgotten goes, each subject whole. The head of the chain of agreements stays, so what others agreed to still verifies.
 * @throws Refused while something of theirs is open
 */
export function forgetPeople({ house, now, changes }: Work, { people }: ForgetBody): { forgot: number } {
  const { salt } = published(house)
  const before = new Map(people.flatMap((one) => one.hashes.map((hash) => [hash, one.before] as const)))
  const theirs = (email: string, at: number): boolean => at < (before.get(mailHash(email, salt)) ?? 0)
  let open = 0
  for (const booking of house.openBookings()) {
    const { person, at } = booking.asked
    if (theirs(person.email, at) && isToCome(stateAt(booking, now))) open++
  }
  for (const line of house.inLine()) {
    const { person, at } = line.joined
    if (theirs(person.email, at) && isInLine(lineAt(line, now))) open++
  }
  for (const course of house.courses()) {
    const { person, at } = course.given
    if (theirs(person.email, at) && pathGoesOn(course, (id) => house.booking(id), now)) open++
  }
  if (open > 0) throw new Refused(409, 'forget-open', { data: { many: open } })
  const subjects = house.subjectsOf(theirs)
  for (const subject of subjects) changes.push({ type: 'forget', subject })
  return { forgot: subjects.length }
}
