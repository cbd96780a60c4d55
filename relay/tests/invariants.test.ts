import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { type BookingEvent, replay, takes } from '@acolhida/core/booking'
import { termsInForce } from '@acolhida/core/practice'
import { versionFingerprint } from '@acolhida/core/terms'
import { HOUR, MINUTE } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import fc from 'fast-check'
import { afterAll, expect, it } from 'vitest'
import { MovableClock } from '../clock.ts'
import { furnish } from '../demo.ts'
import { command } from '../desk/desk.ts'
import { throughLink } from '../door/link.ts'
import { keep, openingsFor, send } from '../door/visit.ts'
import { Refused } from '../refused.ts'
import { lapseDue } from '../rounds.ts'
import { Store } from '../store/store.ts'
import { ANSWERS } from './setup.ts'

const folder = mkdtempSync(join(tmpdir(), 'acolhida-invariants-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const address = (path: string): string => `http://door${path}`
const VISITS = ['visit-of-the-first-one', 'visit-of-the-second-one', 'visit-of-the-third-one']

/** What anybody may try, with numbers that pick among what there is. */
type Try =
  | { who: 'client'; does: 'keep' | 'send'; visit: number; nth: number }
  | { who: 'client'; does: 'withdraw' | 'cancel' | 'refuse' | 'accept'; booking: number; nth: number }
  | {
      who: 'desk'
      does: 'welcome' | 'decline' | 'offer' | 'take-back' | 'cancel' | 'move'
      booking: number
      nth: number
    }
  | { who: 'time'; ms: number }

const small = fc.nat({ max: 40 })
const tries: fc.Arbitrary<Try> = fc.oneof(
  fc.record({
    who: fc.constant('client' as const),
    does: fc.constantFrom('keep' as const, 'send' as const),
    visit: fc.nat({ max: 2 }),
    nth: small,
  }),
  fc.record({
    who: fc.constant('client' as const),
    does: fc.constantFrom('withdraw' as const, 'cancel' as const, 'refuse' as const, 'accept' as const),
    booking: small,
    nth: small,
  }),
  fc.record({
    who: fc.constant('desk' as const),
    does: fc.constantFrom(
      'welcome' as const,
      'decline' as const,
      'offer' as const,
      'take-back' as const,
      'cancel' as const,
      'move' as const,
    ),
    booking: small,
    nth: small,
  }),
  fc.record({
    who: fc.constant('time' as const),
    ms: fc.constantFrom(1_000, 9_000, 11 * MINUTE, 5 * HOUR, 26 * HOUR),
  }),
)

class House {
  readonly clock = new MovableClock()
  readonly store: Store
  #sent = 0

  constructor(name: string) {
    this.store = new Store(join(folder, `${name}.sqlite`))
    furnish(this.store, demoBackup(this.clock.now()), this.clock.now())
  }

  get bookings() {
    return [...this.store.bookings()]
  }

  starts(visit: string) {
    return openingsFor(
      this.store,
      { visit, service: 'voice-assessment', place: 'studio', answers: ANSWERS, days: 30 },
      this.clock.now(),
    ).starts
  }

  /** Tries one thing; a refusal is an answer like any other. */
  attempt(one: Try): boolean {
    try {
      this.#do(one)
      return true
    } catch (error) {
      if (error instanceof Refused) return false
      throw error
    }
  }

  #do(one: Try): void {
    const now = this.clock.now()
    if (one.who === 'time') {
      this.clock.forward(one.ms)
      lapseDue(this.store, this.clock, address)
      return
    }
    if ('visit' in one) {
      const visit = VISITS[one.visit]!
      const starts = this.starts(visit)
      const start = starts[one.nth % Math.max(1, starts.length)] ?? 0
      const wanted = { visit, service: 'voice-assessment', place: 'studio', start, answers: ANSWERS }
      if (one.does === 'keep') keep(this.store, wanted, now)
      else {
        const { practice } = this.store.package!
        const service = practice.services.find((other) => other.id === wanted.service)!
        const agreed = termsInForce(practice, service).map(({ id, version }) => ({
          terms: id,
          number: version.number,
          fingerprint: versionFingerprint(id, version),
        }))
        const person = {
          name: 'Somebody',
          email: `somebody-${++this.#sent}@example.org`,
          zone: 'Europe/Lisbon',
        }
        this.store.act(() => send(this.store, address, { ...wanted, clock: now, person, agreed }, now))
      }
      return
    }
    const booking = this.bookings[one.booking % this.bookings.length]!
    const starts = this.starts(VISITS[0]!)
    const start = starts[one.nth % Math.max(1, starts.length)] ?? 0
    if (one.who === 'client') {
      const secret = this.store.act(() => this.store.addLink(booking.id, true))
      const offer = booking.offers[one.nth % Math.max(1, booking.offers.length)] ?? {
        start: booking.start,
        place: booking.place,
      }
      const what =
        one.does === 'accept'
          ? { do: 'accept' as const, ...offer }
          : one.does === 'cancel'
            ? { do: 'cancel' as const, by: 'client' as const, text: '' }
            : one.does === 'refuse'
              ? { do: 'refuse' as const, text: '' }
              : { do: 'withdraw' as const }
      this.store.act(() => throughLink(this.store, address, secret, what, now))
      return
    }
    const place = booking.place
    const COMMANDS = {
      welcome: { do: 'welcome' },
      decline: { do: 'decline', text: 'no' },
      offer: { do: 'offer', text: '', starts: [{ start, place }] },
      'take-back': { do: 'take-back', of: booking.seq },
      cancel: { do: 'cancel', by: 'practitioner', text: '' },
      move: { do: 'move', start, place, minutes: booking.asked.minutes, text: '', clash: false },
    } as const
    this.store.act(() =>
      command(this.store, address, { booking: booking.id, command: COMMANDS[one.does] as never }, now),
    )
  }

  /** Nothing that is kept for one meets what is kept for another; groups share their time. */
  overlaps(): string[] {
    const now = this.clock.now()
    const kept = this.bookings
      .filter((one) => one.asked.service !== 'reading-aloud')
      .flatMap((one) =>
        takes(one, now).starts.map(({ start }) => ({
          id: one.id,
          from: start,
          to: start + one.asked.minutes * MINUTE,
        })),
      )
    return kept.flatMap((a, i) =>
      kept
        .slice(i + 1)
        .flatMap((b) => (a.id !== b.id && a.from < b.to && b.from < a.to ? [`${a.id} and ${b.id}`] : [])),
    )
  }
}

it('never keeps one time for two, whatever clients, desk and time do in whatever order', {
  timeout: 120_000,
}, () => {
  let count = 0
  let done = 0
  fc.assert(
    fc.property(fc.array(tries, { minLength: 5, maxLength: 30 }), (list) => {
      const house = new House(`run-${++count}`)
      for (const one of list) {
        if (house.attempt(one)) done++
        expect(house.overlaps()).toEqual([])
      }
      // What is remembered is what the record tells, after a start anew.
      const before = new Map(house.bookings.map((one) => [one.id, one]))
      house.store.close()
      const again = new Store(join(folder, `run-${count}.sqlite`))
      for (const booking of again.bookings()) expect(booking).toEqual(before.get(booking.id))
      const rows = again.db
        .prepare(`SELECT subject, body FROM record WHERE kind = 'booking' ORDER BY subject, seq`)
        .all() as { subject: string; body: string }[]
      const records = new Map<string, BookingEvent[]>()
      for (const { subject, body } of rows)
        records.set(subject, [...(records.get(subject) ?? []), JSON.parse(body) as BookingEvent])
      for (const [id, record] of records) expect(replay(id, record)).toEqual(before.get(id))
      again.close()
    }),
    { numRuns: 60 },
  )
  expect(done).toBeGreaterThan(100)
})
