import type { DeskDoes } from '@acolhida/core/booking'
import type { LinkView, MailNews, RecordPage } from '@acolhida/core/contract'
import type { PaymentLine, Practice } from '@acolhida/core/practice'
import { DAY, duration, instant, MINUTE, SECOND, time } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { expect, it } from 'vitest'
import { newCalled, openStartsOf, request, sendIt } from './client.ts'
import { bookingOf, linkTo } from './inside.ts'
import { RealHost } from './real-host.ts'
import { ANSWERS, ask, BEGINNING, freshKey, freshVisit, startRelay } from './setup.ts'

/** Everything that is sent by itself is wanted, so that it goes. */
const withAll = (practice: Practice): Practice => ({
  ...practice,
  languages: ['pt'],
  sequences: [
    {
      ...{ id: 'q', name: 'Q' },
      steps: [
        { ...{ id: 'before', anchor: 'start', before: true, by: duration('PT24H') }, ...BY_MAIL, asks: true },
        { ...{ id: 'pay', anchor: 'payment', before: true, by: duration('PT24H') }, ...BY_MAIL },
        { ...{ id: 'after', anchor: 'end', before: false, by: duration('PT1H') }, ...BY_MAIL },
      ],
    },
  ],
  texts: [{ id: 'said', name: 'Said', subject: 'Soon: {service}', body: 'Until {when}. {coming}' }],
  services: practice.services.map((service) => ({
    ...{ ...service, sequence: 'q', payment: service.id === 'voice-assessment' ? PAID : [] },
    before: { text: 'Please read a page aloud.', tick: true, by: duration('PT48H') },
  })),
  places: practice.places.map((place) => ({
    ...place,
    ...(place.id === 'studio' ? { told: 'last-reminder', address: 'Rua 1' } : {}),
  })),
  terms: [
    ...practice.terms,
    {
      id: 'waiver',
      separate: true,
      versions: [{ number: 1, title: 'A waiver', text: 'I come of my own will.' }],
    },
  ],
  messaging: {
    own: {
      alerts: { 'client-comes': { email: true } },
      digest: time('07:30'),
      before: [
        { by: duration('PT2H'), channel: 'email' },
        { by: duration('PT30M'), channel: 'email' },
      ],
    },
  },
})
const PAID: PaymentLine[] = [
  { id: 'all', much: { kind: 'rest' }, due: { kind: 'before', by: duration('PT72H') } },
]
/** All there are but the two about money that must come first, or goes back by itself: those need a till. */
const KINDS = [
  ...(['agree', 'asked', 'cancelled', 'client-cancelled', 'client-comes', 'client-moved'] as const),
  ...(['client-pleads', 'client-replied', 'confirmation', 'declined', 'digest', 'enquiry-answered'] as const),
  ...(['excepted', 'has-lapsed', 'invoice', 'lapsed', 'moved', 'new-request'] as const),
  ...(['not-confirmed', 'not-paid', 'not-prepared', 'offered', 'place', 'question'] as const),
  ...(['quote', 'running-late', 'session-soon', 'session-sooner', 'step:after', 'step:before'] as const),
  ...(['step:pay', 'withdrawn', 'word-due', 'written'] as const),
]
const BY_MAIL = { channel: 'email' as const, text: 'said' }

it.runIf(process.env.REAL_HOST)(
  'every kind of mail is taken by a mail server as practices have one, and shown once',
  {
    timeout: 300_000,
  },
  async () => {
    const host = new RealHost()
    const smtp = await host.start()
    const house = await startRelay({
      smtp,
      demo: (at) => {
        const backup = demoBackup(at)
        return { ...backup, practice: withAll(backup.practice) }
      },
    })
    try {
      const desk = (path: string, body: object) =>
        ask<{ code?: string }>(`${house.desk}/api/${path}`, body, { bearer: house.key, key: freshKey() })
      const done = async (booking: string, command: DeskDoes): Promise<void> => {
        const { status, body } = await desk('command', { booking, command })
        expect([command.do, status, body.code]).toEqual([command.do, 200, undefined])
        await on(10 * SECOND)
      }
      const through = async (booking: string, act: string, body: object = {}): Promise<void> => {
        const link = `${house.door}/api/link/${linkTo(house.relay, booking)}`
        const { body: view } = await ask<LinkView>(link)
        const shown = act === 'cancel' || act === 'move' ? { shown: view.shown } : {}
        const answer = await ask(`${link}/${act}`, { ...shown, ...body }, { key: freshKey() })
        expect([act, answer.status, answer.body.code]).toEqual([act, 200, undefined])
        await on(10 * SECOND)
      }
      const on = async (ms: number): Promise<void> => {
        house.clock.forward(ms)
        await house.relay.rounds.turn()
      }
      const starts = (await openStartsOf(house.door, house.slug)).filter(
        (start) => start > BEGINNING + 6 * DAY,
      )
      const next = (): { start: ReturnType<typeof instant> } => {
        const start = starts.splice(0, 8)[0]!
        return { start: instant(start) }
      }
      const called = async (name: string) => {
        const { id } = await newCalled(house, {
          ...next(),
          person: { name, email: `${freshVisit()}@example.org`, zone: 'Europe/Lisbon', language: 'pt' },
        })
        await on(10 * SECOND)
        return id
      }
      // At the door, and answered in every way.
      const unproved = await request(house.door, house.slug, next().start)
      await sendIt(house.door, house.slug, unproved)
      await on(10 * SECOND)
      const kept = await called('Ama')
      await done(kept, { do: 'ask', text: 'Since when?' })
      await through(kept, 'reply', { text: 'Since May.' })
      await done(kept, { do: 'welcome', text: 'Olá 🎻' })
      await done(await called('Bo'), { do: 'decline', text: 'I can’t.' })
      const offered = await called('Cai')
      await done(offered, { do: 'offer', text: '', starts: [{ ...next(), place: 'studio' }] })
      await through(await called('Dov'), 'withdraw')
      await called('Eef')
      for (const id of [kept]) {
        await done(id, { do: 'move', ...next(), place: 'studio', minutes: 75, text: '', clash: true })
        await done(id, { do: 'write', channel: 'email', subject: 'مرحبا', text: 'A <b>word</b>: {link}' })
        await through(id, 'plead', { text: 'May I?' })
        await done(id, { do: 'except', granted: true, text: 'Yes.' })
        await done(id, { do: 'sign', terms: ['waiver'] })
        await through(id, 'come')
      }
      const theirs = await called('Fia')
      await done(theirs, { do: 'welcome' })
      await through(theirs, 'move', { ...next(), place: 'studio' })
      await through(theirs, 'cancel', { text: 'Ill.' })
      const ours = await called('Gus')
      await done(ours, { do: 'welcome' })
      await done(ours, { do: 'pay', amount: 9_500, way: 'transfer' })
      await done(ours, { do: 'invoice' })
      await done(ours, { do: 'cancel', by: 'practitioner', text: 'I am ill.' })
      await done(ours, { do: 'give-back', amount: 9_500, way: 'transfer' })
      await desk('quote', {
        ...{ enquiry: 'on-the-phone', service: 'voice-assessment', answers: ANSWERS, text: 'So.' },
        person: { name: 'Hal', email: 'hal@example.org', zone: 'Europe/Lisbon' },
        until: house.clock.now() + 2 * DAY,
      })
      await desk('enquiry', { enquiry: 'on-the-phone', text: 'Gladly.' })
      await on(10 * SECOND)
      // And on, until everything that comes by itself has come.
      const { start } = bookingOf(house.relay, kept)
      for (let at = house.clock.now(); at < start - 10 * MINUTE; at = house.clock.now())
        await on(Math.min(20 * MINUTE, start - 10 * MINUTE - at))
      await done(kept, { do: 'run-late', minutes: 10 })
      for (let i = 0; i < 24; i++) await on(20 * MINUTE)

      const { body } = await ask<RecordPage>(`${house.desk}/api/record?after=0`, undefined, {
        bearer: house.key,
      })
      const told = body.items.flatMap((item) => (item.kind === 'mail' ? [item.body as MailNews] : []))
      expect(told.filter(({ state }) => state === 'failed' || state === 'unknown')).toEqual([])
      const sent = told.filter(({ state }) => state === 'sent')
      await expect.poll(async () => (await host.shown()).length, { timeout: 30_000 }).toBe(sent.length)
      const shown = await host.shown()
      const ids = shown.map(({ messageId }) => messageId)
      expect(new Set(ids).size).toBe(ids.length)
      expect(shown.map(({ subject }) => subject).sort()).toEqual(sent.map(({ subject }) => subject).sort())
      for (const mail of shown) {
        expect(mail.text?.trim()).not.toBe('')
        expect(mail.html).toContain('<p>')
      }
      expect([...new Set(sent.map(({ step }) => step))].sort()).toEqual(KINDS)
    } finally {
      await house.close()
      await host.stop()
    }
  },
)
