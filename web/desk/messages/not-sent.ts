import type { SentMail } from '@acolhida/core/formats'
import { nameOfMail } from '@acolhida/core/messages'
import { DAY, type Instant, shift } from '@acolhida/core/time'
import type { DeskDatabase } from '../data/database.ts'
import type { LineRow } from '../data/tables.ts'

/** How far back what failed is shown, in days. */
const RECENT = 14

/** What has not gone, as far as is known. */
const NOT_SENT: ReadonlySet<SentMail['state']> = new Set(['failed', 'unknown', 'waiting'])

/** What lately could not be sent and still has not been, the newest first: the last of one message is what became of it. */
export function notSent(mails: readonly SentMail[], now: Instant): SentMail[] {
  const latest = new Map<string, SentMail>()
  for (const mail of mails) {
    const key = `${mail.booking} ${nameOfMail(mail)}`
    const before = latest.get(key)
    if (!before || mail.n > before.n) latest.set(key, mail)
  }
  return [...latest.values()]
    .filter(({ state, at }) => NOT_SENT.has(state) && at > shift(now, -RECENT * DAY))
    .sort((a, b) => b.at - a.at)
}

/** What lately could not be sent to those in line, with whose place it is. */
export async function notSentInLine(
  db: DeskDatabase,
  now: Instant,
): Promise<{ mail: SentMail; row: LineRow }[]> {
  const rows = new Map((await db.lines.where('open').equals(1).toArray()).map((row) => [row.id, row]))
  const mails = await db.mails
    .where('booking')
    .anyOf([...rows.keys()])
    .toArray()
  return notSent(mails, now).map((mail) => ({ mail, row: rows.get(mail.booking)! }))
}
