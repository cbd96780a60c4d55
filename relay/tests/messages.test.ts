import { stateAt } from '@acolhida/core/booking'
import { messageName } from '@acolhida/core/messages'
import { aroundService, type Practice } from '@acolhida/core/practice'
import { DAY, duration, HOUR, instant, MINUTE, SECOND, time } from '@acolhida/core/time'
import { beforeEach, describe, expect, it } from 'vitest'
import { sendingHouse, step } from './sending-house.ts'
import { ask, BEGINNING, freshKey } from './setup.ts'

const here = sendingHouse()
const { booking, byHand, command, goTo, mails, planned, record } = here

describe('a sequence around a booking', () => {
  beforeEach(async () => {
    expect((await command({ do: 'welcome' })).status).toBe(200)
    await goTo(BEGINNING + 10 * SECOND)
  })

  it('goes at its moments, once, as plain text and as HTML, and nobody answers it by a machine', async () => {
    const before = mails().length
    await goTo(planned('day-before').at)
    await goTo(here.house.clock.now() + MINUTE)
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
    expect(here.house.texts.taken).toHaveLength(1)
  })

  it('goes by text once, also when the gateway is slow or away for a while', async () => {
    here.house.texts.manner = 'down'
    await goTo(planned('by-text').at)
    expect(here.house.texts.taken).toEqual([])
    await goTo(here.house.clock.now() + MINUTE)
    const told = async () => (await record()).filter(({ step, to }) => step === 'step:by-text' && to)
    // The desk hears once that it is tried again.
    expect((await told()).map(({ state }) => state)).toEqual(['waiting'])
    here.house.texts.manner = 'takes'
    await goTo(here.house.clock.now() + 10 * MINUTE)
    expect(here.house.texts.taken).toHaveLength(1)
    expect(here.house.texts.taken[0]?.text).toMatch(/^Voice assessment at \d\d:\d\d$/)
    await goTo(here.house.clock.now() + HOUR)
    expect(here.house.texts.taken).toHaveLength(1)
    expect((await told()).map(({ state }) => state)).toEqual(['waiting', 'sent'])
  })

  it('is never sent after its session, and says so', async () => {
    here.house.mailbox.manner = 'down'
    await goTo(planned('day-before').at)
    const { start } = booking()
    for (let at: number = here.house.clock.now(); at < start + HOUR; at += HOUR) await goTo(at)
    here.house.mailbox.manner = 'takes'
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
    here.house.mailbox.refused.add('tome.arrais@example.org')
    await goTo(planned('day-before').at)
    const failed = (await record()).filter(
      ({ step: name, to }) => name === 'step:day-before' && to.includes('tome'),
    )
    expect(failed).toMatchObject([{ state: 'failed', reason: expect.stringContaining('refused') }])
    await goTo(here.house.clock.now() + HOUR)
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
    expect(await here.house.texts.answer(phone, ' Stop. ')).toBe(200)
    expect(booking().unwanted).toEqual(['texts'])
    expect(planned('by-text').skipped).toBe('unwanted')
    expect(await here.house.texts.answer(phone, 'start')).toBe(200)
    expect(planned('by-text').skipped).toBeUndefined()
    const forged = await fetch(`${here.house.door}/api/texts`, { method: 'POST', body: '{}' })
    expect(forged.status).toBe(401)
  })

  it('goes with what is written by hand, which stands in the record', async () => {
    await command({ do: 'write', channel: 'email', subject: 'About {service}', text: 'Hello {firstName}!' })
    expect(mails().some(({ subject }) => subject.startsWith('About'))).toBe(false)
    await goTo(here.house.clock.now() + 9 * SECOND)
    expect(mails().at(-1)).toMatchObject({
      subject: 'About Voice assessment',
      text: expect.stringContaining('Hello Tomé!'),
    })
    expect((await record()).at(-1)).toMatchObject({ step: 'written', state: 'sent' })
  })

  it('tells nobody what is done in silence', async () => {
    await command({ do: 'cancel', by: 'practitioner', text: '', silent: true })
    const before = mails().length
    await goTo(here.house.clock.now() + DAY)
    expect(mails()).toHaveLength(before)
  })

  it('tells nobody of other times offered, or of being booked in, in silence', async () => {
    const { start } = booking()
    const offer = {
      do: 'offer' as const,
      starts: [{ start: instant(start + 7 * DAY), place: 'studio' }],
      text: '',
    }
    const before = mails().length
    expect((await command({ ...offer, silent: true })).status).toBe(200)
    await goTo(here.house.clock.now() + MINUTE)
    expect(stateAt(booking(), here.house.clock.now()).is).toBe('offered')
    expect(mails()).toHaveLength(before)
    expect((await byHand({ silent: true })).status).toBe(201)
    await goTo(here.house.clock.now() + MINUTE)
    expect(here.house.mailbox.received.filter(({ to }) => to.includes('nadia'))).toEqual([])
  })
})

describe('what is published', () => {
  const publish = (change: (practice: Practice) => Practice) => {
    const pack = here.house.relay.here.keeper.house.pack!
    return ask(
      `${here.house.desk}/api/package`,
      { ...pack, practice: change(pack.practice), revision: pack.revision + 1 },
      { method: 'PUT', bearer: here.house.key, key: freshKey() },
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
      services: practice.services.map((service) => aroundService(service, undefined, here.house.clock.now())),
    }))
    await command({ do: 'welcome' })
    const { start } = booking()
    await goTo(start - HOUR)
    const before = mails().length
    const now = here.house.clock.now()
    const { status } = await publish((practice) => ({
      ...practice,
      services: practice.services.map((service) => aroundService(service, 'q', now)),
    }))
    expect(status).toBe(200)
    await goTo(now + MINUTE)
    expect(mails()).toHaveLength(before)
    expect(here.house.texts.taken).toEqual([])
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
    const own = () => here.house.mailbox.received.filter(({ to }) => to.includes('iria'))
    await goTo(start - HOUR)
    expect(own().some(({ text }) => text.startsWith('Voice assessment') && text.includes('Tomé'))).toBe(true)
    expect(own().some(({ subject }) => /sessions?$/.test(subject))).toBe(true)
  })
})
