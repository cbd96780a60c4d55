import type { DoorOpenings, DoorView, SendBody } from '@acolhida/core/door'
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
  const service = view.services.find((one) => one.id === 'voice-assessment')!
  return {
    visit: freshVisit(),
    clock: view.now,
    service: service.id,
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
