import type { DeskDoes } from '@acolhida/core/booking'
import type { MailNews, RecordPage } from '@acolhida/core/contract'
import { type StepPlan, stepsOf } from '@acolhida/core/messages'
import type { Practice, SequenceStep } from '@acolhida/core/practice'
import { DAY, duration, type Instant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { afterEach, beforeEach } from 'vitest'
import { bookingOf } from './inside.ts'
import { ask, BEGINNING, freshKey, startRelay, type TestRelay } from './setup.ts'

export const step = (id: string, change: Partial<SequenceStep> = {}): SequenceStep => ({
  ...{ id, anchor: 'start', before: true, by: duration('PT24H'), channel: 'email', text: 'remind' },
  ...change,
})
export const STEPS = [
  step('day-before'),
  step('by-text', { by: duration('PT4H'), channel: 'text', text: 'short' }),
  step('follow-up', { anchor: 'end', before: false, by: duration('PT2H'), text: 'thanks' }),
  step('chase', { anchor: 'quoted', before: false, by: duration('PT24H'), text: 'still', channel: 'text' }),
  step('think', { anchor: 'quoted', before: false, by: duration('PT30H'), text: 'still', draft: true }),
]
const spoken = (practice: Practice): Practice => ({
  ...practice,
  languages: ['pt'],
  translated: {
    pt: {
      'service/voice-assessment/name': { text: 'Avaliação da voz', of: 'Voice assessment' },
      'text/remind/body': { text: 'É em {when}.', of: 'It is on {when}. {coming}' },
    },
  },
  sequences: [{ id: 'q', name: 'Q', steps: STEPS }],
  texts: [
    { id: 'remind', name: 'Reminder', subject: 'Soon: {service}', body: 'It is on {when}. {coming}' },
    { id: 'short', name: 'Text', body: '{service} at {time}' },
    { id: 'still', name: 'Still there', body: '{firstName}, it still stands: {link}' },
    { id: 'thanks', name: 'Thanks', subject: 'Thank you', body: 'Thank you, {firstName}.' },
  ],
  services: practice.services.map((service) => ({ ...service, sequence: 'q' })),
})
const demo = (at: Instant) => {
  const backup = demoBackup(at)
  // Tomé has given his number.
  const bookings = backup.bookings.map((one) => ({
    ...one,
    events: one.events.map((event) =>
      one.id === 'asks-tome' && event.type === 'asked'
        ? { ...event, person: { ...event.person, phone: '+351 912 345 678' } }
        : event,
    ),
  }))
  return { ...backup, bookings, practice: spoken(backup.practice) }
}

export const TOME = 'asks-tome'
export const BY_HAND = 'by-hand-0123456789abcdef'

/**
 * A relay that sends messages: with a sequence, texts, a second language and a gateway. For each test a fresh one; what
 * is done with it goes by the one there is then.
 */
export function sendingHouse() {
  let house: TestRelay
  beforeEach(async () => {
    house = await startRelay({ demo, withTexts: true })
  })
  afterEach(() => house.close())
  const booking = () => bookingOf(house.relay, TOME)
  return {
    get house(): TestRelay {
      return house
    },
    /** Whom the messages are about, who has given a phone number. */
    booking,
    command: (does: DeskDoes) =>
      ask(
        `${house.desk}/api/command`,
        { booking: TOME, command: does },
        { bearer: house.key, key: freshKey() },
      ),
    /** What the desk has been told of messages. */
    record: async (): Promise<MailNews[]> => {
      const { body } = await ask<RecordPage>(`${house.desk}/api/record?after=0`, undefined, {
        bearer: house.key,
      })
      return body.items.flatMap((item) => (item.kind === 'mail' ? [item.body] : []))
    },
    /** Moves the clock to a moment, and lets everything due until then be done. */
    goTo: async (at: number): Promise<void> => {
      house.clock.forward(at - house.clock.now())
      await house.relay.rounds.turn()
    },
    planned: (id: string): StepPlan =>
      stepsOf(booking(), house.relay.here.keeper.house.practice!).find((one) => one.step.id === id)!,
    mails: () => house.mailbox.received.filter(({ to }) => to.includes('tome.arrais')),
    byHand: (change: object = {}, person: object = {}) =>
      ask<{ code?: string }>(
        `${house.desk}/api/enter`,
        {
          ...{ id: BY_HAND, service: 'voice-assessment', place: 'studio', minutes: 60, clash: true },
          start: BEGINNING + 9 * DAY,
          person: { name: 'Nadia Kern', email: 'nadia@example.org', zone: 'Europe/Lisbon', ...person },
          ...change,
        },
        { bearer: house.key, key: freshKey() },
      ),
  }
}
