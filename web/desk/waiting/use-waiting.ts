import { holdsFor, leadsTo } from '@acolhida/core/booking'
import { type Asker, newClient } from '@acolhida/core/openings'
import { normalMail, standingFrom } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import { type Instant, zone } from '@acolhida/core/time'
import { type Freed, isInLine, lineAt, stillToAsk, type Waiting, waitingAmong } from '@acolhida/core/waiting'
import { useLiveQuery } from 'dexie-react-hooks'
import { db } from '../data/db.ts'
import type { PersonRow } from '../data/rows.ts'
import type { FreedRow, LineRow } from '../data/tables.ts'

/** Who stands behind those in line. */
export interface ThoseInLine {
  /** The people, by their addresses. */
  people: ReadonlyMap<string, PersonRow>
  /** The bookings that somebody would rather have earlier, and when they begin. */
  instead: ReadonlyMap<string, Instant>
}

/** Everybody in line, with who they are. */
export interface InLine extends ThoseInLine {
  lines: LineRow[]
}

/** Who stands behind places in line. Within a live query it is looked at again when that changes. */
export async function thoseInLine(lines: readonly LineRow[]): Promise<ThoseInLine> {
  const mails = new Set(lines.map(({ mail }) => mail))
  const people = await db.people
    .where('emails')
    .anyOf([...mails])
    .toArray()
  const bookings = await db.bookings.bulkGet(lines.flatMap(({ line }) => line.joined.instead ?? []))
  return {
    people: new Map(people.flatMap((one) => one.emails.map((mail) => [mail, one] as const))),
    instead: new Map(
      bookings.flatMap((own) => (own?.status === 'booked' ? [[own.id, own.start] as const] : [])),
    ),
  }
}

/** Who is in line at a moment: not those who have still to prove their address. */
export const inLineNow = (lines: readonly LineRow[], now: Instant): LineRow[] =>
  lines.filter(({ line }) => isInLine(lineAt(line, now))).sort((a, b) => a.line.joined.at - b.line.joined.at)

/** Those whose place in line is open, and the people behind them, live; nothing while it loads. */
export const useInLine = (): InLine | undefined =>
  useLiveQuery(async () => {
    const lines = await db.lines.where('open').equals(1).toArray()
    return { lines, ...(await thoseInLine(lines)) }
  })

/** The freed times that are not over, the earliest first; and the last ones that are. */
export const useFreed = (): { open: FreedRow[]; past: FreedRow[] } | undefined =>
  useLiveQuery(async () => {
    const open = await db.freed.where('open').equals(1).toArray()
    const last = await db.freed.orderBy('at').reverse().limit(60).toArray()
    return {
      open: open.sort((a, b) => a.freed.from - b.freed.from),
      past: last.filter(({ freed }) => freed.ended !== undefined),
    }
  })

/** Who somebody in line is to openings, by their address. */
export const askerBy =
  ({ people }: ThoseInLine, practice: Practice, now: Instant) =>
  (email: string): Asker => {
    const person = people.get(normalMail(email))
    return {
      ...newClient,
      standing: standingFrom(person?.knownFrom, now),
      blocked: person !== undefined && mayNot(practice, person, now),
      // Whoever waits for a service was let in to it.
      invited: practice.services.map(({ id }) => id),
    }
  }

/** Whether nothing is held out to somebody: they are blocked, or may book nothing online for a time. */
function mayNot(practice: Practice, { blocked, exempt, counted }: PersonRow, now: Instant): boolean {
  const leads = practice.houseRules.counting?.leads ?? []
  const holds = exempt ? [] : holdsFor(leads, counted ?? [], now, zone(practice.profile.zone))
  return blocked || leadsTo(holds, 'not-online')
}

/** Those in line, all or for one freed time, as it looks at them. */
export const waitingIn = (
  practice: Practice,
  { lines, instead }: Pick<InLine, 'lines' | 'instead'>,
  now: Instant,
  freed: Partial<Pick<Freed, 'id' | 'skipped'>> = {},
): Waiting[] =>
  waitingAmong(
    practice,
    stillToAsk(
      lines.map(({ line }) => line),
      freed,
      now,
    ),
    (booking) => instead.get(booking),
  )
