import { canonicalJson } from '../terms/fingerprint.ts'
import type { Backup, PracticeFile } from './files.ts'

const byId = <T extends { id: string }>(list: readonly T[]): T[] =>
  [...list].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0))

/**
 * A backup as the text of a file: canonical JSON (RFC 8785) with its lists in the order of their ids, so that
 * the same data gives the same bytes.
 */
export const writeBackup = (backup: Backup): string =>
  `${canonicalJson({
    ...backup,
    people: byId(backup.people),
    bookings: byId(backup.bookings),
    enquiries: byId(backup.enquiries),
    sessions: byId(backup.sessions),
    mails: [...backup.mails].sort((a, b) => a.n - b.n),
    ...(backup.replies ? { replies: byId(backup.replies) } : {}),
    ...(backup.lines ? { lines: byId(backup.lines) } : {}),
    ...(backup.courses ? { courses: byId(backup.courses) } : {}),
    ...(backup.forgotten ? { forgotten: byId(backup.forgotten) } : {}),
    ...(backup.freed ? { freed: byId(backup.freed) } : {}),
  })}\n`

/** A practice file as text; see `writeBackup`. */
export const writePracticeFile = (file: PracticeFile): string =>
  `${canonicalJson({ ...file, people: byId(file.people ?? []), sessions: byId(file.sessions ?? []), ...(file.waiting ? { waiting: byId(file.waiting) } : {}) })}\n`
