import { agreementsIn, type Booking, type InForce, lackingIn, mustAgree } from '../booking/index.ts'
import type { AgreedVersion, DoorTerms, ToldAgreement } from '../contract/types.ts'
import type { KnownPerson } from '../people/index.ts'
import {
  ownLanguage,
  type Practice,
  type Service,
  serviceOf,
  termsInForce,
  termsValues,
} from '../practice/index.ts'
import { personBehind, Refused } from '../request/index.ts'
import {
  type Agreement,
  agree,
  agreedText,
  chainHead,
  shownTerms,
  type TermsVersion,
  textIn,
  versionFingerprint,
} from '../terms/index.ts'
import { type Instant, inForce, type Language } from '../time/index.ts'
import { type House, published } from './house.ts'
import type { Work } from './work.ts'

/** What whoever comes must agree to before they can ask for a service. */
export const termsOf = (house: House, service: Service, visitor: KnownPerson | undefined): InForce[] =>
  mustAgree(termsInForce(published(house).practice, service), visitor?.agreed ?? {})

/** The language a version is read in just now: the one spoken, where it is there in it. */
const readIn = (practice: Practice, version: TermsVersion): Language =>
  version.also?.[inForce()] ? inForce() : ownLanguage(practice)

/** A version as the door shows it to whoever books a service. */
export function doorTerms(practice: Practice, service: Service, { id, version }: InForce): DoorTerms {
  const language = readIn(practice, version)
  const text = textIn(version, language)
  return {
    id,
    number: version.number,
    title: text.title,
    language,
    shown: shownTerms(text, termsValues(practice, service)),
    fingerprint: versionFingerprint(id, version),
  }
}

/** Makes sure that just what is in force has been agreed to, as it was shown. @throws Refused naming what has not */
export function checkAgreed(
  practice: Practice,
  wanted: readonly InForce[],
  agreed: readonly AgreedVersion[],
): void {
  for (const { id, version } of wanted) {
    const given = agreed.find(({ terms }) => terms === id)
    const language = readIn(practice, version)
    const problem = { data: { title: textIn(version, language).title }, where: 'agreed' }
    if (!given) throw new Refused(422, 'not-agreed', problem)
    const same = given.number === version.number && given.fingerprint === versionFingerprint(id, version)
    // Another language may have come since it was read.
    if (!same || (given.language ?? ownLanguage(practice)) !== language)
      throw new Refused(409, 'terms-changed', problem)
  }
}

/** What is agreed to, as the next links of the one chain. */
export function agreeNow(
  work: Work,
  service: Service,
  wanted: readonly InForce[],
  name: string,
): Agreement[] {
  const values = termsValues(published(work.house).practice, service)
  let head = work.house.chain
  const chain = wanted.map((terms) => {
    const by = { name, service: service.id, at: work.now, values, language: inForce() }
    const agreement = agree(terms, by, head)
    head = chainHead(agreement)
    return agreement
  })
  if (chain.length > 0) work.changes.push({ type: 'chain', head })
  return chain
}

/** What is still to be agreed to before a session takes place. */
export function lackingOf(house: House, booking: Booking, now: Instant): InForce[] {
  const { practice, people, salt } = published(house)
  const known = personBehind({ people, salt }, booking.asked.person.email)?.agreed ?? {}
  return lackingIn(practice, booking, known, now)
}

/** As the holder of the link reads what they are still to agree to. */
export function doorLacking(house: House, booking: Booking, now: Instant): DoorTerms[] {
  const { practice } = published(house)
  const service = serviceOf(practice, booking.service)
  return service ? lackingOf(house, booking, now).map((terms) => doorTerms(practice, service, terms)) : []
}

/** An agreement as whoever made it is told of it, with the text as it was shown where that can still be told. */
export function toldAgreement(practice: Practice, agreement: Agreement): ToldAgreement {
  const { terms, version: number, at, name, fingerprint } = agreement
  const { title = terms, shown } = agreedText(practice.terms, agreement)
  return {
    ...{ title, number, at, name, fingerprint, print: chainHead(agreement) },
    ...(shown === undefined ? {} : { shown }),
  }
}

/** What was agreed to with a booking after it was asked for: by whoever comes, where they agree themselves. */
export const toldSince = (practice: Practice, { agreed = [] }: Booking): ToldAgreement[] =>
  agreed.map((agreement) => toldAgreement(practice, agreement))

/** What a booking says was agreed to. */
export const toldAgreements = (practice: Practice, booking: Booking): ToldAgreement[] =>
  agreementsIn(booking).map((agreement) => toldAgreement(practice, agreement))
