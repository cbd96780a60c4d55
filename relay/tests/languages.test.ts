import type { DoorView, LinkView, SendBody } from '@acolhida/core/contract'
import { verifyAgreements } from '@acolhida/core/terms'
import { DAY, MINUTE, SECOND } from '@acolhida/core/time'
import { describe, expect, it } from 'vitest'
import { behind, openStartsOf, request } from './client.ts'
import { shownTo } from './inside.ts'
import { BY_HAND, sendingHouse } from './sending-house.ts'
import { ANSWERS, ask, BEGINNING, freshKey } from './setup.ts'

const here = sendingHouse()
const { byHand, command, goTo, mails, planned } = here

describe('languages', () => {
  const view = (language: string) =>
    fetch(`${here.house.door}/api/door/${here.house.slug}`, {
      headers: { 'accept-language': language },
    }).then(async (answer) => (await answer.json()) as DoorView)

  it('are the first that the browser wants and the practice speaks, else its own', async () => {
    expect((await view('pt-BR,en;q=0.5')).services.find(({ id }) => id === 'voice-assessment')?.name).toBe(
      'Avaliação da voz',
    )
    expect(await view('fr,de')).toMatchObject({ language: 'en', languages: ['en', 'pt'] })
    const refused = await fetch(`${here.house.door}/api/link/nothing-of-the-kind`, {
      headers: { 'accept-language': 'pt' },
    })
    expect(((await refused.json()) as { message: string }).message).toContain('não leva a lado nenhum')
  })

  it('are those in which somebody is booked in by hand, in the lines of the price as well', async () => {
    expect((await byHand({ answers: ANSWERS }, { language: 'pt' })).status).toBe(201)
    await goTo(BEGINNING + MINUTE)
    const mail = here.house.mailbox.received.find(({ to }) => to.includes('nadia'))
    expect(mail?.subject).toContain('Avaliação da voz')
    expect(mail?.html).toContain('lang="pt"')
    const { lines } = here.house.relay.here.keeper.house.booking(BY_HAND)!.asked.reading.quote
    expect(lines[0]?.name).toBe('Avaliação da voz')
  })

  it('follow a client into what they are sent, from the moment they choose another', async () => {
    await command({ do: 'welcome' })
    await goTo(BEGINNING + 10 * SECOND)
    const secret = /\/my\/([\w-]+)/.exec(mails().at(-1)!.text)![1]!
    const { body, status } = await ask<LinkView>(
      `${here.house.door}/api/link/${secret}/speak`,
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

/** Far enough for anybody to come. */
const STARTS = BEGINNING + 5 * DAY

describe('terms in another language', () => {
  const publishTerms = (also: Record<string, { title: string; text: string }>) => {
    const pack = here.house.relay.here.keeper.house.pack!
    const terms = pack.practice.terms.map((one) => ({
      ...one,
      versions: one.versions.map((version) => ({ ...version, also })),
    }))
    return ask(
      `${here.house.desk}/api/package`,
      { ...pack, practice: { ...pack.practice, terms }, revision: pack.revision + 1 },
      { method: 'PUT', bearer: here.house.key, key: freshKey() },
    )
  }

  it('are agreed to as they were read, and read again when the language has come meanwhile', async () => {
    const [start] = (await openStartsOf(here.house.door, here.house.slug)).filter((one) => one > STARTS)
    const asked = await request(here.house.door, here.house.slug, start!)
    const send = (body: SendBody) =>
      ask<{ link: string }>(`${here.house.door}/api/door/${here.house.slug}/send`, body, {
        key: freshKey(),
        language: 'pt',
      })
    const also = { pt: { title: 'Condições', text: 'Chegue a horas a {service}.' } }
    expect((await publishTerms(also)).status).toBe(200)
    // It was read in English.
    expect(await send(asked)).toMatchObject({ status: 409, body: { code: 'terms-changed' } })
    const { body } = await ask<DoorView>(`${here.house.door}/api/door/${here.house.slug}`, undefined, {
      language: 'pt',
    })
    const [terms] = body.services.find(({ id }) => id === 'voice-assessment')!.terms
    expect(terms).toMatchObject({
      ...{ language: 'pt', title: 'Condições', shown: 'Chegue a horas a Avaliação da voz.' },
      fingerprint: asked.agreed[0]!.fingerprint,
    })
    const agreed = [{ ...asked.agreed[0]!, language: 'pt' }]
    const sent = await send({ ...asked, agreed, shown: shownTo(here.house.relay, asked, 'pt') })
    expect(sent.status).toBe(201)
    const { agreements } = behind(here.house.relay, sent.body.link).asked
    expect(agreements).toMatchObject([{ language: 'pt', fields: { service: 'Avaliação da voz' } }])
    const { practice } = here.house.relay.here.keeper.house
    expect(
      verifyAgreements(practice!.terms, agreements).faults.filter(({ what }) => what === 'shown'),
    ).toEqual([])
    const { body: view } = await ask<LinkView>(`${here.house.door}/api/link/${sent.body.link}`)
    expect(view.agreements).toMatchObject([{ title: 'Condições', shown: terms!.shown }])
  })
})
