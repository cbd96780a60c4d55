import type { Booking, DeskDoes } from '@acolhida/core/booking'
import type {
  DeskCourseDoes,
  DeskFreedDoes,
  DeskLineDoes,
  EndSeriesBody,
  EnterBody,
  MoveSeriesBody,
  QuoteBody,
  SeriesBody,
} from '@acolhida/core/contract'
import { type Practice, questionnaireOf, serviceOf } from '@acolhida/core/practice'
import type { Answers } from '@acolhida/core/questions'
import type { Instant } from '@acolhida/core/time'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { connectionRow } from '../data/database.ts'
import { db } from '../data/db.ts'
import type { Intention } from '../data/tables.ts'
import { problemWords } from '../parts/problem-words.ts'

const relay = async () => (await import('./relay.ts')).deskRelay

// The rounds with the relay, and what seals, come after the first page.
const rounds = () => import('./sync.ts')

/** Asks for a round, as soon as there can be one. */
export function roundSoon(): void {
  rounds()
    .then((sync) => sync.turnSoon())
    .catch(console.error)
}

/** One round with the relay. */
const turn = async (): Promise<void> => (await rounds()).turn()

export type Intended = Omit<Intention, 'order' | 'key' | 'at'>

/** Keeps what the relay is to be told. */
export const noteIntention = (intention: Intended): Promise<unknown> =>
  db.intentions.add({ ...intention, key: newKey(), at: relayNow() })

/** Keeps it, and passes it on as soon as the relay answers. */
async function intend(intention: Intended): Promise<void> {
  await noteIntention(intention)
  roundSoon()
}

/** Whom a command names, where it is somebody that no record tells of yet. */
export const personIn = (command: Intention['command']): string | undefined => {
  if (command.do === 'waiting')
    return command.body.command.do === 'join' ? command.body.command.person.name : undefined
  if (command.do === 'course')
    return command.body.command.do === 'give' ? command.body.command.person.name : undefined
  return 'body' in command && 'person' in command.body ? command.body.person.name : undefined
}

/** Decisions that are made on what is in force, and not where that has changed meanwhile. */
const ON_WHAT_IS = new Set<DeskDoes['do']>([
  ...(['welcome', 'decline', 'offer', 'ask', 'move', 'cancel', 'except'] as const),
])

/** A decision with the fingerprint of what it is made on; what makes that comes with the first decision. */
export async function decided(booking: Booking, command: DeskDoes): Promise<Intended> {
  const { printOfBooking } = await import('@acolhida/core/request')
  return {
    booking: booking.id,
    command,
    ...(ON_WHAT_IS.has(command.do) ? { seen: printOfBooking(booking) } : {}),
  }
}

/** Decides something about a booking as it is shown here. */
export const decideFor = async (booking: Booking, command: DeskDoes): Promise<void> =>
  intend(await decided(booking, command))

/** The answers of somebody on the phone, private ones sealed: they pass through the relay, too. */
async function sealedAnswers({
  service,
  answers,
}: Pick<EnterBody, 'service' | 'answers'>): Promise<{ answers?: Answers }> {
  const practice = (await db.practice.get('practice'))?.practice
  const of = practice && serviceOf(practice, service)
  if (!answers || !practice || !of) return {}
  const { sealOwn } = await import('./sealing.ts')
  return { answers: await sealOwn(questionnaireOf(practice, of)?.questions ?? [], answers) }
}

/** Books somebody in by hand; kept here at once, passed on as soon as the relay answers. */
export async function enterBooking(body: Omit<EnterBody, 'id'>): Promise<void> {
  const id = newKey()
  const answers = await sealedAnswers(body)
  await intend({ booking: id, command: { do: 'enter', body: { ...body, ...answers, id } } })
}

/** Books somebody in for several sessions, whole or not at all. */
export async function bookSeries(body: SeriesBody): Promise<void> {
  await intend({ booking: body.sessions[0]!.id, command: { do: 'series', body } })
}

/** Ends several sessions of somebody, whole or not at all. */
export async function cancelSeries(
  bookings: readonly Booking[],
  said: Omit<EndSeriesBody, 'bookings'>,
): Promise<void> {
  const { printOfBooking } = await import('@acolhida/core/request')
  const each = bookings.map((booking) => ({ booking: booking.id, seen: printOfBooking(booking) }))
  await intend({
    booking: each[0]!.booking,
    command: { do: 'end-series', body: { bookings: each, ...said } },
  })
}

/** Moves several sessions of somebody, each to a start of its own, whole or not at all. */
export async function moveSessions(
  moved: readonly { booking: Booking; start: Instant }[],
  said: Omit<MoveSeriesBody, 'bookings'>,
): Promise<void> {
  const { printOfBooking } = await import('@acolhida/core/request')
  const bookings = moved.map(({ booking, start }) => ({
    ...{ booking: booking.id, seen: printOfBooking(booking), start },
  }))
  await intend({
    booking: bookings[0]!.booking,
    command: { do: 'move-series', body: { bookings, ...said } },
  })
}

/** Answers somebody who has written, by mail. */
export async function answerEnquiry(enquiry: string, text: string): Promise<void> {
  const command = { do: 'answer' as const, body: { enquiry, text } }
  await intend({ booking: enquiry, command })
}

/** Does something with a place in line; answers of somebody on the phone are sealed as ever. */
export async function doInLine(line: string, command: DeskLineDoes): Promise<void> {
  const sealed =
    command.do === 'join' && command.answers
      ? { ...command, ...(await sealedAnswers({ service: command.service, answers: command.answers })) }
      : command
  await intend({ booking: line, command: { do: 'waiting', body: { line, command: sealed } } })
}

/** Does something with what somebody was given to do. */
export async function doWithCourse(course: string, command: DeskCourseDoes): Promise<void> {
  await intend({ booking: course, command: { do: 'course', body: { course, command } } })
}

/** Does something with a freed time. */
export async function doWithFreed(freed: string, command: DeskFreedDoes): Promise<void> {
  await intend({ booking: freed, command: { do: 'freed', body: { freed, command } } })
}

/** Sends a quote: for an enquiry there is, or as the beginning of one. */
export async function sendQuote(body: QuoteBody): Promise<void> {
  const command = { do: 'quote' as const, body: { ...body, ...(await sealedAnswers(body)) } }
  await intend({ booking: body.enquiry, command })
}

/** The practitioner has looked at the relay's clock: it is right as it is, or has been set back. */
export async function releaseClock(back: boolean): Promise<void> {
  const { key } = await connectionRow(db)
  if (key) await (await relay()).release(back, key)
  await turn()
}

/** Takes back what has not gone out yet, or puts a refusal aside. */
export const dropIntention = (order: number): Promise<void> => db.intentions.delete(order)

/** What is to be agreed to before a desk is paired: `said` tells what it does to others. */
export interface ToAgree {
  agree: 'replace' | 'empty'
  said: string
}

/**
 * Pairs this desk with the relay.
 * @param agreed that a desk paired before is cut off, and that what the relay holds of another practice goes
 * @returns what is still to be agreed to, where something is
 * @throws RelayError when the code is wrong or the relay can't be reached
 */
export async function pairWith(
  code: string,
  agreed: { replace?: boolean; empty?: boolean } = {},
): Promise<ToAgree | undefined> {
  const row = await db.practice.get('practice')
  if (!row) throw new Error('There is no practice to pair yet.')
  try {
    const { key } = await (await relay()).pair({
      code,
      practice: row.practice.id,
      replace: agreed.replace ?? false,
      ...(agreed.empty ? { empty: 'others' } : {}),
    })
    await db.connection.put({ ...(await connectionRow(db)), key })
  } catch (error) {
    const code = error instanceof RelayError ? error.code : undefined
    if (code === 'paired-already') return { agree: 'replace', said: problemWords(error) }
    if (code === 'another-practice') return { agree: 'empty', said: problemWords(error) }
    throw error
  }
  await turn()
  return undefined
}

/** A new code for pairing another browser with the relay. @throws RelayError when it can't be reached */
export async function newCode(): Promise<string> {
  const { key } = await connectionRow(db)
  if (!key) throw new Error('This desk is not paired itself.')
  return (await (await relay()).code(key)).code
}

/** Pairs a phone with the day: the address to open on it. The phone before ends. */
export async function pairPhone(): Promise<string> {
  const { key } = await connectionRow(db)
  if (!key) throw new Error('This desk is not paired itself.')
  return (await (await relay()).phone(key)).url
}

/** Ends the paired phone, or every link in a mail by which a request can be answered. */
export async function endAway(what: 'phone' | 'words'): Promise<void> {
  const { key } = await connectionRow(db)
  if (!key) throw new Error('This desk is not paired itself.')
  await (await relay()).end(what, key)
}

/** The demo's practice comes here as the relay has it, with the key to that. */
async function takeDemo(key: string): Promise<void> {
  const { readBackup } = await import('@acolhida/core/schemas')
  await (await import('../data/backup.ts')).importBackup(
    db,
    readBackup(JSON.stringify(await (await relay()).demo()), 'The demo'),
    key,
  )
  await turn()
}

/** The id of the demo practice. @throws Error when the relay has none */
async function demoId(): Promise<string> {
  const { demo } = await (await relay()).status()
  if (!demo) throw new Error('There is no demo here.')
  return demo
}

/**
 * Looks round the demo: its practice comes here, and this desk is paired with its relay.
 * @param empty whether it begins anew there, too, or only where the relay holds another practice
 * @param typed the code that the relay has printed; a desk that is paired asks for one itself
 */
export async function lookRound(empty: 'others' | 'all', typed?: string): Promise<void> {
  const practice = await demoId()
  const code = typed ?? (await newCode())
  const { key } = await (await relay()).pair({ code, practice, replace: true, empty })
  await takeDemo(key)
}

/** The address printed when the demo starts: pairs this browser, once, and brings the demo's practice along. */
export async function arriveByCode(code: string): Promise<void> {
  const { key } = await (await relay()).pair({ code, practice: await demoId(), replace: false })
  history.replaceState(null, '', location.pathname)
  await takeDemo(key)
}

/**
 * Begins a practice in place of everything in this browser.
 * @param pairing takes the demo's relay over, which is emptied for it; or a code, which pairs where nobody is hurt by it
 */
export async function beginOwn(
  practice: Practice,
  pairing: { takesDemo: true; code?: string } | { code: string | undefined },
): Promise<void> {
  // Asked for while this desk still has the key to it.
  const ours = 'takesDemo' in pairing ? (pairing.code ?? (await newCode())) : undefined
  await (await import('../data/backup.ts')).importBackup(db, {
    format: 'acolhida-backup',
    version: 1,
    practice,
    people: [],
    bookings: [],
    enquiries: [],
    mails: [],
    sessions: [],
    salt: newKey(),
    revision: 0,
    cursor: 0,
  })
  if (ours) await pairWith(ours, { replace: true, empty: true })
  else if (pairing.code) await pairWith(pairing.code)
}
