import { apply, type Booking, begin } from '@acolhida/core/booking'
import { plannedLetters, previewStep, stepsOf } from '@acolhida/core/messages'
import type { Practice, SequenceStep } from '@acolhida/core/practice'
import { DAY, duration, HOUR, type Instant, instant, parseInstant, shift, time } from '@acolhida/core/time'
import { IntlMessageFormat } from 'intl-messageformat'
import { DateTime } from 'luxon'
import { sampleAsked } from '../core/tests/asked.ts'
import { samplePractice, sampleService } from '../core/tests/sample.ts'
import { sideBySide } from './side-by-side.ts'

const step = (id: string, by: string, at?: string): SequenceStep => ({
  ...{ id, anchor: 'start', before: true, by: duration(by), channel: 'email', text: 't' },
  ...(at ? { at: time(at) } : {}),
})

/** Everything that a text of ours can hold of a booking, said by both. */
const BODY =
  'Dear {firstName}, this is to remind you: {service} is on {when}, for {minutes} minutes. {place} The price is {price}; {open} is still to be paid by {payBy}. Free to cancel until {freeUntil}; you can move it until {moveUntil}. {link} {move} {cancel} {door} {practitioner}'

const practice: Practice = samplePractice({
  services: [sampleService({ sequence: 'q', price: { kind: 'fixed', amount: 9_500 } })],
  sequences: [
    { id: 'q', name: 'Q', steps: [step('a', 'P1W'), step('b', 'P1D', '18:00'), step('c', 'PT4H')] },
  ],
  texts: [{ id: 't', name: 'T', subject: '{service}, {start}', body: BODY }],
  messaging: { quiet: { from: time('21:00'), to: time('07:00') } },
})

/** How many bookings are planned in one go. */
const MANY = 500

function bookings(): Booking[] {
  const first = parseInstant('2027-01-04T10:00Z')
  return Array.from({ length: MANY }, (_, i) => {
    const start = shift(first, i * DAY + (i % 9) * HOUR)
    const at = shift(start, -30 * DAY)
    const person = { name: 'Tomé Arrais', email: 'tome@example.org', zone: 'Europe/Lisbon' }
    return apply(begin(`b${i}`, sampleAsked({ at: shift(at, -HOUR), start, person })), {
      ...{ type: 'welcomed', at, by: 'rules', settles: at },
    })
  })
}

/** The same dates as a sensible engineer would reckon them with luxon. */
function withLuxon(start: Instant): number[] {
  const there = DateTime.fromMillis(start, { zone: 'Europe/Lisbon' })
  const quiet = (moment: DateTime): number => {
    const clock = moment.hour * 60 + moment.minute
    if (clock <= 21 * 60 && clock >= 7 * 60) return moment.toMillis()
    const day = clock < 7 * 60 ? moment.minus({ days: 1 }) : moment
    return day.set({ hour: 21, minute: 0, second: 0, millisecond: 0 }).toMillis()
  }
  return [
    there.minus({ weeks: 1 }),
    there.minus({ days: 1 }).set({ hour: 18, minute: 0, second: 0, millisecond: 0 }),
    there.minus({ hours: 4 }),
  ].map(quiet)
}

/** Planning against luxon; replanning one; rendering against the message library alone. */
export async function benchMessages(): Promise<void> {
  const all = bookings()
  const ours = all.flatMap((booking) => stepsOf(booking, practice).map(({ at }) => at as number))
  const theirs = all.flatMap(({ start }) => withLuxon(start))
  if (ours.some((at, i) => at !== theirs[i])) throw new Error('They do not agree on when something goes.')
  const planning = await sideBySide(
    {
      ours: () => all.map((booking) => stepsOf(booking, practice)),
      whole: () => all.map((booking) => plannedLetters(booking, practice)),
      luxon: () => all.map(({ start }) => withLuxon(start)),
    },
    60,
    10,
  )
  console.log(
    `Planning ${MANY} bookings of three steps: ${(planning.ours / 1_000).toFixed(1)} ms, luxon ${(planning.luxon / 1_000).toFixed(1)} ms: ${(planning.luxon / planning.ours).toFixed(1)}× (goal 20); with every other letter ${(planning.whole / 1_000).toFixed(1)} ms`,
  )
  const booking = all[0]!
  const text = practice.texts![0]!
  const one = practice.sequences![0]!.steps[0]!
  const now = instant(booking.start - DAY)
  const said = previewStep(practice, booking, one, text, now)
  // The library is given what is to be written as it is: words, amounts and moments.
  const moments = ['when', 'payBy', 'freeUntil', 'moveUntil', 'start']
  const amounts = ['price', 'open']
  const asMessage = (source: string): string =>
    source.replaceAll(/\{(\w+)\}/g, (whole, name: string) =>
      moments.includes(name)
        ? `{${name}, date, ::EEEEdMMMM} {${name}, time, short}`
        : amounts.includes(name)
          ? `{${name}, number, ::currency/EUR}`
          : whole,
    )
  const names = ['start', ...[...BODY.matchAll(/\{(\w+)\}/g)].map(([, name]) => String(name))]
  const values = Object.fromEntries(
    names.map((name) => [
      name,
      moments.includes(name) ? now : amounts.includes(name) ? 95 : 'some words here',
    ]),
  )
  const body = new IntlMessageFormat(asMessage(BODY), 'en-GB')
  const subject = new IntlMessageFormat(asMessage('{service}, {start}'), 'en-GB')
  if (!said.text.includes('Dear Tomé')) throw new Error('It was not filled in.')
  const rendering = await sideBySide(
    {
      ours: () => {
        for (let i = 0; i < 200; i++) previewStep(practice, booking, one, text, now)
      },
      library: () => {
        for (let i = 0; i < 200; i++) {
          body.format(values)
          subject.format(values)
        }
      },
    },
    60,
    10,
  )
  const each = rendering.ours / 200
  console.log(
    `Rendering with all fields: ${each.toFixed(0)} µs each, ${Math.round(1_000_000 / each).toLocaleString('en-GB')} a second (goal 5,000); ${(rendering.ours / rendering.library).toFixed(1)}× the message library alone, which is given every moment and amount (goal 2)`,
  )
}
