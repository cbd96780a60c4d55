import type { Booking } from '@acolhida/core/booking'
import type { DoorOpenings, DoorView, Kept, SendBody } from '@acolhida/core/contract'
import { sha256Hex, versionFingerprint } from '@acolhida/core/terms'
import { instant } from '@acolhida/core/time'
import type { Relay } from '../relay.ts'
import { bookingOf, linkTo, packOf, shownTo } from './inside.ts'
import { ANSWERS, type Answer, ask, freshKey, freshVisit, relays, wanted } from './setup.ts'

/** What a client's page does to ask for a time, without a page. */
export async function openStartsOf(door: string, slug: string): Promise<number[]> {
  const { body } = await ask<DoorOpenings>(`${door}/api/door/${slug}/openings`, { ...wanted(), days: 62 })
  return body.starts
}

/** A whole request for a start, ready to be sent; `change` bends it. */
export async function request(
  door: string,
  slug: string,
  start: number,
  change: Partial<SendBody> = {},
): Promise<SendBody> {
  const { body: view } = await ask<DoorView>(`${door}/api/door/${slug}`)
  const service = view.services.find((service) => service.id === 'voice-assessment') ?? view.services[0]!
  const body: Omit<SendBody, 'shown'> = {
    visit: freshVisit(),
    clock: view.now,
    service: 'voice-assessment',
    place: 'studio',
    start: instant(start),
    answers: ANSWERS,
    person: { name: 'Elske Vos', email: `elske.${freshVisit()}@example.org`, zone: 'Europe/Amsterdam' },
    agreed: service.terms.map(({ id, number, fingerprint }) => ({ terms: id, number, fingerprint })),
    ...change,
  }
  if (change.shown !== undefined) return { ...body, shown: change.shown }
  const relay = relays.get(door)
  if (relay) return { ...body, shown: shownTo(relay, body) }
  const { visit, service: id, place, answers } = body
  const { body: kept } = await ask<Kept>(`${door}/api/door/${slug}/keep`, {
    visit,
    service: id,
    place,
    start,
    answers,
  })
  return { ...body, shown: kept.shown ?? '0'.repeat(64) }
}

/** Opens the link that was mailed for the newest booking of an address. */
export async function prove(house: { door: string; relay: Relay }, booking: string): Promise<void> {
  const secret = linkTo(house.relay, booking)
  await ask(`${house.door}/api/link/${secret}/prove`, {}, { key: freshKey() })
}

/** The booking behind the link that a page was given. */
export function behind(relay: Relay, secret: string): Booking {
  const link = relay.here.keeper.house.link(sha256Hex(secret))!
  return bookingOf(relay, link.subject.id)
}

export const sendIt = (
  door: string,
  slug: string,
  body: unknown,
  key = freshKey(),
): Promise<Answer<{ link: string }>> => ask(`${door}/api/door/${slug}/send`, body, { key })

/** Asks for what is wanted as a newcomer whose address proves true, and gives the booking. @throws Error with the relay's sentence */
export async function newCalled(
  house: { door: string; slug: string; relay: Relay },
  wanted: Partial<SendBody>,
): Promise<Booking> {
  const terms = packOf(house.relay).practice.terms
  const agreed = terms.map(({ id, versions }) => {
    const version = versions.at(-1)!
    return { terms: id, number: version.number, fingerprint: versionFingerprint(id, version) }
  })
  const body = await request(house.door, house.slug, wanted.start ?? 0, { agreed, ...wanted })
  const { status, body: answer } = await sendIt(house.door, house.slug, body)
  if (status !== 201) throw new Error(answer.message)
  const { id } = behind(house.relay, answer.link)
  await prove(house, id)
  return bookingOf(house.relay, id)
}
