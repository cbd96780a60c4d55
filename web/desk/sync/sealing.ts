import { type Sealable, withOpened } from '@acolhida/core/booking'
import type { RecordItem, RecordPage } from '@acolhida/core/contract'
import { type Answers, isSealed, privateIn, type Question } from '@acolhida/core/questions'
import { newSealKeys, openAll, openParts, publicHalf, type SealKeys } from '../../seal/open.ts'
import { canSeal, seal } from '../../seal/seal.ts'
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

/** A page of the record with what is sealed in it opened, as the desk keeps it. */
export async function openPage(page: RecordPage): Promise<RecordPage> {
  const holds = page.items.some((item) => {
    const body = sealableIn(item)
    return body && holdsSealed(body)
  })
  const keys = holds ? await sealKeys() : undefined
  if (!keys) return page
  const items = await Promise.all(
    page.items.map(async (item) => {
      const body = sealableIn(item)
      return body ? ({ ...item, body: await opened(body, keys) } as RecordItem) : item
    }),
  )
  return { ...page, items }
}

/** Answers as this desk hands them to the relay: private ones sealed for itself. */
export async function sealOwn(questions: readonly Question[], answers: Answers): Promise<Answers> {
  const own = privateIn(questions)
  const keys = await sealKeys()
  if (!keys || own.size === 0) return answers
  const key = publicHalf(keys)
  const sealed = await Promise.all(
    Object.entries(answers).map(
      async ([id, answer]): Promise<[string, Answers[string]]> => [
        id,
        own.has(id) ? await seal(id, answer, key) : answer,
      ],
    ),
  )
  return Object.fromEntries(sealed)
}
