import type { EnterBody } from '@acolhida/core/contract'
import { checkPractice } from '@acolhida/core/practice'
import Dexie from 'dexie'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { takeIn } from '../data/arrive.ts'
import { connectionRow } from '../data/database.ts'
import { db, onChangeOf } from '../data/db.ts'
import type { Connection } from '../data/tables.ts'
import { problemWords } from '../parts/problem-words.ts'
import { MADE_OF, type Unpublished } from './package.ts'
import { packageAt } from './packing.ts'
import { deskRelay, listenToRelay } from './relay.ts'
import { openPage, sealKeys } from './sealing.ts'
import { setStanding, standingNow } from './standing.ts'

/** What is to be published, if it differs from what was; also without a relay, to say so. */
async function unpublishedChange(): Promise<{ next: Unpublished; print: string } | undefined> {
  await sealKeys()
  const packed = await packageAt((await connectionRow(db)).published, relayNow())
  const next = packed?.next
  setStanding(next ? { unpublished: true } : { unpublished: false, publishProblem: undefined })
  return packed && next ? { next, print: packed.print } : undefined
}

/** Publishes what the door should show, if it is whole and differs from what it shows. */
async function publish(key: string): Promise<void> {
  const change = await unpublishedChange()
  if (!change) return
  const { next, print } = change
  const link = await connectionRow(db)
  if (checkPractice(next.practice).some((fault) => fault.grade === 'error')) return
  const send = (revision: number) => deskRelay.publish({ ...next, revision }, newKey(), key)
  try {
    let revision = link.revision + 1
    try {
      await send(revision)
    } catch (error) {
      if (!(error instanceof RelayError) || error.code !== 'older-package') throw error
      // A desk restored from an older file goes on from where the relay is.
      revision = (await deskRelay.status()).revision + 1
      await send(revision)
    }
    await changeLink({ revision, published: print })
    setStanding({ unpublished: false, publishProblem: undefined })
  } catch (error) {
    if (!(error instanceof RelayError) || error.unreachable || error.status === 401) throw error
    setStanding({ publishProblem: error.message })
  }
}

const changeLink = (change: Partial<Connection>): Promise<unknown> =>
  db.transaction('rw', db.connection, async () =>
    db.connection.put({ ...(await connectionRow(db)), ...change }),
  )

/**
 * Books in by hand. A client may have taken the start while this desk was offline: then both stay, as a clash
 * that the diary marks and the practitioner resolves.
 */
async function enter(body: EnterBody, idempotency: string, key: string): Promise<void> {
  try {
    await deskRelay.enter(body, idempotency, key)
  } catch (error) {
    if (!(error instanceof RelayError) || error.code !== 'not-open' || body.clash) throw error
    await deskRelay.enter({ ...body, clash: true }, `${idempotency.slice(0, 60)}-2`, key)
  }
}

/** Passes on what has been decided here, in order. A refusal comes back to Today with its reason. */
async function passOn(key: string): Promise<void> {
  const waiting = await db.intentions.orderBy('order').toArray()
  for (const intention of waiting) {
    if (intention.refused) continue
    const { booking, command, seen } = intention
    try {
      if (command.do === 'enter') await enter(command.body, intention.key, key)
      else if (command.do === 'series') await deskRelay.series(command.body, intention.key, key)
      else if (command.do === 'end-series') await deskRelay.endSeries(command.body, intention.key, key)
      else if (command.do === 'move-series') await deskRelay.moveSeries(command.body, intention.key, key)
      else if (command.do === 'answer') await deskRelay.answer(command.body, intention.key, key)
      else if (command.do === 'quote') await deskRelay.quote(command.body, intention.key, key)
      else if (command.do === 'waiting') await deskRelay.waiting(command.body, intention.key, key)
      else if (command.do === 'freed') await deskRelay.freed(command.body, intention.key, key)
      else if (command.do === 'forget') await deskRelay.forget(command.body, intention.key, key)
      else if (command.do === 'course') await deskRelay.course(command.body, intention.key, key)
      else await deskRelay.command({ booking, command, ...(seen ? { seen } : {}) }, intention.key, key)
      await db.intentions.delete(intention.order)
    } catch (error) {
      if (!(error instanceof RelayError) || error.unreachable || error.status === 401 || error.status === 429)
        throw error
      await db.intentions.update(intention.order, { refused: { code: error.code, message: error.message } })
    }
  }
}

/** Tells the relay once more who was forgotten here; what is still open of somebody is said, and stays. */
async function forgetAgain(key: string): Promise<void> {
  const all = await db.forgotten.toArray()
  if (all.length === 0) return
  const people = all.map(({ hashes, at }) => ({ hashes, before: at }))
  await deskRelay.forget({ people }, newKey(), key).catch((error: unknown) => {
    if (!(error instanceof RelayError) || error.unreachable) throw error
    console.error(error)
  })
}

async function fetchRecord(key: string): Promise<void> {
  for (;;) {
    const { cursor, print, key: now } = await connectionRow(db)
    if (now !== key) return
    const page = await deskRelay.record(cursor, key)
    const other = (print ?? '') !== '' && page.before !== '' && print !== page.before
    if (page.last < cursor || other) {
      // Its file is an older one, or a new one: what it lacks it is given back, and all it has is fetched.
      await (await import('./give-back.ts')).giveBackLacking(key)
      // It may know again whom this desk has forgotten.
      await forgetAgain(key)
      await changeLink({ cursor: 0, print: '', gap: true })
      if (page.last === 0) return
      continue
    }
    if (cursor > 0 && page.first > cursor + 1) {
      // The relay has forgotten: the gap is shown, and all it has is fetched.
      await changeLink({ cursor: page.first - 1, gap: true })
      continue
    }
    if (page.items.length === 0) return
    await takeIn(db, await openPage(page), key)
  }
}

/** Files that came as answers, kept here as long as what they belong to. */
async function fetchFiles(key: string): Promise<void> {
  for (const file of await db.wanted.toArray()) {
    const data = await deskRelay.file(file.id, key)
    await db.transaction('rw', db.files, db.wanted, async () => {
      if (data) await db.files.put({ ...file, data })
      await db.wanted.delete(file.id)
    })
  }
}

/** What the relay has read of other calendars, in place of what it had before. */
async function fetchCalendars(key: string): Promise<void> {
  const states = await deskRelay.calendars(key)
  await db.transaction('rw', db.calendars, async () => {
    const before = await db.calendars.toArray()
    if (JSON.stringify(before) === JSON.stringify(states)) return
    await db.calendars.clear()
    await db.calendars.bulkPut(states)
  })
}

/** Asks for a round; what goes wrong in it is said at the foot of the rail. */
export function turnSoon(): void {
  // Whoever asks may be in a transaction of their own: the round is no part of it.
  Dexie.ignoreTransaction(() => {
    turn().catch((error: unknown) => {
      console.error(error)
      setStanding({ trouble: problemWords(error) })
    })
  })
}

let turning: Promise<void> | undefined
let again = false

/** One round with the relay: pass on, fetch, publish. A call during a round asks for another after it. */
export function turn(): Promise<void> {
  if (turning) {
    again = true
    return turning
  }
  turning = (async () => {
    do {
      again = false
      await oneTurn()
    } while (again)
  })().finally(() => {
    turning = undefined
  })
  return turning
}

async function oneTurn(): Promise<void> {
  const { key } = await connectionRow(db)
  if (!key) {
    setStanding({ standing: 'alone' })
    return
  }
  try {
    // What is decided here is decided by the practice as it is here: the relay is told of that first.
    await publish(key)
    await passOn(key)
    await fetchRecord(key)
    await fetchFiles(key)
    await publish(key)
    await fetchCalendars(key)
    setStanding({ standing: 'connected', trouble: undefined })
  } catch (error) {
    if (!(error instanceof RelayError)) throw error
    setStanding({ standing: error.status === 401 ? 'cut-off' : 'unreachable' })
  }
}

const sleep = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))

/** Keeps the desk and the relay in step for as long as the page lives; in one tab at a time. */
export function startSync(): void {
  const alone = async (): Promise<void> => {
    let wait = 1_000
    onChangeOf(MADE_OF, turnSoon)
    onChangeOf(['intentions'], () => {
      // Another window has decided something; what has only been passed on asks for no other round.
      db.intentions
        .filter((intention) => !intention.refused)
        .count()
        .then((waiting) => waiting > 0 && turnSoon())
        .catch(console.error)
    })
    let paired: string | undefined
    onChangeOf(['link'], () => {
      connectionRow(db)
        .then(({ key }) => {
          if (key !== paired) turnSoon()
          paired = key
        })
        .catch(console.error)
    })
    for (;;) {
      await turn().catch((error: unknown) => setStanding({ trouble: problemWords(error) }))
      const { key } = await connectionRow(db)
      if (key && standingNow() === 'connected') {
        wait = 1_000
        const stop = new AbortController()
        await Promise.race([
          listenToRelay(key, stop.signal, turnSoon).catch(() => undefined),
          // People become known as time passes; what they are told changes with it.
          sleep(120_000),
        ])
        stop.abort()
        await sleep(300)
      } else {
        await sleep(wait)
        wait = Math.min(wait * 1.6, 15_000)
      }
    }
  }
  if ('locks' in navigator) navigator.locks.request('acolhida-sync', alone).catch(console.error)
  else alone().catch(console.error)
}
