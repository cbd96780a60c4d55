import { type BookingEvent, type StoredEvent, upcast } from '@acolhida/core/booking'
import type { RecordLine } from '@acolhida/core/formats/record-csv'
import type { Practice } from '@acolhida/core/practice'
import { formatInstant, type Instant } from '@acolhida/core/time'
import type { DeskDatabase } from '../data/database.ts'
import { serviceName } from '../parts/words.ts'
import { happenedWords } from '../request/happened-words.ts'

/** What can have happened, as it is filtered by. */
export const HAPPENINGS = {
  all: 'Everything',
  asking: 'Asking and answering',
  changing: 'Moving and cancelling',
  going: 'How it went',
  agreeing: 'Agreeing',
  money: 'Money',
  writing: 'Writing',
} as const
export type HappeningKind = keyof typeof HAPPENINGS

const OF: Record<BookingEvent['type'], HappeningKind> = {
  asked: 'asking',
  proved: 'asking',
  welcomed: 'asking',
  declined: 'asking',
  offered: 'asking',
  accepted: 'asking',
  refused: 'asking',
  questioned: 'asking',
  replied: 'asking',
  lapsed: 'asking',
  withdrawn: 'asking',
  'taken-out': 'asking',
  overruled: 'asking',
  moved: 'changing',
  cancelled: 'changing',
  pleaded: 'changing',
  excepted: 'changing',
  'taken-back': 'changing',
  'running-late': 'going',
  attended: 'going',
  missed: 'going',
  forgiven: 'going',
  agreed: 'agreeing',
  'asked-to-sign': 'agreeing',
  concerns: 'changing',
  paid: 'money',
  'given-back': 'money',
  adjusted: 'money',
  'till-asked': 'money',
  'till-said': 'money',
  charged: 'money',
  invoiced: 'money',
  coming: 'going',
  prepared: 'going',
  'to-prepare': 'going',
  written: 'writing',
  steered: 'writing',
  unwanted: 'writing',
  speaks: 'writing',
}

/** One line on the page: its words, and what it belongs to. */
export interface ToldLine extends RecordLine {
  moment: Instant
  seq: number
}

/** Everything that happened in a stretch of time, the newest first, in words. */
export async function recordLines(
  db: DeskDatabase,
  practice: Practice,
  { from, to, kind, search }: { from: Instant; to: Instant; kind: HappeningKind; search: string },
): Promise<ToldLine[]> {
  const rows = await db.events.where('event.at').between(from, to, true, true).toArray()
  const ids = [...new Set(rows.map(({ booking }) => booking))]
  const bookings = new Map((await db.bookings.bulkGet(ids)).flatMap((row) => (row ? [[row.id, row]] : [])))
  const wanted = search.trim().toLowerCase()
  const lines: ToldLine[] = []
  for (const id of ids) {
    const booking = bookings.get(id)
    if (!booking) continue
    const { name, email } = booking.asked.person
    if (wanted && !`${name} ${email}`.toLowerCase().includes(wanted)) continue
    const record = await db.events
      .where('[booking+seq]')
      .between([id, 0], [id, Number.POSITIVE_INFINITY])
      .toArray()
    const events = record.map(({ event }) => upcast(event as StoredEvent))
    const words = happenedWords(practice, events)
    events.forEach((event, i) => {
      if (event.at < from || event.at > to || (kind !== 'all' && OF[event.type] !== kind)) return
      lines.push({
        moment: event.at,
        seq: i + 1,
        at: formatInstant(event.at),
        booking: id,
        name,
        service: serviceName(practice, booking.service),
        what: event.type,
        words: words[i] ?? '',
      })
    })
  }
  return lines.sort((a, b) => b.moment - a.moment || b.seq - a.seq)
}
