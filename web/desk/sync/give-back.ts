import type { StoredEvent } from '@acolhida/core/booking'
import type { GiveBackBody } from '@acolhida/core/contract'
import { questionnaireOf, serviceOf } from '@acolhida/core/practice'
import type { CourseEvent } from '@acolhida/core/preparing'
import { type Answers, isAttached } from '@acolhida/core/questions'
import { chainHead } from '@acolhida/core/terms'
import { agreementsOf, type LineEvent } from '@acolhida/core/waiting'
import { newKey } from '../../relay-client/client.ts'
import { db } from '../data/db.ts'
import { deskRelay } from './relay.ts'
import { sealOwn, sealSome } from './sealing.ts'

/** How many characters of records go in one call. */
const AT_ONCE = 400_000

/** Answers as the relay may have them: what is private is sealed again. */
async function sealedFor(service: string, answers: Answers): Promise<Answers> {
  const practice = (await db.practice.get('practice'))?.practice
  const offered = practice && serviceOf(practice, service)
  const questions = practice && offered && questionnaireOf(practice, offered)?.questions
  return questions ? sealOwn(questions, answers) : answers
}

/** Gives a relay back what its file lacks of what it has told this desk before. */
export async function giveBackLacking(key: string): Promise<void> {
  const has = await deskRelay.holdings(key)
  const lacking = nothing()
  await db.bookings.each(({ id, seq }) => {
    if (seq > (has.bookings[id] ?? 0)) lacking.bookings.push({ id, events: [] })
  })
  for (const { id, events } of await db.lines.toArray())
    if (events.length > (has.lines[id] ?? 0)) lacking.lines.push({ id, events })
  for (const { id, events } of await db.freed.toArray())
    if (events.length > (has.freed[id] ?? 0)) lacking.freed.push({ id, events })
  for (const { id, events } of await db.courses.toArray())
    if (events.length > (has.courses[id] ?? 0)) lacking.courses.push({ id, events })
  for (const { state: _, history: __, ...enquiry } of await db.enquiries.toArray())
    if (!has.enquiries[enquiry.id]) lacking.enquiries.push(enquiry)

  const agreed = agreementsOf(
    await db.bookings.toArray(),
    await db.lines.toArray(),
    await db.courses.toArray(),
  ).map(({ agreement }) => agreement)
  const gone = (await db.forgotten.toArray()).flatMap((one) => one.agreements)
  const followed = new Set([...agreed, ...gone].map(({ previous }) => previous))
  const prints = [...agreed.map(chainHead), ...gone.map(({ print }) => print)]
  const head = prints.find((print) => !followed.has(print))
  // The relay's own head counts on where this desk does not know it.
  const chain = head !== undefined && (has.chain === '' || prints.includes(has.chain)) ? { chain: head } : {}

  let body = nothing()
  let size = 0
  const pass = async (more: Pick<GiveBackBody, 'chain' | 'numbered'> = {}): Promise<void> => {
    await deskRelay.giveBack({ ...body, ...more }, newKey(), key)
    body = nothing()
    size = 0
  }
  const add = async <N extends keyof Lacking>(name: N, record: Lacking[N][number]): Promise<void> => {
    const own = JSON.stringify(record).length
    if (size > 0 && size + own > AT_ONCE) await pass()
    ;(body[name] as Lacking[N][number][]).push(record)
    size += own
  }
  for (const { id } of lacking.bookings) await add('bookings', await recordOf(id))
  for (const { id, events } of lacking.lines) await add('lines', { id, events: await sealedLine(events) })
  for (const record of lacking.freed) await add('freed', record)
  for (const { id, events } of lacking.courses)
    await add('courses', { id, events: await sealedCourse(events) })
  for (const enquiry of lacking.enquiries) await add('enquiries', enquiry)
  const n = await lastNumber()
  await pass({ ...chain, ...(n > 0 ? { numbered: n } : {}) })
}

type Lacking = Required<Omit<GiveBackBody, 'chain' | 'numbered'>>
/** The last running number of an invoice that is known here, also of those whose booking the relay needs no more. */
async function lastNumber(): Promise<number> {
  let last = 0
  const see = (event: StoredEvent | CourseEvent): void => {
    if (event.type === 'invoiced') last = Math.max(last, event.n)
  }
  const ids = await db.bookings.filter(({ invoices }) => invoices !== undefined).primaryKeys()
  await db.events
    .where('booking')
    .anyOf(ids)
    .each(({ event }) => see(event))
  for (const { events } of await db.courses.toArray()) events.forEach(see)
  // Of forgotten people there is no more than the number as it stands on the invoice.
  for (const { invoices } of await db.forgotten.toArray())
    for (const { number } of invoices) last = Math.max(last, Number(/\d{1,9}$/.exec(number)?.[0] ?? 0))
  return last
}

const nothing = (): Lacking => ({ bookings: [], lines: [], freed: [], courses: [], enquiries: [] })

const sealedLine = (events: readonly LineEvent[]): Promise<LineEvent[]> =>
  Promise.all(
    events.map(async (event) =>
      event.type === 'joined' ? { ...event, answers: await sealedFor(event.service, event.answers) } : event,
    ),
  )

/** What people were given to answer is never in clear at the relay. */
const sealedCourse = (events: readonly CourseEvent[]): Promise<CourseEvent[]> =>
  Promise.all(
    events.map(async (event) =>
      event.type === 'answered'
        ? { ...event, answers: await sealSome(event.answers, (id) => !isAttached(event.answers[id])) }
        : event,
    ),
  )

async function recordOf(id: string): Promise<GiveBackBody['bookings'][number]> {
  const rows = await db.events
    .where('[booking+seq]')
    .between([id, 0], [id, Number.MAX_SAFE_INTEGER])
    .sortBy('seq')
  const events = await Promise.all(
    rows.map(async ({ event }) =>
      event.type === 'asked' ? { ...event, answers: await sealedFor(event.service, event.answers) } : event,
    ),
  )
  return { id, events }
}
