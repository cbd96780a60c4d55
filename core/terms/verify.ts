import { agreedText, chainHead, versionFingerprint } from './agreement.ts'
import { fingerprint } from './fingerprint.ts'
import type { Agreement, Terms } from './types.ts'

/** What does not fit about an agreement. */
export interface AgreementFault {
  /** Its place in the list given. */
  index: number
  /**
   * - `text`: the version it names does not read as it did
   * - `shown`: what it says was filled in does not give the text that was shown
   * - `version`: the version it names is not there
   * - `previous`: no agreement here is the one it follows: that one, or this, has been changed, or is missing
   * - `twice`: it follows the same agreement as another
   * - `number`: the chain does not end with the number given
   */
  what: 'text' | 'shown' | 'version' | 'previous' | 'twice' | 'number'
  /** For `previous`: the last agreement before it that is followed from the first on; -1 when there is none. */
  after?: number
}

/** An agreement of somebody who was forgotten: its number, and the one before it, and nothing else. */
export interface Forgotten {
  print: string
  previous: string
}

/** What came of following all agreements. */
export interface Verified {
  /** The number of the last in the chain; empty without any. */
  head: string
  /** How many in the chain are of people who were forgotten: they hold by their numbers alone. */
  forgotten: number
  faults: AgreementFault[]
}

/**
 * Proves a list of agreements against the texts they name and one another, in whatever order it comes. Whoever has
 * changed a byte of one has changed its number, which the next one holds.
 * @param gone the numbers of those whose people were forgotten
 * @param number what was at the end of a confirmation; without it a missing end stays unnoticed
 */
export function verifyAgreements(
  terms: readonly Terms[],
  agreements: readonly Agreement[],
  number?: string,
  gone: readonly Forgotten[] = [],
): Verified {
  const faults: AgreementFault[] = []
  const followers = new Map<string, number[]>()
  for (const [index, agreement] of agreements.entries()) {
    const { version, shown } = agreedText(terms, agreement)
    if (!version) faults.push({ index, what: 'version' })
    else if (versionFingerprint(agreement.terms, version) !== agreement.fingerprint)
      faults.push({ index, what: 'text' })
    else if (shown !== undefined && fingerprint(shown) !== agreement.shown)
      faults.push({ index, what: 'shown' })
    followers.set(agreement.previous, [...(followers.get(agreement.previous) ?? []), index])
  }
  gone.forEach(({ previous }, i) => {
    followers.set(previous, [...(followers.get(previous) ?? []), agreements.length + i])
  })
  const numbers = [...agreements.map(chainHead), ...gone.map(({ print }) => print)]
  const followed = new Set<number>()
  let [head, last] = ['', -1]
  for (;;) {
    const [next, ...others] = followers.get(head) ?? []
    if (next === undefined || followed.has(next)) break
    for (const index of others) faults.push({ index, what: 'twice' })
    followed.add(next)
    for (const index of others) followed.add(index)
    head = numbers[next]!
    last = next
  }
  const known = new Set(numbers)
  for (const [index, { previous }] of agreements.entries())
    if (!followed.has(index) && !known.has(previous)) faults.push({ index, what: 'previous', after: last })
  if (number !== undefined && !known.has(number)) faults.push({ index: last, what: 'number' })
  return { head, forgotten: gone.length, faults: faults.sort((a, b) => a.index - b.index) }
}
