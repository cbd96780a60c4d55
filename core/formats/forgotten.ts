import type { StoredEvent } from '../booking/index.ts'
import { mailHash } from '../people/index.ts'
import type { CourseEvent } from '../preparing/index.ts'
import { isAttached } from '../questions/values.ts'
import type { Instant } from '../time/index.ts'
import type { Backup, ForgottenPerson } from './files.ts'

/** Whether something that began at a moment with an address was somebody's who has been forgotten since. */
export function forgottenBy(
  forgotten: readonly ForgottenPerson[],
  salt: string,
): (email: string, at: Instant) => boolean {
  const until = new Map<string, number>()
  for (const { hashes, at } of forgotten)
    for (const hash of hashes) until.set(hash, Math.max(at, until.get(hash) ?? 0))
  if (until.size === 0) return () => false
  return (email, at) => at < (until.get(mailHash(email, salt)) ?? 0)
}

/** Whose a record is, and when it began. */
const begunBy = ({
  events: [first],
}: {
  events: readonly object[]
}): { email: string; at: Instant } | undefined => {
  const { person, at } = (first ?? {}) as { person?: { email: string }; at?: Instant }
  return person && at !== undefined ? { email: person.email, at } : undefined
}

/** The files that records name, brought or as answers. */
const filesNamed = (records: readonly { events: readonly (StoredEvent | CourseEvent)[] }[]): Set<string> =>
  new Set(
    records
      .flatMap(({ events }) =>
        events.flatMap((event) => [
          ...('answers' in event ? Object.values(event.answers ?? {}).filter(isAttached) : []),
          ...(event.type === 'brought' ? event.files : []),
        ]),
      )
      .map(({ file }) => file),
  )

/**
 * A backup without those who have been forgotten since it was made, and with what is kept of that: so bringing an older
 * one back brings nobody back. Whoever has come again since is somebody new, and stays.
 */
export function withoutForgotten(backup: Backup, forgotten: readonly ForgottenPerson[]): Backup {
  const kept = [...new Map([...(backup.forgotten ?? []), ...forgotten].map((one) => [one.id, one])).values()]
  if (kept.length === 0) return backup
  const { salt, people, mails, replies, lines, courses, files } = backup
  const gone = forgottenBy(kept, salt)
  const stays = (record: { events: readonly object[] }): boolean => {
    const begun = begunBy(record)
    return !begun || !gone(begun.email, begun.at)
  }
  const next = {
    bookings: backup.bookings.filter(stays),
    enquiries: backup.enquiries.filter(({ email, at }) => !gone(email, at)),
    ...(lines ? { lines: lines.filter(stays) } : {}),
    ...(courses ? { courses: courses.filter(stays) } : {}),
  }
  const idsIn = (of: Pick<Backup, 'bookings' | 'enquiries' | 'lines' | 'courses'>): Set<string> =>
    new Set([of.bookings, of.enquiries, of.lines ?? [], of.courses ?? []].flat().map(({ id }) => id))
  const [were, are] = [idsIn(backup), idsIn(next)]
  const hashes = new Set(kept.flatMap((one) => one.hashes))
  const again = new Set(
    [next.bookings, next.lines ?? [], next.courses ?? []].flat().flatMap((record) => {
      const begun = begunBy(record)
      return begun ? [mailHash(begun.email, salt)] : []
    }),
  )
  const isGone = (mail: string): boolean => {
    const hash = mailHash(mail, salt)
    return hashes.has(hash) && !again.has(hash)
  }
  const named = filesNamed([...next.bookings, ...(next.courses ?? [])])
  return {
    ...backup,
    ...next,
    people: people.filter(({ emails }) => !emails.some(isGone)),
    mails: mails.filter(({ booking }) => are.has(booking) || !were.has(booking)),
    ...(replies ? { replies: replies.filter(({ mail, at }) => !gone(mail, at)) } : {}),
    ...(files ? { files: files.filter(({ id }) => named.has(id)) } : {}),
    forgotten: kept,
  }
}
