import type { Booking } from '@acolhida/core/booking'
import type { DoorOpenings, DoorView, SendBody } from '@acolhida/core/door'
import { versionFingerprint } from '@acolhida/core/terms'
import type { Store } from '../store/store.ts'
import { ANSWERS, type Answer, ask, freshKey, freshVisit, wanted } from './setup.ts'

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
  const service = view.services.find((one) => one.id === 'voice-assessment') ?? view.services[0]!
  return {
    visit: freshVisit(),
    clock: view.now,
    service: 'voice-assessment',
    place: 'studio',
    start,
    answers: ANSWERS,
    person: { name: 'Elske Vos', email: `elske.${freshVisit()}@example.org`, zone: 'Europe/Amsterdam' },
    agreed: service.terms.map(({ id, number, fingerprint }) => ({ terms: id, number, fingerprint })),
    ...change,
  }
}

export const sendIt = (
  door: string,
  slug: string,
  body: unknown,
  key = freshKey(),
): Promise<Answer<{ link: string }>> => ask(`${door}/api/door/${slug}/send`, body, { key })

/** Asks for what is wanted as a newcomer, and gives the booking. @throws Error with the relay's sentence */
export async function newCalled(
  house: { door: string; slug: string; relay: { store: Store } },
  wanted: object,
): Promise<Booking> {
  const body = await request(house.door, house.slug, 0, wanted)
  const terms = house.relay.store.package!.practice.terms
  const agreed = terms.map(({ id, versions }) => {
    const version = versions.at(-1)!
    return { terms: id, number: version.number, fingerprint: versionFingerprint(id, version) }
  })
  const { status, body: answer } = await sendIt(house.door, house.slug, { ...body, agreed })
  if (status !== 201) throw new Error(answer.message)
  const { booking } = house.relay.store.link(answer.link)!
  return house.relay.store.booking(booking)!
}
