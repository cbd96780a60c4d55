import { statSync } from 'node:fs'
import type { Enquiry, Kept, LinkView, Problem, SendBody } from '@acolhida/core/contract'
import { countedMail, nameProblem, normalMail } from '@acolhida/core/people'
import { HOUR, MINUTE } from '@acolhida/core/time'
import { afterEach, describe, expect, it } from 'vitest'
import { behind, openStartsOf, prove, request, sendIt } from './client.ts'
import { linkTo } from './inside.ts'
import { ANSWERS, ask, freshKey, freshVisit, startRelay, type TestRelay, wanted } from './setup.ts'

const open: TestRelay[] = []
afterEach(async () => {
  for (const one of open.splice(0)) await one.close()
})
const house = async (settings: Parameters<typeof startRelay>[0] = {}): Promise<TestRelay> => {
  const one = await startRelay({ held: { byOne: 4, inAll: 20 }, proxies: ['loopback'], ...settings })
  open.push(one)
  return one
}

/** Says something as a client at an address. */
async function from<T>(
  client: string,
  url: string,
  body: unknown,
): Promise<{ status: number; body: T & Partial<Problem> }> {
  const answer = await fetch(url, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      'x-forwarded-for': client,
      'idempotency-key': freshKey(),
    },
    body: JSON.stringify(body),
  })
  return { status: answer.status, body: (await answer.json()) as T & Partial<Problem> }
}

const keepAt = ({ door, slug }: TestRelay, client: string, start: number, visit = freshVisit()) =>
  from<Kept>(client, `${door}/api/door/${slug}/keep`, { ...wanted(visit), start })

const sendAt = ({ door, slug }: TestRelay, client: string, body: SendBody) =>
  from<{ link: string }>(client, `${door}/api/door/${slug}/send`, body)

/** Starts that do not stand in each other’s way: one a day. */
async function apart(one: TestRelay): Promise<number[]> {
  const days = new Map<number, number>()
  for (const start of await openStartsOf(one.door, one.slug)) {
    const day = Math.floor(start / 86_400_000)
    if (!days.has(day)) days.set(day, start)
  }
  return [...days.values()]
}

describe('what one client may hold', () => {
  it('is four starts, kept or asked for; the same one again is kept no longer, and never refused', async () => {
    const one = await house()
    const starts = await apart(one)
    const visit = freshVisit()
    const first = await keepAt(one, '203.0.113.7', starts[0]!, visit)
    expect(first.status).toBe(200)
    for (const start of starts.slice(1, 4)) expect((await keepAt(one, '203.0.113.7', start)).status).toBe(200)
    const over = await keepAt(one, '203.0.113.7', starts[4]!)
    expect([over.status, over.body.code]).toEqual([429, 'too-many-held'])
    one.clock.forward(3 * MINUTE)
    const again = await keepAt(one, '203.0.113.7', starts[0]!, visit)
    expect([again.status, again.body.until]).toEqual([200, first.body.until])
    // What is kept can be asked for, though nothing else can.
    const body = await request(one.door, one.slug, starts[0]!, { visit })
    expect((await sendAt(one, '203.0.113.7', body)).status).toBe(201)
    const unkept = await request(one.door, one.slug, starts[5]!)
    expect((await sendAt(one, '203.0.113.7', unkept)).body.code).toBe('too-many-held')
    expect((await sendAt(one, '203.0.113.8', unkept)).status).toBe(201)
  })

  it('is counted by the network where addresses are plenty, and by what a named proxy says alone', async () => {
    const one = await house()
    const starts = await apart(one)
    for (const [i, start] of starts.slice(0, 4).entries())
      expect((await keepAt(one, `2001:db8:1:2::${i + 1}`, start)).status).toBe(200)
    expect((await keepAt(one, '2001:db8:1:2:ffff::1', starts[4]!)).body.code).toBe('too-many-held')
    expect((await keepAt(one, '2001:db8:1:3::1', starts[4]!)).status).toBe(200)
    const alone = await house({ proxies: [] })
    const others = await apart(alone)
    for (const [i, start] of others.slice(0, 4).entries())
      expect((await keepAt(alone, `203.0.113.${i}`, start)).status).toBe(200)
    expect((await keepAt(alone, '203.0.113.99', others[4]!)).body.code).toBe('too-many-held')
  })

  it('is kept from nobody where much is held in all, can be asked for, and is theirs whose link is opened first', async () => {
    const one = await house({ held: { byOne: 4, inAll: 3 } })
    const [first, second, third, late, other] = (await apart(one)) as [number, number, number, number, number]
    for (const [i, start] of [first, second, third].entries())
      expect((await keepAt(one, `203.0.113.${i}`, start)).body.unheld).toBeUndefined()
    const soft = await keepAt(one, '203.0.113.9', late)
    expect([soft.status, soft.body.unheld]).toEqual([200, true])
    expect(await openStartsOf(one.door, one.slug)).toContain(late)
    const sent = []
    for (const client of ['203.0.113.10', '203.0.113.11']) {
      const answer = await sendAt(one, client, await request(one.door, one.slug, late))
      expect(answer.status).toBe(201)
      sent.push(answer.body.link)
    }
    expect(await openStartsOf(one.door, one.slug)).toContain(late)
    await one.relay.rounds.turn()
    expect(one.mailbox.received.at(-1)?.text).toContain('if nobody was quicker')
    const view = await ask<LinkView>(`${one.door}/api/link/${sent[1]}`)
    expect(view.body).toMatchObject({ state: 'unproved', unheld: true })
    // Whoever shows an address first has it; the other is told so, and can choose again.
    const states = []
    for (const link of [sent[1]!, sent[0]!]) {
      const { id } = behind(one.relay, link)
      await prove(one, id)
      states.push((await ask<LinkView>(`${one.door}/api/link/${linkTo(one.relay, id)}`)).body.state)
    }
    expect(states[0]).toBe('waiting')
    expect(states[1]).toBe('declined')
    expect(await openStartsOf(one.door, one.slug)).not.toContain(late)
    // Ten minutes later what was only kept is open again, and the next is held as ever.
    one.clock.forward(10 * MINUTE + 1)
    expect((await keepAt(one, '203.0.113.9', other)).body.unheld).toBeUndefined()
  })
})

/** How many of so many real clients, one after the other, get the first start they find, while others do their worst. */
async function realClients(attackers: number): Promise<{ found: number; kept: number; of: number }> {
  const one = await house({ held: { byOne: 4, inAll: 24 } })
  const before = await openStartsOf(one.door, one.slug)
  // Each takes as much as is let.
  for (let round = 0; round < 5; round++)
    for (let i = 0; i < attackers; i++) {
      const starts = await openStartsOf(one.door, one.slug)
      const start = starts[(i * 7) % starts.length]
      if (start !== undefined) await keepAt(one, `198.51.100.${i}`, start)
    }
  const after = await openStartsOf(one.door, one.slug)
  let kept = 0
  for (let i = 0; i < 10; i++) {
    const starts = await openStartsOf(one.door, one.slug)
    if ((await keepAt(one, `192.0.2.${i}`, starts[i % starts.length]!)).status === 200) kept++
  }
  return { found: after.length / before.length, kept, of: before.length }
}

describe('while others take what they can', () => {
  it('one attacker leaves nearly everything, and everybody gets a time', async () => {
    const { found, kept } = await realClients(1)
    expect(found).toBeGreaterThan(0.8)
    expect(kept).toBe(10)
  })

  it('a hundred addresses leave real clients a way in', { timeout: 300_000 }, async () => {
    const { found, kept, of } = await realClients(100)
    console.log(
      `A hundred addresses: ${Math.round(100 * found)} % of ${of} starts are still found, ${kept} of 10 clients get one.`,
    )
    expect(kept).toBe(10)
    expect(found).toBeGreaterThan(0.4)
  })
})

describe('attempts and messages', () => {
  it('of one visit are bounded in number and size, and stand in one message only', async () => {
    const one = await house()
    const visit = freshVisit()
    const api = `${one.door}/api/door/${one.slug}`
    for (let i = 0; i < 60; i++) {
      const answers = { ...ANSWERS, brings: `${i} ${'so '.repeat(60)}` }
      const { place: _, ...wish } = { ...wanted(visit), answers }
      expect((await ask(`${api}/read`, wish)).status).toBe(200)
    }
    const told = one.relay.store.attempts(visit)
    expect(told.length).toBeLessThanOrEqual(40)
    expect(told.at(-1)?.answers.brings).toMatch(/^59 /)
    const write = (n: number) => ({ visit, name: 'Mira', email: `mira${n}@example.org`, message: 'Hello.' })
    const codes: (string | number)[] = []
    for (let i = 0; i < 7; i++) {
      const { status, body } = await ask(`${api}/enquire`, write(i), { key: freshKey() })
      codes.push(body.code ?? status)
    }
    expect(codes).toEqual([201, 201, 201, 201, 201, 'too-many-written', 'too-many-written'])
    const written = (
      one.relay.store.db.prepare(`SELECT body FROM record WHERE kind = 'enquiry' ORDER BY n`).all() as {
        body: string
      }[]
    ).map(({ body }) => JSON.parse(body) as Enquiry)
    const own = written.filter(({ name }) => name === 'Mira')
    expect(own.map(({ attempts }) => attempts.length)).toEqual([told.length, 0, 0, 0, 0])
    expect(new Set(own.slice(1).map(({ earlier }) => earlier))).toEqual(new Set([own[0]!.id]))
    // The file stays small, and the desk gets its pages.
    expect(statSync(one.relay.settings.file).size).toBeLessThan(12 * 1024 * 1024)
    const page = await ask<{ items: unknown[] }>(`${one.desk}/api/record?after=0`, undefined, {
      bearer: one.key,
    })
    expect(page.body.items.length).toBeGreaterThan(5)
  })

  it('come of one address five an hour, however it is written', async () => {
    const one = await house()
    const api = `${one.door}/api/door/${one.slug}/enquire`
    const spelled = [
      'nina@example.org',
      'nina+1@example.org',
      'NINA+x@Example.org',
      'ｎｉｎａ@example.org',
      'nina+2@example.org',
    ]
    const write = (email: string) =>
      ask(api, { visit: freshVisit(), name: 'Nina', email, message: 'x' }, { key: freshKey() })
    for (const email of spelled) expect((await write(email)).status).toBe(201)
    expect((await write('nina+3@example.org')).body.code).toBe('too-many-written')
  })
})

describe('a stranger’s box', () => {
  const mailsTo = (one: TestRelay, name: string): number =>
    one.mailbox.received.filter(({ to }) => countedMail(to) === name).length

  it('gets one receipt an hour, however often somebody asks and withdraws in its name', async () => {
    const one = await house()
    const starts = await apart(one)
    const codes: (string | number)[] = []
    for (let i = 0; i < 8; i++) {
      const person = { name: 'Bo', email: `victim+${i}@example.org`, zone: 'UTC' }
      const { status, body } = await sendIt(
        one.door,
        one.slug,
        await request(one.door, one.slug, starts[i]!, { person }),
      )
      codes.push(body.code ?? status)
      if (status === 201) await ask(`${one.door}/api/link/${body.link}/withdraw`, {}, { key: freshKey() })
      await one.relay.rounds.turn()
    }
    expect(codes).toEqual([201, ...Array(7).fill('mailed-already')])
    one.clock.forward(10 * MINUTE)
    await one.relay.rounds.turn()
    expect(mailsTo(one, 'victim@example.org')).toBe(1)
    one.clock.forward(HOUR)
    const person = { name: 'Bo', email: 'victim@example.org', zone: 'UTC' }
    const late = await sendIt(one.door, one.slug, await request(one.door, one.slug, starts[9]!, { person }))
    expect(late.status).toBe(201)
  })

  it('reads no more of a name than a word, no address in it, and no field that is filled in', async () => {
    const one = await house()
    const [start, other] = await apart(one)
    const sent = async (name: string, at: number, email: string) => {
      const person = { name, email, zone: 'UTC' }
      return sendIt(one.door, one.slug, await request(one.door, one.slug, at, { person }))
    }
    expect((await sent('See www.buy.example now', start!, 'c@example.org')).status).toBe(400)
    const fields = await sent('{link}{word} Call +351 239 555 0100 and win', start!, 'c@example.org')
    expect(fields.status).toBe(201)
    await one.relay.rounds.turn()
    const receipt = one.mailbox.received.find(({ to }) => to === 'c@example.org')!
    expect(receipt.text).toContain('{link}{word}')
    expect(receipt.text).not.toContain('and win')
    expect(receipt.text).not.toContain('/word#')
    // Once it is shown whose it is, they are called as they are.
    const { id } = behind(one.relay, fields.body.link)
    await prove(one, id)
    expect(linkTo(one.relay, id)).not.toBe(fields.body.link)
    expect((await sent('Bo\u0001link\u0001', other!, 'd@example.org')).body.code).toBe('malformed')
  })
})

describe('addresses and names', () => {
  it('count as what they are, however they are written', () => {
    // UTS #46 and NFKC by the platform's own URL and String; IDNA2008 examples from RFC 5891 §4.4 by hand, from memory.
    expect(normalMail('Jo@Bücher.example')).toBe('jo@xn--bcher-kva.example')
    expect(normalMail('jo@xn--bcher-kva.example')).toBe(normalMail('jo@bücher.example'))
    expect(normalMail('ｊｏ@ｅｘａｍｐｌｅ．org')).toBe('jo@example.org')
    expect(normalMail('j\u00ado@exam\u200bple.org')).toBe('jo@example.org')
    expect(normalMail('jo@1.2.3.4')).toBe('jo@1.2.3.4')
    expect(countedMail('Jo+tag+more@Example.org')).toBe('jo@example.org')
    expect(countedMail('+jo@example.org')).toBe('+jo@example.org')
  })

  it.each([
    ...[
      'Buy at example.com',
      'http://x',
      'www.example',
      'x@example.org',
      'pay/now',
      'ＷＷＷ.example',
      'go to shop.online',
    ],
    ...['a\u200bb', 'a\u202eb', 'a\u0000b', 'a\ud800b', 'a\u00adb'],
  ])('%j is nobody’s name', (name) => {
    expect(nameProblem(name)).toBeDefined()
  })

  it.each([
    'J.R. Silva',
    'Dr. Ana-Maria O’Neill',
    'St.John Smith',
    'Nguyễn Văn A',
    'مريم',
    '李小龍',
    'Jr.',
    '{link}',
  ])('%s may be one', (name) => {
    expect(nameProblem(name)).toBeUndefined()
  })
})
