import type { Subject } from '@acolhida/core/agenda'
import type { AgreedVersion } from '@acolhida/core/contract'
import type { Does, House } from '@acolhida/core/house'
import { type Practice, type Service, termsInForce } from '@acolhida/core/practice'
import { versionFingerprint } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'
import type { Seeded } from './seeded.ts'
import type { WrittenDown } from './written.ts'

/** Somebody of the scenario. */
export interface Invented {
  name: string
  email: string
  zone: string
  /** The private link of a booking of theirs, once they have one. */
  link?: string
  /** Works with the practitioner for longer. */
  coached: boolean
}

/** What the scenario gives to those who live in it. */
export interface Life {
  /** When one looks: nothing happens later. */
  now: Instant
  by: Seeded
  house(): House
  store: WrittenDown
  ids(): string
  /** Has something done later, unless that is after one looks. */
  plan(at: number, run: (at: Instant) => void): void
  /** Does something as it is done at the relay; nothing where it is refused, as clients are now and then. */
  do<B, A>(does: Does<B, A>, body: B, at: Instant, once?: boolean): A | undefined
  someoneNew(): Invented
}

/** The private link that goes with a mail about something. */
export const mailed =
  (subject: Subject): Does<string, undefined> =>
  (work, id) => {
    work.changes.push({ type: 'link', link: { id, subject, proves: true } })
    return undefined
  }

/** Agreement to all that a service has one agree to. */
export const agreedVersions = (practice: Practice, service: Service): AgreedVersion[] =>
  termsInForce(practice, service).map(({ id, version }) => ({
    terms: id,
    number: version.number,
    fingerprint: versionFingerprint(id, version),
  }))
