import { questionnaireOf } from '../practice/index.ts'
import { type Attached, kindOfFile, problemWith } from '../questions/index.ts'
import { Refused } from '../request/index.ts'
import { type RefusalWord, type SaidValues, wrongWords } from '../words/index.ts'
import { askedIn, openStation } from './course-link.ts'
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

/** Takes bytes of a kind and size that can be asked for; they wait for what they belong to, and are forgotten by age. */
function takeBytes(
  work: Work,
  { bytes, name, sha256, visit }: Pick<GivenFile, 'bytes' | 'name' | 'sha256' | 'visit'>,
  where: string,
  problem: (attached: Attached) => string | undefined,
): Attached {
  const { house, now, changes } = work
  const refuse = refusing(where)
  if (bytes.length === 0) throw refuse('file.empty', { data: { name } })
  const type = kindOfFile(bytes)
  if (!type) throw refuse('file.kind', { data: { name } })
  const attached = { name, type, size: bytes.length }
  const wrong = problem({ ...attached, file: '' })
  if (wrong !== undefined) throw refuse('file', { message: wrong })
  if (house.waitingBytes(visit) + bytes.length > MOST_OF_A_VISIT) throw refuse('file.too-much')
  if (house.waitingBytes() + bytes.length > MOST_WAITING) throw refuse('file.no-room')
  const file = work.ids()
  changes.push({ type: 'file', file: { id: file, visit, at: now, ...attached, sha256, booking: '' } })
  return { file, ...attached }
}

const refusing =
  (where: string) =>
  (word: RefusalWord, more: { data?: SaidValues; message?: string } = {}): Refused =>
    new Refused(422, word, { where, ...more })

/**
 * Takes a file that answers a question, if it is of a kind and size that is asked for. What kind it is, its bytes say,
 * not its name.
 */
export function takeFile(work: Work, about: GivenFile): Attached {
  const { house, now } = work
  const service = wantedService(house, about, now)
  const questionnaire = questionnaireOf(published(house).practice, service)
  const question = questionnaire?.questions.find((question) => question.id === about.question)
  const where = about.question
  if (question?.kind !== 'file') throw refusing(where)('file.not-asked')
  return takeBytes(work, about, where, (attached) => {
    const wrong = problemWith(question, attached)
    return wrong && wrongWords(wrong)
  })
}

/** A file for one thing that there is to do: brought, or the answer to a question of it. */
export interface CourseFile extends Pick<GivenFile, 'name' | 'bytes' | 'sha256'> {
  hash: string
  course: string
  station: string
  /** The question it answers, where it does. */
  question?: string
}

/** Takes a file that somebody brings, as what there is to do asks for it. @throws Refused */
export function takeCourseFile(
  work: Work,
  { hash, course, station: id, question, ...file }: CourseFile,
): Attached {
  const { station } = openStation(work, hash, { course, station: id })
  const asked =
    question === undefined ? undefined : askedIn(work.house, station).find((one) => one.id === question)
  const fits = question === undefined ? station.is === 'bring' : asked?.kind === 'file'
  if (!fits) throw refusing(question ?? id)('file.not-asked')
  return takeBytes(work, { ...file, visit: course }, question ?? id, (attached) => {
    const wrong = asked && problemWith(asked, attached)
    return wrong && wrongWords(wrong)
  })
}
