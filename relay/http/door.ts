import type { EnquireBody, SendBody, Wanted } from '@acolhida/core/door'
import {
  acceptBody,
  enquireBody,
  keepBody,
  noteBody,
  openingsBody,
  readBody,
  sendBody,
  viewQuery,
  visitBody,
} from '@acolhida/core/schemas'
import { instant } from '@acolhida/core/time'
import type { Express, Request } from 'express'
import { feed, feedFreeBusy, feedHours } from '../calendars/feed.ts'
import { published } from '../door/circumstances.ts'
import { linkView, throughLink } from '../door/link.ts'
import { doorView } from '../door/view.ts'
import { enquire, keep, openingsFor, read, renew, send } from '../door/visit.ts'
import { Refused } from '../refused.ts'
import type { Relay } from '../relay.ts'
import { servePages } from './pages.ts'
import { bodyOf, failures, guarded, LARGEST, limited, once } from './security.ts'

type WantedStart = Wanted & { place: string; start: number }

/** The client's side: everything a client's browser may ask. It carries no key. */
export function doorApp(relay: Relay): Express {
  const { store, clock, address } = relay
  const app = guarded(clock, LARGEST.door)
  app.use(['/api', '/feed'], limited(relay.settings.requestsPerMinute))
  const ours = (req: Request): void => {
    if (published(store).practice.profile.slug !== req.params.slug) {
      throw new Refused(
        404,
        'unknown-door',
        'There is no door at this address. Please check the link you were given.',
      )
    }
  }
  const key = (req: Request): string | undefined => req.get('idempotency-key')

  app.get('/api/door/:slug', (req, res) => {
    ours(req)
    const { with: key } = bodyOf<{ with?: string }>(viewQuery, req.query)
    res.json(doorView(published(store).practice, clock.now(), key))
  })
  app.get('/api/door/:slug/changes', (req, res) => {
    ours(req)
    relay.doorStream.listen(req, res)
  })
  app.post('/api/door/:slug/read', (req, res) => {
    ours(req)
    res.json(read(store, bodyOf<Wanted>(readBody, req.body), clock.now()))
  })
  app.post('/api/door/:slug/openings', (req, res) => {
    ours(req)
    res.json(
      openingsFor(
        store,
        bodyOf<Wanted & { place: string; from?: string; days: number }>(openingsBody, req.body),
        clock.now(),
      ),
    )
  })
  app.post('/api/door/:slug/keep', (req, res) => {
    ours(req)
    res.json(keep(store, bodyOf<WantedStart>(keepBody, req.body), clock.now()))
  })
  app.post('/api/door/:slug/renew', (req, res) => {
    ours(req)
    res.json(renew(store, bodyOf<Wanted>(visitBody, req.body).visit, clock.now()))
  })
  app.post('/api/door/:slug/unkeep', (req, res) => {
    ours(req)
    const { visit } = bodyOf<Wanted>(visitBody, req.body)
    store.act(() => store.unkeep(visit))
    res.json({})
  })
  app.post('/api/door/:slug/send', async (req, res) => {
    ours(req)
    const body = bodyOf<SendBody>(sendBody, req.body)
    await relay.calendars.lookAgain()
    const answer = once(store, clock, key(req), 'send', body, () => send(store, address, body, clock.now()))
    res.status(201).json(answer)
    relay.soon()
  })
  app.post('/api/door/:slug/enquire', (req, res) => {
    ours(req)
    const body = bodyOf<EnquireBody>(enquireBody, req.body)
    res
      .status(201)
      .json(once(store, clock, key(req), 'enquire', body, () => enquire(store, body, clock.now())))
  })

  app.get('/api/link/:secret', (req, res) => {
    res.json(linkView(store, req.params.secret, clock.now()))
  })
  app.post('/api/link/:secret/:act', (req, res) => {
    const { secret, act } = req.params
    const now = clock.now()
    const through = (command: Parameters<typeof throughLink>[3]): void => {
      once(store, clock, key(req), `link ${act}`, { secret, body: req.body }, () => {
        throughLink(store, address, secret, command, now)
        return {}
      })
    }
    if (act === 'accept') {
      const { start, place } = bodyOf<{ start: number; place: string }>(acceptBody, req.body)
      through({ do: 'accept', start: instant(start), place })
    } else if (act === 'refuse' || act === 'cancel') {
      const { text } = bodyOf<{ text: string }>(noteBody, req.body)
      through(act === 'refuse' ? { do: 'refuse', text } : { do: 'cancel', by: 'client', text })
    } else if (act === 'prove' || act === 'withdraw') {
      through({ do: act })
    } else {
      throw new Refused(404, 'unknown', 'There is nothing here.')
    }
    res.json(linkView(store, secret, now))
    relay.soon()
  })

  app.get('/feed/:secret.ics', (req, res) => {
    res.type('text/calendar').send(feed(store, req.params.secret, clock.now()))
  })
  app.get('/feed/:secret/hours.ics', (req, res) => {
    res.type('text/calendar').send(feedHours(store, req.params.secret, clock.now()))
  })
  app.get('/feed/:secret.ifb', (req, res) => {
    res.type('text/calendar').send(feedFreeBusy(store, req.params.secret, clock.now()))
  })
  app.get('/', (_req, res, next) => {
    const slug = store.package?.practice.profile.slug
    if (slug) res.redirect(302, `/${slug}`)
    else next()
  })
  servePages(app, relay.settings.doorPages)
  app.use(failures)
  return app
}
