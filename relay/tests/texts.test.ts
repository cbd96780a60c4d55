import type { LinkView } from '@acolhida/core/contract'
import { LINK_TOKEN, quoteDrafts, quoteStepWords } from '@acolhida/core/messages'
import { sha256Hex } from '@acolhida/core/terms'
import { DAY, HOUR, MINUTE, SECOND } from '@acolhida/core/time'
import { describe, expect, it } from 'vitest'
import { behind, openStartsOf, request } from './client.ts'
import { shownTo } from './inside.ts'
import { sendingHouse } from './sending-house.ts'
import { ANSWERS, ask, BEGINNING, freshKey } from './setup.ts'

const here = sendingHouse()
const { command, goTo } = here

/** Far enough for anybody to come. */
const STARTS = BEGINNING + 5 * DAY

describe('a quote by text', () => {
  const phone = '+44 7700 900123'
  const quote = (person: object = { phone }) =>
    ask<{ code?: string }>(
      `${here.house.desk}/api/quote`,
      {
        ...{ enquiry: 'on-the-phone', service: 'voice-assessment', answers: ANSWERS, by: 'text' },
        person: { name: 'Dara Okoye', email: 'dara@example.org', zone: 'Europe/London', ...person },
        until: BEGINNING + 3 * DAY,
        text: 'As we said.',
      },
      { bearer: here.house.key, key: freshKey() },
    )
  const to = () => here.house.texts.taken.filter((one) => one.to === phone).map(({ text }) => text)
  const linkOf = (text: string) => /[?&]quote=([\w-]+)/.exec(text)![1]!

  it('goes to the phone with its price and a link, is chased there, and booked through it', async () => {
    expect((await quote()).status).toBe(201)
    await goTo(BEGINNING + 10 * SECOND)
    const [first] = to()
    expect(first).toMatch(/^As we said\. Voice assessment, \d+ min, €[\d.]+, until .+ \(London time\): http/)
    expect(here.house.mailbox.received.filter((mail) => mail.to.includes('dara'))).toEqual([])
    await goTo(BEGINNING + DAY + 10 * SECOND)
    expect(to()[1]).toMatch(/^Dara, it still stands: http/)
    // The draft lies before the practitioner, who sends it in their own words, with the same link.
    await goTo(BEGINNING + 2 * DAY)
    expect(to()).toHaveLength(2)
    const { practice, enquiryNews } = here.house.relay.here.keeper.house
    const news = enquiryNews.call(here.house.relay.here.keeper.house, 'on-the-phone')
    const [draft] = quoteDrafts(practice!, news, here.house.clock.now())
    const said = quoteStepWords(practice!, { name: 'Dara Okoye' }, 'voice-assessment', draft!)
    expect(said?.body).toBe(`Dara, it still stands: ${LINK_TOKEN}`)
    const answer = { enquiry: 'on-the-phone', text: said!.body.replace(LINK_TOKEN, '{link}') }
    await ask(`${here.house.desk}/api/enquiry`, answer, { bearer: here.house.key, key: freshKey() })
    await goTo(here.house.clock.now() + 10 * SECOND)
    const mail = here.house.mailbox.received.findLast((one) => one.to.includes('dara'))!
    const after = here.house.relay.here.keeper.house.enquiryNews('on-the-phone')
    expect(quoteDrafts(practice!, after, here.house.clock.now())).toEqual([])
    // Every message has a link of its own; all lead to the same quote, and the first that books it uses it up.
    const links = [...to(), mail.text].map(linkOf)
    expect(new Set(links).size).toBe(3)
    const [start] = (await openStartsOf(here.house.door, here.house.slug)).filter((one) => one > STARTS)
    const asked = await request(here.house.door, here.house.slug, start!)
    const accept = (link: string) => ({ ...asked, answers: {}, quote: link, with: link })
    const { shown: _, ...first_ } = accept(links[0]!)
    const body = { ...first_, shown: shownTo(here.house.relay, first_) }
    const sent = await ask<{ link: string }>(`${here.house.door}/api/door/${here.house.slug}/send`, body, {
      key: freshKey(),
    })
    expect(sent.body).toHaveProperty('link')
    expect(behind(here.house.relay, sent.body.link).status).toBe('booked')
    await goTo(BEGINNING + 3 * DAY - HOUR)
    expect(to().length).toBeLessThanOrEqual(3)
  })

  it('needs a number', async () => {
    const { status, body } = await quote({})
    expect([status, body.code]).toEqual([422, 'no-phone'])
  })
})

it('a link that came by text proves no mail address', async () => {
  await command({ do: 'welcome' })
  await command({ do: 'write', channel: 'text', subject: '', text: 'Here: {link}' })
  await goTo(BEGINNING + MINUTE)
  const secret = /\/my\/([\w-]+)/.exec(here.house.texts.taken.at(-1)!.text)![1]!
  expect(here.house.relay.here.keeper.house.link(sha256Hex(secret))).toMatchObject({ proves: false })
  const { body } = await ask<LinkView>(`${here.house.door}/api/link/${secret}`)
  expect(body.state).toBe('booked')
})
