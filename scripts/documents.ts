import { readFileSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import {
  afterEvents,
  type Booking,
  type BookingEvent,
  begin,
  type Command,
  decide,
  replay,
  STATES,
  type StateName,
  stateAt,
} from '@acolhida/core/booking'
import { ANYTIME, away, desk, door, type Endpoint, others } from '@acolhida/core/contract'
import { DAY, HOUR, type Instant, shift, zone } from '@acolhida/core/time'
import { sampleAsked } from '../core/tests/asked.ts'

/** The parts of the documents that are made from the code, between marks, so that they can't say anything else. */
const docs = (name: string): string => resolve(import.meta.dirname, '..', 'docs', name)

type Any = Pick<
  Endpoint<unknown, unknown>,
  'method' | 'path' | 'says' | 'who' | 'largest' | 'status' | 'once' | 'codes' | 'rate'
>

const size = (bytes: number): string =>
  bytes === 0 ? '' : bytes >= 1_048_576 ? `${bytes / 1_048_576} MB` : `${bytes / 1_024} KB`

/** The calls of the contract as tables: who may call what, how much, and what it may be refused with. */
export function callsTable(): string {
  const rows = (side: Record<string, Any>): string[] => [
    '| call | body | happens once | what | refused with |',
    '|---|---|---|---|---|',
    ...Object.values(side).map(({ method, path, largest, once, codes, says, rate }) => {
      const limit = rate === undefined ? '' : ` At most ${rate} a minute.`
      return `| \`${method} ${path}\` | ${size(largest)} | ${once ? 'yes' : ''} | ${says}${limit} | ${codes.map((code) => `\`${code}\``).join(', ')} |`
    }),
  ]
  return [
    '### Door (an origin without a key)',
    '',
    ...rows(door),
    '',
    '### Desk (its own origin; all but `pair` and `status` with `Authorization: Bearer KEY`, or `not-paired`)',
    '',
    ...rows(desk),
    '',
    '### Away from the desk (the desk’s origin; by a word link, or with the paired phone’s `Authorization: Bearer KEY`)',
    '',
    ...rows(away),
    '',
    '### Bytes and streams',
    '',
    ...others.map(([call, says]) => `- \`${call}\`: ${says}`),
    '',
    `Anything may be refused with ${ANYTIME.map((code) => `\`${code}\``).join(', ')}.`,
  ].join('\n')
}

const there = zone('Europe/Lisbon')
const first = sampleAsked()
const begun = shift(first.at, HOUR)
const welcomed = { type: 'welcomed', at: begun, by: 'practitioner', settles: begun } as const
const other = { start: shift(first.start, DAY), place: 'video' }

/** A booking in each state, and the moment at which it is looked at. */
const examples: Record<StateName, { booking: Booking; now: Instant }> = (() => {
  const waiting = replay('example', [first])
  const booked = afterEvents(waiting, [welcomed])
  const later = shift(begun, HOUR)
  const offered: BookingEvent = {
    type: 'offered',
    at: begun,
    starts: [other],
    until: shift(begun, DAY),
    text: '',
    settles: begun,
  }
  const over = shift(first.start, 2 * HOUR)
  return {
    unproved: {
      booking: begin('example', sampleAsked({ proof: 'open', until: shift(first.at, 2 * HOUR) })),
      now: begun,
    },
    waiting: { booking: waiting, now: later },
    offered: { booking: afterEvents(waiting, [offered]), now: later },
    unpaid: {
      booking: afterEvents(waiting, [{ ...welcomed, owes: shift(begun, DAY) }]),
      now: later,
    },
    booked: { booking: booked, now: later },
    attended: { booking: { ...booked, status: 'attended' }, now: over },
    missed: { booking: { ...booked, status: 'missed' }, now: over },
    declined: {
      booking: afterEvents(waiting, [{ type: 'declined', at: begun, text: '', settles: begun }]),
      now: later,
    },
    lapsed: { booking: afterEvents(waiting, [{ type: 'lapsed', at: first.until }]), now: over },
    withdrawn: { booking: afterEvents(waiting, [{ type: 'withdrawn', at: begun }]), now: later },
    cancelled: {
      booking: afterEvents(booked, [
        { type: 'cancelled', at: begun, by: 'client', share: 0, text: '', settles: begun },
      ]),
      now: later,
    },
  }
})()

/** Every command there is, as it would be given. */
const COMMANDS: Record<Command['do'] | 'cancel (practitioner)', Command> = {
  prove: { do: 'prove' },
  accept: { do: 'accept', ...other },
  refuse: { do: 'refuse', text: '' },
  withdraw: { do: 'withdraw' },
  reply: { do: 'reply', text: 'So.' },
  plead: { do: 'plead', text: 'Please.' },
  agree: { do: 'agree', agreements: [] },
  'move-own': { do: 'move-own', ...other },
  cancel: { do: 'cancel', by: 'client', text: '' },
  welcome: { do: 'welcome' },
  decline: { do: 'decline', text: '' },
  ask: { do: 'ask', text: 'How long?' },
  offer: { do: 'offer', starts: [other], text: '' },
  move: { do: 'move', ...other, minutes: 75, text: '', clash: false },
  attend: { do: 'attend' },
  sign: { do: 'sign', terms: ['waiver'] },
  concern: { do: 'concern', others: { pays: { name: 'Ema' } } },
  pay: { do: 'pay', amount: 100, way: 'cash' },
  'give-back': { do: 'give-back', amount: 100, way: 'cash' },
  adjust: { do: 'adjust', amount: -100, text: 'So.' },
  invoice: { do: 'invoice' },
  'correct-invoice': { do: 'correct-invoice', number: '7', text: 'So.' },
  'till-ask': { do: 'till-ask', payment: 'payment-number-1', what: 'pay', amount: 100 },
  charge: { do: 'charge', payment: 'payment-number-2', amount: 100, text: 'So.' },
  'till-say': { do: 'till-say', payment: 'payment-number-1', message: 'm', says: 'paid', text: '' },
  'till-gave': { do: 'till-gave', payment: 'payment-number-1', n: 0, amount: 100 },
  'run-late': { do: 'run-late', minutes: 10 },
  miss: { do: 'miss' },
  except: { do: 'except', granted: true, text: '' },
  forgive: { do: 'forgive', text: 'Because.' },
  'cancel (practitioner)': { do: 'cancel', by: 'practitioner', text: '' },
  overrule: { do: 'overrule', outcome: 'look', text: 'Because.' },
  'take-back': { do: 'take-back', of: 1 },
  come: { do: 'come' },
  prepare: { do: 'prepare', done: true },
  unwant: { do: 'unwant', what: 'texts', on: true },
  speak: { do: 'speak', language: 'pt' },
  write: { do: 'write', channel: 'email', subject: 'So', text: 'So.' },
  steer: { do: 'steer', message: 'step:day-before/email/2', how: 'hold' },
  lapse: { do: 'lapse' },
}

/** What every command comes to in every state: the events, or the code of the refusal. */
export function statesTable(): string {
  const cell = (state: StateName, command: Command): string => {
    const { booking, now } = examples[state]
    if (stateAt(booking, now).is !== state)
      throw new Error(`The example of ${state} is ${stateAt(booking, now).is}.`)
    const decision = decide(booking, command, {
      now,
      zone: there,
      ticks: true,
      closuresOf: () => [],
      closedToClient: () => [],
      heldFromNow: () => shift(now, HOUR),
      offersUntil: () => shift(now, HOUR),
      invoice: () => ({ lines: [{ name: 'A session', quantity: 1, amount: 9_500 }], total: 9_500 }),
      nextInvoice: () => ({ n: 7, number: '7' }),
      proving: () => ({ until: shift(now, 24 * HOUR), straight: false, marks: [] }),
    })
    if ('refused' in decision) return `*${decision.refused.code}*`
    return decision.events.map(({ type }) => type).join(', ') || 'nothing'
  }
  return [
    `| | ${STATES.join(' | ')} |`,
    `|---|${STATES.map(() => '---').join('|')}|`,
    ...Object.entries(COMMANDS).map(
      ([name, command]) => `| ${name} | ${STATES.map((state) => cell(state, command)).join(' | ')} |`,
    ),
  ].join('\n')
}

/** Which document holds which made part. */
export const MADE = [
  ['relay.md', 'calls', callsTable],
  ['authority.md', 'states', statesTable],
] as const

/** A document with its made part put in. @throws Error where its marks are missing */
export function withPart(text: string, name: string, part: string): string {
  const open = `<!-- made from the code: ${name} -->`
  const close = `<!-- end of ${name} -->`
  const [before, rest] = text.split(open)
  const end = rest?.split(close)[1]
  if (before === undefined || end === undefined) throw new Error(`The marks of ${name} are missing.`)
  return `${before}${open}\n\n${part}\n\n${close}${end}`
}

export const documentOf = (file: string): string => readFileSync(docs(file), 'utf8')

if (process.argv[1] === import.meta.filename) {
  for (const [file, name, part] of MADE) writeFileSync(docs(file), withPart(documentOf(file), name, part()))
}
