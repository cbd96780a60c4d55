import 'fake-indexeddb/auto'
import type { EnquiryNews } from '@acolhida/core/contract'
import type { DeskEnquiry } from '@acolhida/core/formats'
import type { Practice, SequenceStep } from '@acolhida/core/practice'
import { DAY, duration, HOUR, type Instant, parseInstant, shift } from '@acolhida/core/time'
import type { LineEvent } from '@acolhida/core/waiting'
import { demoBackup } from '@acolhida/demo'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { DeskDatabase } from '../data/database.ts'
import { lineRow } from '../data/lines-in.ts'
import { enquirerLines } from './enquirer-lines.ts'
import { notSentInLine } from './not-sent.ts'

const now = parseInstant('2026-11-24T11:00Z')
const step = (id: string, change: Partial<SequenceStep> = {}): SequenceStep => ({
  ...{ id, anchor: 'quoted', before: false, by: duration('PT24H'), channel: 'email', text: 't' },
  ...change,
})
const demo = demoBackup(now).practice
const practice: Practice = {
  ...demo,
  sequences: [
    { id: 'q', name: 'Q', steps: [step('chase'), step('draft', { by: duration('PT1H'), draft: true })] },
  ],
  texts: [{ id: 't', name: 'T', subject: 'Still', body: 'It still stands.' }],
  services: demo.services.map((service) => ({ ...service, sequence: 'q' })),
}
const quoted = (at: Instant): EnquiryNews => ({
  ...{ news: 'quoted', at, text: '', id: 'quote-0123456789abcdef' },
  quote: {
    ...{ service: 'voice-assessment', minutes: 75, lines: [], price: 9_500, currency: 'EUR' },
    until: shift(now, 3 * DAY),
  },
})
const enquiry = (id: string, history: EnquiryNews[], at = shift(now, -DAY)): DeskEnquiry => ({
  ...{ id, at, name: id, email: `${id}@example.org`, message: 'Hello.', answers: {}, attempts: [] },
  ...{ state: history.length > 0 ? 'answered' : 'open', history },
})

let db: DeskDatabase
let nth = 0
beforeEach(() => {
  db = new DeskDatabase(`lines-${++nth}`)
})
afterEach(() => db.delete())
const lines = async (days = 7) =>
  (await enquirerLines(db, practice, now, shift(now, days * DAY))).map((line) => [
    line.enquiry.id,
    line.is,
    line.is === 'failed' ? line.mail.step : line.step.step,
  ])

it('what is to go to whoever has a quote is told, and what lies before the practitioner, until it is answered', async () => {
  const answered: EnquiryNews = { news: 'answered', at: shift(now, -HOUR), text: 'So.' }
  await db.enquiries.bulkPut([
    enquiry('waits', [quoted(shift(now, -2 * HOUR))]),
    enquiry('answered', [quoted(shift(now, -2 * HOUR)), answered]),
    enquiry('wrote', []),
    enquiry('long-ago', [quoted(shift(now, -2 * HOUR))], shift(now, -200 * DAY)),
  ])
  expect(await lines()).toEqual([
    ['answered', 'planned', 'step:chase'],
    ['waits', 'draft', 'step:draft'],
    ['waits', 'planned', 'step:chase'],
  ])
  // Within an hour nothing goes but what lies there already.
  expect(await lines(0)).toEqual([['waits', 'draft', 'step:draft']])
})

it('what could not be sent to somebody in line is told with their place, while they are in line', async () => {
  const joined: LineEvent = {
    ...{ type: 'joined', at: now, service: 'voice-assessment', place: 'studio', minutes: 75, price: 0 },
    person: { name: 'Nadia', email: 'nadia@example.org', zone: 'Europe/Lisbon' },
    ...{ answers: {}, attempts: [], agreements: [], windows: [] },
  }
  const left: LineEvent = { type: 'ended', at: now, by: 'client', why: 'left', text: '' }
  await db.lines.bulkPut([lineRow('waits', [joined]), lineRow('left', [joined, left])])
  const mail = (n: number, booking: string, state: 'sent' | 'failed', at = now) => ({
    ...{ n, at, booking, step: 'freed-time', anchor: n, to: 'nadia@example.org', state, due: now },
    subject: 'A time is free',
  })
  await db.mails.bulkPut([
    mail(1, 'waits', 'failed'),
    mail(2, 'waits', 'sent'),
    mail(3, 'left', 'failed'),
    mail(4, 'waits', 'failed', shift(now, -20 * DAY)),
  ])
  expect((await notSentInLine(db, now)).map(({ mail, row }) => [mail.n, row.id])).toEqual([[1, 'waits']])
})

it('what could not be sent is told by what became of it last', async () => {
  await db.enquiries.put(enquiry('waits', [quoted(shift(now, -2 * HOUR))]))
  const mail = (n: number, state: 'waiting' | 'sent' | 'failed', step_ = 'quote') => ({
    ...{ n, at: shift(now, -n), booking: 'waits', step: step_, anchor: 2, to: 'waits@example.org' },
    ...{ state, subject: 'A quote', due: now },
  })
  await db.mails.bulkPut([mail(1, 'waiting')])
  expect(await lines(0)).toContainEqual(['waits', 'failed', 'quote'])
  await db.mails.bulkPut([mail(2, 'sent'), mail(3, 'sent', 'step:chase')])
  expect(await lines()).toEqual([['waits', 'draft', 'step:draft']])
})
