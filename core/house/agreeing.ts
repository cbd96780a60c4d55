import { agreementsIn, type Booking, type InForce, lackingIn, mustAgree } from '../booking/index.ts'
import type { AgreedVersion, DoorTerms, ToldAgreement } from '../contract/types.ts'
import type { KnownPerson } from '../people/index.ts'
import { type Practice, type Service, serviceOf, termsInForce, termsValues } from '../practice/index.ts'
import { personBehind, Refused } from '../request/index.ts'
import {
  type Agreement,
  agree,
  chainHead,
  type ShownTerms,
  shownTerms,
  versionFingerprint,
} from '../terms/index.ts'
import type { Instant } from '../time/index.ts'
import type { Work } from './act.ts'
import { type House, published } from './house.ts'

/** What whoever comes must agree to before they can ask for a service. */
export const termsOf = (house: House, service: Service, visitor: KnownPerson | undefined): InForce[] =>
  mustAgree(termsInForce(published(house).practice, service), visitor?.agreed ?? {})

/** A version as the door shows it to whoever books a service. */
export function doorTerms(practice: Practice, service: Service, { id, version }: InForce): DoorTerms {
  return {
    id,
    number: version.number,
    title: version.title,
    shown: shownTerms(version, termsValues(practice, service)),
    fingerprint: versionFingerprint(id, version),
  }
}

/** Makes sure that just what is in force has been agreed to. @throws Refused naming what has not */
export function checkAgreed(wanted: readonly InForce[], agreed: readonly AgreedVersion[]): void {
  for (const { id, version } of wanted) {
    const given = agreed.find(({ terms }) => terms === id)
    if (!given) throw new Refused(422, 'not-agreed', { data: { title: version.title }, where: 'agreed' })
    if (given.number !== version.number || given.fingerprint !== versionFingerprint(id, version))
      throw new Refused(409, 'terms-changed', { data: { title: version.title }, where: 'agreed' })
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
    const agreement = agree(terms, { name, service: service.id, at: work.now, values }, head)
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

/** What a booking says was agreed to, each with the text as it was shown where that can still be told. */
export function toldAgreements(practice: Practice, booking: Booking): ToldAgreement[] {
  return agreementsIn(booking).map((agreement) => {
    const { terms, version: number, fields, at, name } = agreement
    const version = practice.terms
      .find(({ id }) => id === terms)
      ?.versions.find((one) => one.number === number)
    const shown: ShownTerms | undefined = version && fields ? shownTerms(version, fields) : undefined
    return {
      title: version?.title ?? terms,
      number,
      at,
      name,
      fingerprint: agreement.fingerprint,
      print: chainHead(agreement),
      ...(shown === undefined ? {} : { shown }),
    }
  })
}
