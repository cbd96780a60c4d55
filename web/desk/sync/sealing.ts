import type { RecordPage } from '@acolhida/core/contract'
import { type Answers, isSealed, privateIn, type Question } from '@acolhida/core/questions'
import { newSealKeys, openAll, publicHalf, type SealKeys } from '../../seal/open.ts'
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

/** A page of the record with what is sealed in it opened, as the desk keeps it. */
export async function openPage(page: RecordPage): Promise<RecordPage> {
  const holds = page.items.some(
    (item) =>
      (item.kind === 'booking' || item.kind === 'waiting') &&
      (item.body.type === 'asked' || item.body.type === 'joined') &&
      Object.values(item.body.answers).some(isSealed),
  )
  const keys = holds ? await sealKeys() : undefined
  if (!keys) return page
  const items = await Promise.all(
    page.items.map(async (item) =>
      item.kind === 'booking' && item.body.type === 'asked'
        ? { ...item, body: { ...item.body, answers: await openAll(item.body.answers, keys) } }
        : item.kind === 'waiting' && item.body.type === 'joined'
          ? { ...item, body: { ...item.body, answers: await openAll(item.body.answers, keys) } }
          : item,
    ),
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
