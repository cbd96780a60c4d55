import type { EnquireBody, SendBody, Wanted } from '@acolhida/core/door'
import { LARGEST_FILE } from '@acolhida/core/questions'
import {
  acceptBody,
  enquireBody,
  fileQuery,
  keepBody,
  noteBody,
  openingsBody,
  quoteQuery,
  readBody,
  sendBody,
  viewQuery,
  visitBody,
} from '@acolhida/core/schemas'
import { instant } from '@acolhida/core/time'
import { type Express, type Request, type Response, raw } from 'express'
import { feed, feedFreeBusy, feedHours } from '../calendars/feed.ts'
import type { Clock } from '../clock.ts'
import { published } from '../door/circumstances.ts'
import { takeFile } from '../door/files.ts'
import { linkView, throughLink } from '../door/link.ts'
import { quoteSoFar, read } from '../door/read.ts'
import { doorView } from '../door/view.ts'
import { enquire, keep, openingsFor, renew, send } from '../door/visit.ts'
import { Refused } from '../refused.ts'
import type { Relay } from '../relay.ts'
import type { Store } from '../store/store.ts'
import { TRIAL, type Trial } from '../trial/trials.ts'
import { servePages } from './pages.ts'
import { bodyOf, failures, guarded, LARGEST, limited, once } from './security.ts'

/** Where a request is answered: by the relay's own store and clock, or by those of a trial. */
interface House {
  store: Store
  clock: Clock
  trial?: Trial
}

type WantedStart = Wanted & { place: string; start: number }

/** The client's side: everything a client's browser may ask. It carries no key. */
export function doorApp(relay: Relay): Express {
  const { store, clock, address } = relay
  const app = guarded(clock, LARGEST.door)
  app.use(['/api', '/feed'], limited(relay.settings.requestsPerMinute))
  /** The door at an address: the practice's own, or one to try. */
  const doorAt = (req: Request, res: Response): House => {
    const slug = String(req.params.slug)
    const trial = relay.trials.of(slug)
    if (trial) return trying(trial, res)
    if (slug.startsWith(TRIAL))
      throw new Refused(404, 'trial-over', 'This trial is over. Begin another one at the desk.')
    if (published(store).practice.profile.slug === slug) return { store, clock }
    throw new Refused(
      404,
      'unknown-door',
      'There is no door at this address. Please check the link you were given.',
    )
  }
  const trying = (trial: Trial, res: Response): House => {
    res.setHeader('x-relay-now', String(trial.clock.now()))
    return { store: trial.store, clock: trial.clock, trial }
  }
  const linkAt = (secret: string, res: Response): House => {
    const trial = store.link(secret) ? undefined : relay.trials.withLink(secret)
    return trial ? trying(trial, res) : { store, clock }
  }
  const key = (req: Request): string | undefined => req.get('idempotency-key')

  app.get('/api/door/:slug', (req, res) => {
    const here = doorAt(req, res)
    const { with: link } = bodyOf<{ with?: string }>(viewQuery, req.query)
    const view = doorView(here.store, here.clock.now(), link)
    res.json(here.trial ? { ...view, trial: { as: here.store.visitor ? 'known' : 'new' } } : view)
  })
  app.get('/api/door/:slug/changes', (req, res) => {
    doorAt(req, res)
    relay.doorStream.listen(req, res)
  })
  app.post('/api/door/:slug/read', (req, res) => {
    const here = doorAt(req, res)
    res.json(read(here.store, bodyOf<Wanted>(readBody, req.body), here.clock.now()))
  })
  app.post('/api/door/:slug/quote', (req, res) => {
    const here = doorAt(req, res)
    res.json(quoteSoFar(here.store, bodyOf<Wanted>(quoteQuery, req.body), here.clock.now()))
  })
  app.post(
    '/api/door/:slug/files',
    raw({ type: 'application/octet-stream', limit: LARGEST_FILE }),
    (req, res) => {
      const here = doorAt(req, res)
      const about = bodyOf<Parameters<typeof takeFile>[1]>(fileQuery, req.query)
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0)
      res.status(201).json(takeFile(here.store, about, bytes, here.clock.now()))
    },
  )
  app.post('/api/door/:slug/openings', (req, res) => {
    const here = doorAt(req, res)
    const body = bodyOf<Wanted & { place: string; from?: string; days: number }>(openingsBody, req.body)
    res.json(openingsFor(here.store, body, here.clock.now()))
  })
  app.post('/api/door/:slug/keep', (req, res) => {
    const here = doorAt(req, res)
    res.json(keep(here.store, bodyOf<WantedStart>(keepBody, req.body), here.clock.now()))
  })
  app.post('/api/door/:slug/renew', (req, res) => {
    const here = doorAt(req, res)
    res.json(renew(here.store, bodyOf<Wanted>(visitBody, req.body).visit, here.clock.now()))
  })
  app.post('/api/door/:slug/unkeep', (req, res) => {
    const here = doorAt(req, res)
    const { visit } = bodyOf<Wanted>(visitBody, req.body)
    here.store.act(() => here.store.unkeep(visit))
    res.json({})
  })
  app.post('/api/door/:slug/send', async (req, res) => {
    const here = doorAt(req, res)
    const body = bodyOf<SendBody>(sendBody, req.body)
    if (!here.trial) await relay.calendars.lookAgain()
    // Trying again after a lost answer is the same request, only a little later.
    const { clock: _, ...same } = body
    const answer = once(here.store, here.clock, key(req), 'send', same, () =>
      send(here.store, address, body, here.clock.now()),
    )
    res.status(201).json(answer)
    relay.soon()
  })
  app.post('/api/door/:slug/enquire', (req, res) => {
    const here = doorAt(req, res)
    const body = bodyOf<EnquireBody>(enquireBody, req.body)
    const answer = once(here.store, here.clock, key(req), 'enquire', body, () =>
      enquire(here.store, body, here.clock.now()),
    )
    res.status(201).json(answer)
  })

  app.get('/api/link/:secret', (req, res) => {
    const here = linkAt(req.params.secret, res)
    res.json(linkView(here.store, req.params.secret, here.clock.now()))
  })
  app.post('/api/link/:secret/:act', (req, res) => {
    const { secret, act } = req.params
    const here = linkAt(secret, res)
    const now = here.clock.now()
    const through = (command: Parameters<typeof throughLink>[3]): void => {
      once(here.store, here.clock, key(req), `link ${act}`, { secret, body: req.body }, () => {
        throughLink(here.store, address, secret, command, now)
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
    res.json(linkView(here.store, secret, now))
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
  // A trial may be shown inside the desk that opened it, and nowhere else.
  app.use((req, res, next) => {
    const trial = relay.trials.of(req.path.split('/')[1] ?? '')
    const policy = res.getHeader('content-security-policy')
    if (trial && typeof policy === 'string') {
      res.removeHeader('x-frame-options')
      res.setHeader(
        'content-security-policy',
        policy.replace("frame-ancestors 'none'", `frame-ancestors ${trial.ancestor}`),
      )
    }
    next()
  })
  servePages(app, relay.settings.doorPages)
  app.use(failures)
  return app
}
