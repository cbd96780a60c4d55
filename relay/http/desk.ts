import type {
  AnswerBody,
  DeskCommand,
  DoorPackage,
  EnterBody,
  QuoteBody,
  RelayStatus,
  TrialBody,
} from '@acolhida/core/door'
import {
  answerBody,
  commandBody,
  doorPackage,
  enterBody,
  pairBody,
  quoteBody,
  recordQuery,
  trialBody,
} from '@acolhida/core/schemas'
import type { Express, RequestHandler } from 'express'
import type { Schema } from 'joi'
import { newFeed } from '../calendars/feed.ts'
import { command, enter, isDesk, newPairingCode, pair, publish, recordPage } from '../desk/desk.ts'
import { answerEnquiry, sendQuote } from '../desk/enquiries.ts'
import { Refused } from '../refused.ts'
import type { Relay } from '../relay.ts'
import { servePages } from './pages.ts'
import { bodyOf, failures, guarded, LARGEST, limited, once } from './security.ts'

/** The practitioner's side: answers nothing that does not carry the desk's key, but pairing. */
export function deskApp(relay: Relay): Express {
  const { store, clock, address } = relay
  // The desk shows the door, to try it.
  const app = guarded(clock, LARGEST.desk, { frameSrc: [() => new URL(address('/')).origin] })
  const key: RequestHandler = (req, _res, next) => {
    const match = /^Bearer ([A-Za-z0-9_-]{20,100})$/.exec(req.get('authorization') ?? '')
    if (!match || !isDesk(store, match[1]!)) {
      throw new Refused(
        401,
        'not-paired',
        'This desk is not paired with the relay, or another one has taken its place.',
      )
    }
    next()
  }

  // Guessing at pairing codes is slowed down beyond any use.
  app.post('/api/pair', limited(Math.min(20, relay.settings.requestsPerMinute)), (req, res) => {
    const { code, replace } = bodyOf<{ code: string; replace: boolean }>(pairBody, req.body)
    res.json(pair(store, code, replace))
  })
  app.get('/api/demo', (_req, res) => {
    const { demo } = relay.settings
    if (!demo) throw new Refused(404, 'unknown', 'There is no demo here.')
    res.json({ backup: demo(), code: newPairingCode(store) })
  })

  app.get('/api/status', (_req, res) => {
    const status: RelayStatus = {
      now: clock.now(),
      moved: clock.moved,
      paired: store.setting('desk-key') !== undefined,
      revision: store.package?.revision ?? 0,
      demo: relay.settings.demo !== undefined,
      doorUrl: address('/'),
    }
    res.json(status)
  })
  app.put('/api/package', key, (req, res) => {
    const body = bodyOf<DoorPackage>(doorPackage, req.body)
    res.json(once(store, clock, req.get('idempotency-key'), 'package', body, () => publish(store, body)))
    relay.doorStream.tell('practice')
    relay.soon()
  })
  app.post('/api/feed', key, (_req, res) => {
    res.json({ url: address(`/feed/${newFeed(store)}.ics`) })
  })
  app.post('/api/trial', key, (req, res) => {
    const body = bodyOf<TrialBody>(trialBody, req.body)
    const origin = req.get('origin') ?? ''
    const ancestor = /^https?:\/\/[A-Za-z0-9.:[\]-]+$/.test(origin) ? origin : "'none'"
    const { slug, until } = relay.trials.open(body, ancestor)
    res.status(201).json({ url: address(`/${slug}`), until })
  })
  app.get('/api/calendars', key, (_req, res) => {
    res.json(store.calendars.all())
  })
  app.get('/api/record', key, (req, res) => {
    const { after } = bodyOf<{ after: number }>(recordQuery, req.query)
    res.json(recordPage(store, after, clock.now()))
  })
  app.get('/api/record/stream', key, (req, res) => relay.deskStream.listen(req, res))
  /** Something the desk asks for, done once however often it is said. */
  const act = <T>(path: string, schema: Schema, status: number, work: (body: T) => { seq: number }): void => {
    app.post(`/api/${path}`, key, (req, res) => {
      const body = bodyOf<T>(schema, req.body)
      res.status(status).json(once(store, clock, req.get('idempotency-key'), path, body, () => work(body)))
      relay.soon()
    })
  }
  act<DeskCommand>('command', commandBody, 200, (body) => command(store, address, body, clock.now()))
  act<EnterBody>('enter', enterBody, 201, (body) => enter(store, address, body, clock.now()))
  act<AnswerBody>('enquiry', answerBody, 200, (body) => answerEnquiry(store, body, clock.now()))
  act<QuoteBody>('quote', quoteBody, 201, (body) => sendQuote(store, address, body, clock.now()))
  app.get('/api/files/:id', key, (req, res) => {
    const file = store.files.get(String(req.params.id))
    if (!file) throw new Refused(404, 'unknown-file', 'The relay no longer has this file.')
    // Always as bytes: nothing a client has sent is opened as a page of the desk.
    res.type('application/octet-stream').setHeader('x-content-type-options', 'nosniff').send(file.data)
  })

  servePages(app, relay.settings.deskPages)
  app.use(failures)
  return app
}
