import type { DeskDoes } from '@acolhida/core/booking'
import type { DoorView, LinkView, MailNews, RecordPage } from '@acolhida/core/contract'
import { messageName, stepsOf } from '@acolhida/core/messages'
import { aroundService, type Practice, type SequenceStep } from '@acolhida/core/practice'
import { DAY, duration, HOUR, type Instant, MINUTE, SECOND, time } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { ask, BEGINNING, freshKey, startRelay, type TestRelay } from './setup.ts'

const step = (id: string, change: Partial<SequenceStep> = {}): SequenceStep => ({
  ...{ id, anchor: 'start', before: true, by: duration('PT24H'), channel: 'email', text: 'remind' },
  ...change,
})
const STEPS = [
  step('day-before'),
  step('by-text', { by: duration('PT4H'), channel: 'text', text: 'short' }),
  step('follow-up', { anchor: 'end', before: false, by: duration('PT2H'), text: 'thanks' }),
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

let house: TestRelay
beforeEach(async () => {
  house = await startRelay({ demo, withTexts: true })
})
afterEach(() => house.close())

const TOME = 'asks-tome'
const booking = () => house.relay.here.keeper.house.booking(TOME)!
const command = (does: DeskDoes) =>
  ask(`${house.desk}/api/command`, { booking: TOME, command: does }, { bearer: house.key, key: freshKey() })
const record = async (): Promise<MailNews[]> => {
  const { body } = await ask<RecordPage>(`${house.desk}/api/record?after=0`, undefined, {
    bearer: house.key,
  })
  return body.items.flatMap((item) => (item.kind === 'mail' ? [item.body] : []))
}
/** Moves the clock to a moment, and lets everything due until then be done. */
async function goTo(at: number): Promise<void> {
  house.clock.forward(at - house.clock.now())
  await house.relay.rounds.turn()
}
const planned = (id: string) =>
  stepsOf(booking(), house.relay.here.keeper.house.practice!).find((one) => one.step.id === id)!
const mails = () => house.mailbox.received.filter(({ to }) => to.includes('tome.arrais'))
describe('a sequence around a booking', () => {
  beforeEach(async () => {
    expect((await command({ do: 'welcome' })).status).toBe(200)
    await goTo(BEGINNING + 10 * SECOND)
  })

  it('goes at its moments, once, as plain text and as HTML, and nobody answers it by a machine', async () => {
    const before = mails().length
    await goTo(planned('day-before').at)
    await goTo(house.clock.now() + MINUTE)
    const [mail, ...others] = mails().slice(before)
    expect(others).toEqual([])
    expect(mail?.subject).toBe('Soon: Voice assessment')
    expect(mail?.text).toMatch(/It is on .*\?to=come/)
    expect(mail?.html).toContain('<p>Hello Tomé')
    expect(mail?.html).toContain('lang="en"')
    // RFC 3834 §5; RFC 5322 §3.6.4.
    expect(mail?.headers['auto-submitted']).toContain('auto-generated')
    expect(mail?.headers.references).toContain('booking.asks-tome')
    expect(mail?.messageId).toContain('step.day-before.email')
    expect(mail?.headers['list-unsubscribe']).toBeUndefined()
  })

  it('goes on while the desk is closed for two weeks, which then reads of each what became of it', async () => {
    for (let at = BEGINNING + HOUR; at <= BEGINNING + 14 * DAY; at += HOUR) await goTo(at)
    const steps = (await record()).filter(({ step, to }) => step.startsWith('step:') && /tome|912/.test(to))
    expect(steps.map(({ step, state }) => [step, state])).toEqual([
      ['step:day-before', 'sent'],
      ['step:by-text', 'sent'],
      ['step:follow-up', 'sent'],
    ])
    expect(mails().filter(({ subject }) => subject.startsWith('Soon:'))).toHaveLength(1)
    expect(mails().filter(({ subject }) => subject === 'Thank you')).toHaveLength(1)
    expect(house.texts.taken).toHaveLength(1)
  })

  it('goes by text once, also when the gateway is slow or away for a while', async () => {
    house.texts.manner = 'down'
    await goTo(planned('by-text').at)
    expect(house.texts.taken).toEqual([])
    house.texts.manner = 'takes'
    await goTo(house.clock.now() + 2 * MINUTE)
    expect(house.texts.taken).toHaveLength(1)
    expect(house.texts.taken[0]?.text).toMatch(/^Voice assessment at \d\d:\d\d$/)
    await goTo(house.clock.now() + HOUR)
    expect(house.texts.taken).toHaveLength(1)
  })

  it('is never sent after its session, and says so', async () => {
    house.mailbox.manner = 'down'
    await goTo(planned('day-before').at)
    const { start } = booking()
    for (let at: number = house.clock.now(); at < start + HOUR; at += HOUR) await goTo(at)
    house.mailbox.manner = 'takes'
    const before = mails().length
    await goTo(start + 2 * HOUR)
    expect(
      mails()
        .slice(before)
        .map(({ subject }) => subject),
    ).not.toContain('Soon: Voice assessment')
    expect(await record()).toContainEqual(
      expect.objectContaining({ step: 'step:day-before', state: 'failed' }),
    )
  })

  it('is refused for good by an address that is none, and not tried again', async () => {
    house.mailbox.refused.add('tome.arrais@example.org')
    await goTo(planned('day-before').at)
    const failed = (await record()).filter(
      ({ step: name, to }) => name === 'step:day-before' && to.includes('tome'),
    )
    expect(failed).toMatchObject([{ state: 'failed', reason: expect.stringContaining('refused') }])
    await goTo(house.clock.now() + HOUR)
    expect(
      (await record()).filter(({ step: name, to }) => name === 'step:day-before' && to.includes('tome')),
    ).toHaveLength(1)
  })

  it('is held back, let go, rewritten and sent at once by the practitioner', async () => {
    const { name, anchor, at } = planned('day-before')
    const message = messageName({ step: name, anchor })
    await command({ do: 'steer', message, how: 'hold' })
    await goTo(at + MINUTE)
    expect(mails().some(({ subject }) => subject.startsWith('Soon'))).toBe(false)
    await command({ do: 'steer', message, how: 'edit', text: 'Only this: {time}.' })
    await command({ do: 'steer', message, how: 'release' })
    await goTo(at + 2 * MINUTE)
    await expect.poll(() => mails().at(-1)?.text).toMatch(/Only this: \d\d:\d\d\./)
  })

  it('can be unsubscribed from with one press where it follows a session, and looking never does it', async () => {
    // RFC 8058: a POST with that one field, and an address in the header that carries all it needs.
    await goTo(planned('follow-up').at)
    const mail = mails().at(-1)!
    expect(mail.subject).toBe('Thank you')
    expect(mail.headers['list-unsubscribe-post']).toContain('List-Unsubscribe=One-Click')
    const address = /<(http[^>]+)>/.exec(mail.headers['list-unsubscribe'] ?? '')![1]!
    const looked = await fetch(address, { redirect: 'manual' })
    expect([looked.status, looked.headers.get('location')]).toEqual([
      302,
      expect.stringContaining('?to=unwant'),
    ])
    expect(booking().unwanted).toBeUndefined()
    const pressed = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: 'List-Unsubscribe=One-Click',
    })
    expect(pressed.status).toBe(200)
    expect(booking().unwanted).toEqual(['follow-ups'])
    expect((await fetch(address, { method: 'POST', body: 'x=1' })).status).toBe(400)
  })

  it('sends no more texts to whoever answers with a stop word, and again to whoever starts', async () => {
    const { phone = '' } = booking().asked.person
    expect(await house.texts.answer(phone, ' Stop. ')).toBe(200)
    expect(booking().unwanted).toEqual(['texts'])
    expect(planned('by-text').skipped).toBe('unwanted')
    expect(await house.texts.answer(phone, 'start')).toBe(200)
    expect(planned('by-text').skipped).toBeUndefined()
    const forged = await fetch(`${house.door}/api/texts`, { method: 'POST', body: '{}' })
    expect(forged.status).toBe(401)
  })

  it('goes with what is written by hand, which stands in the record', async () => {
    await command({ do: 'write', channel: 'email', subject: 'About {service}', text: 'Hello {firstName}!' })
    expect(mails().some(({ subject }) => subject.startsWith('About'))).toBe(false)
    await goTo(house.clock.now() + 9 * SECOND)
    expect(mails().at(-1)).toMatchObject({
      subject: 'About Voice assessment',
      text: expect.stringContaining('Hello Tomé!'),
    })
    expect((await record()).at(-1)).toMatchObject({ step: 'written', state: 'sent' })
  })

  it('tells nobody what is done in silence', async () => {
    await command({ do: 'cancel', by: 'practitioner', text: '', silent: true })
    const before = mails().length
    await goTo(house.clock.now() + DAY)
    expect(mails()).toHaveLength(before)
  })
})

describe('languages', () => {
  const view = (language: string) =>
    fetch(`${house.door}/api/door/${house.slug}`, { headers: { 'accept-language': language } }).then(
      async (answer) => (await answer.json()) as DoorView,
    )

  it('are the first that the browser wants and the practice speaks, else its own', async () => {
    expect((await view('pt-BR,en;q=0.5')).services.find(({ id }) => id === 'voice-assessment')?.name).toBe(
      'Avaliação da voz',
    )
    expect(await view('fr,de')).toMatchObject({ language: 'en', languages: ['en', 'pt'] })
    const refused = await fetch(`${house.door}/api/link/nothing-of-the-kind`, {
      headers: { 'accept-language': 'pt' },
    })
    expect(((await refused.json()) as { message: string }).message).toContain('não leva a lado nenhum')
  })

  it('follow a client into what they are sent, from the moment they choose another', async () => {
    await command({ do: 'welcome' })
    await goTo(BEGINNING + 10 * SECOND)
    const secret = /\/my\/([\w-]+)/.exec(mails().at(-1)!.text)![1]!
    const { body, status } = await ask<LinkView>(
      `${house.door}/api/link/${secret}/speak`,
      { language: 'pt' },
      { key: freshKey() },
    )
    expect([status, body.state]).toEqual([200, 'booked'])
    await goTo(planned('day-before').at)
    const mail = mails().at(-1)!
    expect(mail.text).toMatch(/Olá, Tomé Arrais,\n\nÉ em \p{L}+-feira, \d+ de \p{L}+, /u)
    expect(mail.html).toContain('lang="pt"')
  })
})

describe('what is published', () => {
  const publish = (change: (practice: Practice) => Practice) => {
    const pack = house.relay.here.keeper.house.pack!
    return ask(
      `${house.desk}/api/package`,
      { ...pack, practice: change(pack.practice), revision: pack.revision + 1 },
      { method: 'PUT', bearer: house.key, key: freshKey() },
    )
  }

  it('holds no sentence with a field that ours has not, and none that there is not', async () => {
    const words = (key: string, text: string) => (practice: Practice) => ({
      ...practice,
      words: { en: { [key]: text } },
    })
    expect((await publish(words('letters.confirmation', 'At last: {nothing}'))).body).toMatchObject({
      code: 'practice',
      where: 'practice.words.en.letters.confirmation',
    })
    expect((await publish(words('letters.no-such', 'Hm'))).body.message).toContain('no such sentence')
    expect((await publish(words('letters.confirmation', 'Yes {'))).status).toBe(422)
    expect((await publish(words('letters.confirmation', 'Yes, gladly: {service}, {when}.'))).status).toBe(200)
    await command({ do: 'welcome' })
    await goTo(BEGINNING + 10 * SECOND)
    expect(mails().at(-1)?.text).toContain('Yes, gladly: Voice assessment')
  })

  it('holds no text with a field that would stay empty', async () => {
    const bad = (practice: Practice): Practice => ({
      ...practice,
      texts: practice.texts!.map((text) => ({ ...text, body: '{before}' })),
    })
    expect((await publish(bad)).body).toMatchObject({ code: 'practice', where: 'practice.texts[0].body' })
  })

  it('replans hundreds of messages when a rule changes, and sends none of them twice', async () => {
    await command({ do: 'welcome' })
    await goTo(BEGINNING + 10 * SECOND)
    const later = (practice: Practice): Practice => ({
      ...practice,
      sequences: [{ id: 'q', name: 'Q', steps: [step('day-before', { by: duration('PT20H') })] }],
    })
    const old = planned('day-before').at
    expect((await publish(later)).status).toBe(200)
    expect(planned('day-before').at).toBe(old + 4 * HOUR)
    await goTo(old)
    await goTo(old + 4 * HOUR)
    expect(mails().filter(({ subject }) => subject.startsWith('Soon'))).toHaveLength(1)
  })

  it('comes around what is booked already without a word about moments that have passed', async () => {
    await publish((practice) => ({
      ...practice,
      services: practice.services.map((service) => aroundService(service, undefined, house.clock.now())),
    }))
    await command({ do: 'welcome' })
    const { start } = booking()
    await goTo(start - HOUR)
    const before = mails().length
    const now = house.clock.now()
    const { status } = await publish((practice) => ({
      ...practice,
      services: practice.services.map((service) => aroundService(service, 'q', now)),
    }))
    expect(status).toBe(200)
    await goTo(now + MINUTE)
    expect(mails()).toHaveLength(before)
    expect(house.texts.taken).toEqual([])
    // What is still to come goes.
    await goTo(planned('follow-up').at)
    expect(mails().at(-1)?.subject).toBe('Thank you')
  })

  it('writes a digest in the morning, and reminds the practitioner before a session', async () => {
    await command({ do: 'welcome' })
    await publish((practice) => ({
      ...practice,
      messaging: { own: { digest: time('07:45'), before: [{ by: duration('PT1H'), channel: 'email' }] } },
    }))
    const { start } = booking()
    await goTo(start - HOUR - MINUTE)
    const own = () => house.mailbox.received.filter(({ to }) => to.includes('iria'))
    await goTo(start - HOUR)
    expect(own().some(({ text }) => text.startsWith('Voice assessment') && text.includes('Tomé'))).toBe(true)
    expect(own().some(({ subject }) => /sessions?$/.test(subject))).toBe(true)
  })
})
