import { desk, type PairBody, type RelayStatus } from '@acolhida/core/contract'
import { queries, schemas } from '@acolhida/core/contract/schemas'
import {
  answer,
  assumeSent,
  bringIn,
  bringOut,
  command,
  type Does,
  deskCourse,
  deskFreed,
  deskLine,
  endSeries,
  endWords,
  enter,
  enterSeries,
  fillPublished,
  forgetPeople,
  giveBack,
  moveOut,
  moveSeries,
  publish,
  quote,
  replan,
} from '@acolhida/core/house'
import { Refused } from '@acolhida/core/request'
import { sha256Hex } from '@acolhida/core/terms'
import type { Express, RequestHandler } from 'express'
import { isDesk, newPairingCode, pair } from '../desk/pairing.ts'
import { token } from '../store/keys.ts'
import { holdingsOf, recordPage } from '../store/record.ts'
import { endPhone, mountAway, newPhoneKey } from './away.ts'
import { serveHealth } from './health.ts'
import { type Call, Mount } from './mount.ts'
import { servePages } from './pages.ts'
import { bodyOf, failures, guarded } from './security.ts'
import type { Serving } from './serving.ts'

/** The practitioner's side: answers nothing that does not carry the desk's key, but pairing; the key comes before the body. */
export function deskApp(serving: Serving): Express {
  const { here, store, clock, address, deskAddress } = serving
  // The desk shows the door, to try it.
  const app = guarded(serving, { frameSrc: [() => new URL(address('/')).origin] })
  const withKey: RequestHandler = (req, res, next) => {
    const match = /^Bearer ([A-Za-z0-9_-]{20,100})$/.exec(req.get('authorization') ?? '')
    if (!match || !isDesk(store, match[1]!)) {
      throw new Refused(401, 'not-paired')
    }
    const { troubles } = serving.health
    res.setHeader('x-relay-troubles', troubles.join(' ') || 'none')
    next()
  }
  const mount = new Mount(app, { desk: withKey }, serving.requestsPerMinute)

  // Guessing at pairing codes is slowed down beyond any use.
  mount.take(desk.pair, schemas.pair, ({ body, req }) => serving.quotas.guess(req, () => pairing(body)))
  const pairing = (body: PairBody): { key: string } => {
    const paired = pair(store, here.keeper.house.practice, body, () => {
      here.call(moveOut, {})
      // What went is not to be found on the disk either.
      store.db.exec('VACUUM')
      store.db.pragma('wal_checkpoint(TRUNCATE)')
      if (body.practice === serving.demo?.id) serving.demo.furnish()
    })
    // Whoever had the desk before decides nothing any more, by no link and no phone.
    here.call(endWords, {})
    endPhone(store)
    // Nor hears of anything.
    serving.deskStream.end()
    return paired
  }
  mount.take(desk.phone, schemas.phone, () => ({ url: deskAddress(`/day#${newPhoneKey(store)}`) }))
  mount.take(desk.end, schemas.end, ({ body }) => {
    if (body.what === 'phone') endPhone(store)
    else here.call(endWords, {})
    return {}
  })
  mountAway(app, serving)
  app.get('/api/demo', (_req, res) => {
    if (!serving.demo) throw new Refused(404, 'unknown.demo')
    res.json(serving.demo.backup())
  })
  mount.get(desk.status, (): RelayStatus => {
    const { leapt } = clock
    return {
      now: clock.now(),
      moved: clock.moved,
      paired: store.setting('desk-key') !== undefined,
      revision: here.keeper.house.pack?.revision ?? 0,
      doorUrl: address('/'),
      ...(serving.demo ? { demo: serving.demo.id } : {}),
      ...(serving.till ? { till: serving.till.live ? ('live' as const) : ('trial' as const) } : {}),
      ...(leapt ? { leapt } : {}),
    }
  })
  mount.take(desk.publish, schemas.publish, ({ body, key }) => {
    const was = here.keeper.house.pack
    const revision = here.call(publish, body, { scope: 'package', key, body })
    // What is open is planned anew by itself: the practice counts from its own transaction on.
    here.call(replan, {})
    // In the same breath, so that nobody is quicker than those who wait for what has come free.
    here.call(fillPublished, { was })
    serving.soon()
    return revision
  })
  mount.take(desk.feed, schemas.feed, () => {
    const secret = token()
    store.set('feed', sha256Hex(secret))
    return { url: address(`/feed/${secret}.ics`) }
  })
  mount.take(desk.code, schemas.code, () => ({ code: newPairingCode(store) }))
  mount.take(desk.trial, schemas.trial, ({ body, req }) => {
    const origin = req.get('origin') ?? ''
    const ancestor = /^https?:\/\/[A-Za-z0-9.:[\]-]+$/.test(origin) ? origin : "'none'"
    const { slug, until } = serving.trials.open(body, ancestor)
    return { url: address(`/${slug}`), until }
  })
  mount.get(desk.calendars, () => [...here.keeper.house.calendars()])
  mount.get(desk.record, ({ req }) => {
    const { after = '0' } = bodyOf(queries.record, req.query)
    return recordPage(store.db, Number(after), here.now())
  })
  mount.get(desk.holdings, () => holdingsOf(store.db, here.keeper.house.chain))
  mount.take(desk.giveBack, schemas.giveBack, ({ body, key }) => {
    const done = here.call(giveBack, body, { scope: 'give-back', key, body })
    // What was told then is not told again.
    here.call(assumeSent, {
      but: [],
      of: [...body.bookings, ...body.lines, ...body.courses].map(({ id }) => id),
    })
    return done
  })
  app.get('/api/record/stream', withKey, (req, res) => serving.deskStream.listen(req, res))
  mount.take(desk.release, schemas.release, ({ body }) => {
    const now = clock.release(body.back)
    serving.deskStream.tell('clock')
    serving.soon()
    return { now }
  })
  /** Something the desk asks for, done once however often it is said. */
  const doing =
    <B extends object>(scope: string, does: Does<B, { seq: number }>) =>
    ({ body, key }: Call<B>): { seq: number } => {
      // What was looked at meanwhile is no other decision.
      const same = { ...body, shown: undefined, seen: undefined }
      const done = here.call(does, body, { scope, key, body: same })
      serving.soon()
      return done
    }
  mount.take(desk.command, schemas.command, doing('command', command))
  mount.take(desk.enter, schemas.enter, doing('enter', enter))
  mount.take(desk.series, schemas.series, doing('series', enterSeries))
  mount.take(desk.endSeries, schemas.endSeries, doing('end-series', endSeries))
  mount.take(desk.moveSeries, schemas.moveSeries, doing('move-series', moveSeries))
  mount.take(desk.bringIn, schemas.bringIn, ({ body, key }) => {
    const done = here.call(bringIn, body, { scope: 'bring-in', key, body })
    serving.soon()
    return done
  })
  mount.take(desk.bringOut, schemas.bringOut, ({ body, key }) => {
    const done = here.call(bringOut, body, { scope: 'bring-out', key, body })
    serving.soon()
    return done
  })
  mount.take(desk.waiting, schemas.waiting, doing('waiting', deskLine))
  mount.take(desk.freed, schemas.freed, doing('freed', deskFreed))
  mount.take(desk.forget, schemas.forget, ({ body, key }) => {
    const done = here.call(forgetPeople, body, { scope: 'forget', key, body })
    // What went is not to be found on the disk either.
    store.db.pragma('wal_checkpoint(TRUNCATE)')
    return done
  })
  mount.take(desk.course, schemas.course, doing('course', deskCourse))
  mount.take(desk.answer, schemas.answer, doing('enquiry', answer))
  mount.take(desk.quote, schemas.quote, doing('quote', quote))
  app.get('/api/files/:id', withKey, (req, res) => {
    const bytes = store.bytes(String(req.params.id))
    if (!bytes) throw new Refused(404, 'unknown-file')
    // Always as bytes: nothing a client has sent is opened as a page of the desk.
    res.type('application/octet-stream').setHeader('x-content-type-options', 'nosniff').send(bytes)
  })

  serveHealth(app, serving)
  servePages(app, serving.deskPages, undefined, { '/word': 'away.html', '/day': 'away.html' })
  app.use(failures)
  return app
}
