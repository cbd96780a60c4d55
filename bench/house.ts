import { bookingSubject } from '@acolhida/core/agenda'
import type { LinkView, SendBody } from '@acolhida/core/contract'
import { schemas } from '@acolhida/core/contract/schemas'
import { command, type Does, keep, openingsFor, send, throughLink, unkeep } from '@acolhida/core/house'
import type { Schema } from '@acolhida/core/schemas'
import { sha256Hex, versionFingerprint } from '@acolhida/core/terms'
import { DAY, type Instant, instant } from '@acolhida/core/time'
import type { Relay } from '../relay/relay.ts'
import { letHappen, linkTo, packOf, shownTo } from '../relay/tests/inside.ts'
import { ANSWERS } from '../relay/tests/setup.ts'
import { type Bare, bareOf } from './bare.ts'
import { besideBare } from './beside-bare.ts'
import { type Spent, spend, zero } from './side-by-side.ts'
import { NOW, relayOfYears, SIZES, SLUG } from './years.ts'

/** Rounds that are counted, after others in which everything is compiled. */
const ROUNDS = 500
const WARM = 500

const say = (what: string, ours: Spent, bare: Spent, rounds: number, most?: number): void => {
  const each = (spent: number): string => `${Math.round(spent / rounds)} µs`
  const goal = most === undefined ? '' : `, at most ${most}`
  console.log(
    `  ${what}: CPU ${(ours.cpu / bare.cpu).toFixed(2)}×, wall ${(ours.wall / bare.wall).toFixed(2)}×${goal}` +
      ` (${each(ours.cpu)} against ${each(bare.cpu)} of CPU)`,
  )
}

let names = 0
export const fresh = (what: string): string => `bench-${what}-${String(++names).padStart(10, '0')}`

/** A whole request as the door sends it, for the nth start that is open. */
export function requestFor(relay: Relay, start: number, more: Partial<SendBody> = {}): SendBody {
  const pack = packOf(relay)
  const body = {
    visit: fresh('visit'),
    clock: NOW,
    service: 'voice-assessment',
    place: 'studio',
    start: instant(start),
    answers: ANSWERS,
    person: { name: 'Elske Vos', email: `${fresh('mail')}@example.org`, zone: 'Europe/Amsterdam' },
    agreed: pack.practice.terms.map(({ id, versions }) => {
      const version = versions.at(-1)!
      return { terms: id, number: version.number, fingerprint: versionFingerprint(id, version) }
    }),
    ...more,
  }
  return { ...body, shown: shownTo(relay, body) }
}
export const openIn = (relay: Relay, days: number): Instant[] =>
  relay.here.look((house, now) =>
    openingsFor(
      house,
      { visit: 'bench-visit-0000000', service: 'voice-assessment', place: 'studio', answers: ANSWERS, days },
      now,
    ),
  ).starts as Instant[]

export const forgetIt: Does<string, void> = (work, id) => {
  work.changes.push({ type: 'forget', subject: bookingSubject(id) })
}
export const newestId = (relay: Relay): string => [...relay.here.keeper.house.openBookings()].at(-1)!.id
const once = (scope: string, body: unknown) => ({ scope, key: fresh('key'), body })

/** What an act takes against a bare transaction that writes the same rows to the same file. */
async function acts(relay: Relay): Promise<void> {
  const { here, store } = relay
  const starts = openIn(relay, 21)
  const sendOne = (body: SendBody) => () => here.call(send, body, once('send', body))
  const measured = async (
    what: string,
    most: number,
    prepare: (i: number) => () => unknown,
    after: () => void,
  ): Promise<void> => {
    const ours = zero()
    const bare = zero()
    let like: Bare | undefined
    for (let i = -WARM; i < ROUNDS; i++) {
      const work = prepare(i + WARM)
      const watch = like ? undefined : bareOf(store.db)
      await spend(i < 0 ? zero() : ours, work)
      like ??= watch!()
      after()
      await spend(i < 0 ? zero() : bare, like.write)
    }
    like?.clean()
    say(`${what} (${like?.rows} rows)`, ours, bare, ROUNDS, most)
  }
  const start = (i: number): Instant => starts[i % starts.length]!
  const forget = (): void => here.call(forgetIt, newestId(relay))
  await measured('send', 3, (i) => sendOne(requestFor(relay, start(i))), forget)
  await measured(
    'keep',
    4,
    (i) => {
      const wish = {
        visit: 'bench-visit-keeper-01',
        service: 'voice-assessment',
        place: 'studio',
        answers: ANSWERS,
      }
      return () => here.call(keep, { ...wish, start: start(i) })
    },
    () => {},
  )
  here.call(unkeep, { visit: 'bench-visit-keeper-01' })
  await measured(
    'prove, through a link',
    4,
    (i) => {
      sendOne(requestFor(relay, start(i)))()
      const hash = sha256Hex(linkTo(relay, newestId(relay)))
      const body = { hash, command: { do: 'prove' as const } }
      return () => here.call(throughLink, body, once('link prove', body))
    },
    forget,
  )
  await measured(
    'a word of the desk',
    4,
    (i) => {
      sendOne(requestFor(relay, start(i)))()
      const id = newestId(relay)
      here.call(throughLink, { hash: sha256Hex(linkTo(relay, id)), command: { do: 'prove' } })
      const body = { booking: id, command: { do: 'welcome' as const } }
      return () => here.call(command, body, once('command', body))
    },
    forget,
  )
}

/** Openings of 21 days, against a practice that has the same sessions in these days and nothing else. */
async function openings(relay: Relay): Promise<void> {
  const small = await relayOfYears(0, 10, [NOW, instant(NOW + 21 * DAY)])
  const ours = zero()
  const bare = zero()
  for (let i = -100; i < 200; i++) {
    await spend(i < 0 ? zero() : ours, () => openIn(relay, 21))
    await spend(i < 0 ? zero() : bare, () => openIn(small.relay, 21))
  }
  await small.close()
  say('openings of 21 days, against those sessions alone', ours, bare, 200, 2)
}

/** A round in which nothing is due. */
async function idle(relay: Relay): Promise<void> {
  const rounds = 200_000
  const spent = zero()
  void relay.rounds.turn()
  await spend(spent, () => {
    for (let i = 0; i < rounds; i++) void relay.rounds.turn()
  })
  console.log(`  a round with nothing due: ${(spent.cpu / rounds).toFixed(2)} µs of CPU, at most 5`)
}

/** A request's whole way over HTTP, and acting on its link, against a bare handler. */
async function handling(relay: Relay): Promise<void> {
  const http = await besideBare(relay)
  const starts = openIn(relay, 21)
  for (let i = -100; i < 150; i++) {
    const whole = requestFor(relay, starts[(i + 100) % starts.length]!)
    const { visit, service, place, start, answers } = whole
    const step = (path: string, at: string, schema: Schema<unknown>, body: unknown): Promise<void> =>
      http.step(i >= 0, path, at, schema, body)
    const door = `/api/door/${SLUG}`
    await step('read', `${door}/read`, schemas.read, { visit, service, answers })
    await step('keep', `${door}/keep`, schemas.keep, { visit, service, place, start, answers })
    await step('send', `${door}/send`, schemas.send, whole)
    const id = newestId(relay)
    const link = `/api/link/${linkTo(relay, id)}`
    await step('prove', `${link}/prove`, schemas.prove, {})
    letHappen(relay, id, { type: 'welcomed', at: NOW, by: 'practitioner', settles: NOW })
    const shown = async (): Promise<string> => {
      const seen = (await (await fetch(http.door + link)).json()) as LinkView
      return seen.shown
    }
    const other = starts[(i + 101) % starts.length]!
    await step('move', `${link}/move`, schemas.move, { start: other, place, shown: await shown() })
    await step('cancel', `${link}/cancel`, schemas.cancel, { text: '', shown: await shown() })
    relay.here.call(forgetIt, id)
  }
  for (const [path, [ours, theirs]] of http.sums) say(`over HTTP, ${path}`, ours, theirs, 150, 2.5)
  const way = ['read', 'keep', 'send', 'prove'].map((path) => http.sums.get(path)!)
  const total = way.reduce(([ours, theirs], [a, b]) => [add(ours, a), add(theirs, b)], [zero(), zero()])
  say('over HTTP, the whole way of a request', ...total, 150, 2.5)
  await http.close()
}

const add = (a: Spent, b: Spent): Spent => ({ cpu: a.cpu + b.cpu, wall: a.wall + b.wall })

/** The doorkeeper on the files of practices after ten years and more. */
export async function benchHouse(): Promise<void> {
  for (const [bookings, people] of SIZES) {
    console.log(`\nA house with ${bookings} bookings of ${people} people`)
    const years = await relayOfYears(bookings, people)
    await acts(years.relay)
    await openings(years.relay)
    await idle(years.relay)
    if (bookings === SIZES[0]![0]) await handling(years.relay)
    await years.close()
  }
}
