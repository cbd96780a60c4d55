import { questionnaireOf } from '../practice/index.ts'
import { type Attached, kindOfFile, problemWith } from '../questions/index.ts'
import { Refused } from '../request/index.ts'
import { type RefusalWord, type SaidValues, wrongWords } from '../words/index.ts'
import { published } from './house.ts'
import { wantedService } from './understand.ts'
import type { Work } from './work.ts'

/** All files of one visit together are no larger than this, in bytes. */
const MOST_OF_A_VISIT = 20 * 1024 * 1024

/** And all that wait for their requests, of everybody: so much that the disk holds. How much one client leaves, the relay bounds. */
const MOST_WAITING = 5 * 1024 * 1024 * 1024

/** Whose file it is, and its bytes. */
export interface GivenFile {
  visit: string
  service: string
  question: string
  name: string
  with?: string
  bytes: Uint8Array
  /** SHA-256 of the bytes, in hexadecimal. */
  sha256: string
}

/**
 * Takes a file that answers a question, if it is of a kind and size that is asked for. What kind it is, its bytes say,
 * not its name. It waits for the request it belongs to, and is forgotten by age.
 */
export function takeFile(work: Work, about: GivenFile): Attached {
  const { house, now, changes } = work
  const { bytes, name, visit, sha256 } = about
  const service = wantedService(house, about, now)
  const questionnaire = questionnaireOf(published(house).practice, service)
  const question = questionnaire?.questions.find((question) => question.id === about.question)
  const where = about.question
  const refuse = (word: RefusalWord, more: { data?: SaidValues; message?: string } = {}): Refused =>
    new Refused(422, word, { where, ...more })
  if (question?.kind !== 'file') throw refuse('file.not-asked')
  if (bytes.length === 0) throw refuse('file.empty', { data: { name } })
  const type = kindOfFile(bytes)
  if (!type) throw refuse('file.kind', { data: { name } })
  const attached = { name, type, size: bytes.length }
  const wrong = problemWith(question, { ...attached, file: '' })
  if (wrong) throw refuse('file', { message: wrongWords(wrong) })
  if (house.waitingBytes(visit) + bytes.length > MOST_OF_A_VISIT) throw refuse('file.too-much')
  if (house.waitingBytes() + bytes.length > MOST_WAITING) throw refuse('file.no-room')
  const file = work.ids()
  changes.push({ type: 'file', file: { id: file, visit, at: now, ...attached, sha256, booking: '' } })
  return { file, ...attached }
}
