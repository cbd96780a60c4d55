import { type Sealable, withOpened } from '@acolhida/core/booking'
import type { RecordItem, RecordPage } from '@acolhida/core/contract'
import { type Answers, isSealed, privateIn, type Question } from '@acolhida/core/questions'
import { newSealKeys, openAll, openParts, publicHalf, type SealKeys } from '../../seal/open.ts'
import { canSeal, sealAnswers } from '../../seal/seal.ts'
import { db } from '../data/db.ts'

/** The desk's key, made when there is none; nothing where this page can't make one, or holds no practice. */
export async function sealKeys(): Promise<SealKeys | undefined> {
  const row = await db.practice.get('practice')
  if (!row || row.seal || !canSeal()) return row?.seal
  const fresh = await newSealKeys()
  // Another tab may have been quicker: the first key counts.
  return db.transaction('rw', db.practice, async () => {
    const now = await db.practice.get('practice')
    if (!now) return undefined
    const kept = now.seal ?? fresh
    await db.practice.put({ ...now, seal: kept })
    return kept
  })
}

/** Whether something holds what only this desk can open. */
const holdsSealed = ({ answers, sealed = [] }: Sealable): boolean =>
  sealed.length > 0 || Object.values(answers).some(isSealed)

/** Something with everything opened that was sealed in it, by its client or by the relay. */
async function opened<T extends Sealable>(of: T, keys: SealKeys): Promise<T> {
  if (!holdsSealed(of)) return of
  const whole = withOpened(of, await openParts(of.sealed ?? [], keys))
  return { ...whole, answers: await openAll(whole.answers, keys) }
}

/** What an item of the record begins with, where that can have been sealed. */
const sealableIn = (item: RecordItem): Sealable | undefined => {
  if (item.kind === 'booking') return item.body.type === 'asked' ? item.body : undefined
  if (item.kind === 'waiting') return item.body.type === 'joined' ? item.body : undefined
  return item.kind === 'enquiry' && !('news' in item.body) ? item.body : undefined
}

/** What an item of the record says, opened; nothing where nothing in it was sealed. */
async function openedItem(item: RecordItem, keys: SealKeys): Promise<RecordItem> {
  const body = sealableIn(item)
  if (body) return { ...item, body: await opened(body, keys) } as RecordItem
  if (item.kind !== 'course' || item.body.type !== 'answered') return item
  return { ...item, body: { ...item.body, answers: await openAll(item.body.answers, keys) } }
}

const holdsAny = (item: RecordItem): boolean => {
  if (item.kind === 'course')
    return item.body.type === 'answered' && Object.values(item.body.answers).some(isSealed)
  const body = sealableIn(item)
  return body !== undefined && holdsSealed(body)
}

/** A page of the record with what is sealed in it opened, as the desk keeps it. */
export async function openPage(page: RecordPage): Promise<RecordPage> {
  const keys = page.items.some(holdsAny) ? await sealKeys() : undefined
  if (!keys) return page
  const items = await Promise.all(page.items.map((item) => openedItem(item, keys)))
  return { ...page, items }
}

/** Answers as this desk hands them to the relay: private ones sealed for itself. */
export async function sealOwn(questions: readonly Question[], answers: Answers): Promise<Answers> {
  const own = privateIn(questions)
  return own.size === 0 ? answers : sealSome(answers, (id) => own.has(id))
}

/** Answers of which some are sealed for this desk; files are named in clear. */
export async function sealSome(answers: Answers, which: (id: string) => boolean): Promise<Answers> {
  const keys = await sealKeys()
  return keys ? sealAnswers(answers, which, publicHalf(keys)) : answers
}
