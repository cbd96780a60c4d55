import { mailHash } from '../people/index.ts'
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

/**
 * A backup without those who have been forgotten since it was made, and with what is kept of that: so bringing an older
 * one back brings nobody back.
 */
export function withoutForgotten(backup: Backup, forgotten: readonly ForgottenPerson[]): Backup {
  const all = new Map([...(backup.forgotten ?? []), ...forgotten].map((one) => [one.id, one]))
  if (all.size === 0) return backup
  const kept = [...all.values()]
  const gone = forgottenBy(kept, backup.salt)
  const bookings = backup.bookings.filter(
    ({ events: [first] }) => !(first?.type === 'asked' && gone(first.person.email, first.at)),
  )
  const enquiries = backup.enquiries.filter(({ email, at }) => !gone(email, at))
  const lines = (backup.lines ?? []).filter(
    ({ events: [first] }) => !(first?.type === 'joined' && gone(first.person.email, first.at)),
  )
  const courses = (backup.courses ?? []).filter(
    ({ events: [first] }) => !(first?.type === 'given' && gone(first.person.email, first.at)),
  )
  const subjects = new Set([
    ...bookings.map(({ id }) => id),
    ...enquiries.map(({ id }) => id),
    ...lines.map(({ id }) => id),
    ...courses.map(({ id }) => id),
  ])
  const was = new Set([
    ...backup.bookings.map(({ id }) => id),
    ...backup.enquiries.map(({ id }) => id),
    ...(backup.lines ?? []).map(({ id }) => id),
    ...(backup.courses ?? []).map(({ id }) => id),
  ])
  const files = new Set<string>()
  for (const { events } of bookings)
    for (const event of events)
      if (event.type === 'asked')
        for (const answer of Object.values(event.answers)) if (isAttached(answer)) files.add(answer.file)
  for (const { events } of courses)
    for (const event of events) {
      if (event.type === 'brought') for (const { file } of event.files) files.add(file)
      if (event.type === 'answered')
        for (const answer of Object.values(event.answers)) if (isAttached(answer)) files.add(answer.file)
    }
  // Whoever has come again since is somebody new.
  const again = new Set(
    bookings.flatMap(({ events: [first] }) =>
      first?.type === 'asked' ? [mailHash(first.person.email, backup.salt)] : [],
    ),
  )
  const hashes = new Set(kept.flatMap((one) => one.hashes))
  const { forgotten: _, ...rest } = backup
  return {
    ...rest,
    people: backup.people.filter(
      ({ emails }) =>
        !emails.some((mail) => {
          const hash = mailHash(mail, backup.salt)
          return hashes.has(hash) && !again.has(hash)
        }),
    ),
    bookings,
    enquiries,
    mails: backup.mails.filter(({ booking }) => subjects.has(booking) || !was.has(booking)),
    ...(backup.replies ? { replies: backup.replies.filter(({ mail, at }) => !gone(mail, at)) } : {}),
    ...(backup.lines ? { lines } : {}),
    ...(backup.courses ? { courses } : {}),
    ...(backup.files ? { files: backup.files.filter(({ id }) => files.has(id)) } : {}),
    forgotten: kept,
  }
}
