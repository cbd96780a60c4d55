import { createHash } from 'node:crypto'
import type { ClientDoes } from '@acolhida/core/booking'
import type { LinkView } from '@acolhida/core/contract'
import { door } from '@acolhida/core/contract'
import { queries, schemas } from '@acolhida/core/contract/schemas'
import {
  agreeThrough,
  bookingBehind,
  doorView,
  enquire,
  inLine,
  joinLine,
  keep,
  languageAt,
  lineBehind,
  lineView,
  linkView,
  lookIn,
  openingsFor,
  openingsToMove,
  part,
  published,
  quoteSoFar,
  read,
  renew,
  send,
  takeFile,
  takeFreed,
  throughLink,
  type Unheld,
  unkeep,
} from '@acolhida/core/house'
import { LARGEST_FILE } from '@acolhida/core/questions'
import { Refused } from '@acolhida/core/request'
import { sha256Hex } from '@acolhida/core/terms'
import { type Express, type Request, type Response, raw } from 'express'
import { feed, feedFreeBusy, feedHours } from '../calendars/feed.ts'
import type { Here } from '../house/here.ts'
import { TRIAL, type Trial } from '../trial/trials.ts'
import { firstPage } from './first-page.ts'
import { serveHealth } from './health.ts'
import { Mount } from './mount.ts'
import { formsOf, servePages } from './pages.ts'
import { bodyOf, failures, guarded, limited } from './security.ts'
import type { Serving } from './serving.ts'
import { theirs, wantedBy } from './spoken.ts'
import { mountTexts, mountUnsubscribe } from './texts.ts'
import { mountTill } from './till.ts'
import { mountYours } from './yours.ts'

/** The client's side: everything a client's browser may ask. It carries no key. */
export function doorApp(serving: Serving): Express {
  const { here: own, trials, store } = serving
  const app = guarded(serving)
  app.use(['/api', '/feed'], limited(serving.requestsPerMinute))
  const mount = new Mount(app, {}, serving.requestsPerMinute)
  const trying = (trial: Trial, res: Response): Here => {
    res.setHeader('x-relay-now', String(trial.here.clock.now()))
    return trial.here
  }
  /** The door at an address: the practice's own, or one to try. */
  const doorAt = (req: Request, res: Response): Here => {
    const slug = String(req.params.slug)
    const trial = trials.of(slug)
    if (trial) return trying(trial, res)
    if (slug.startsWith(TRIAL)) throw new Refused(404, 'trial-over')
    if (published(own.keeper.house).practice.profile.slug === slug) return own
    throw new Refused(404, 'unknown-door')
  }
  const linkAt = (hash: string, res: Response): Here => {
    const trial = own.keeper.house.link(hash) ? undefined : trials.withLink(hash)
    return trial ? trying(trial, res) : own
  }

  mount.get(door.view, ({ req, res }) => {
    const { with: key } = bodyOf(queries.view, req.query)
    return theirs(req, doorAt(req, res)).look((house, now) => doorView(house, now, key))
  })
  app.get('/api/door/:slug/changes', (req, res) => {
    doorAt(req, res)
    serving.doorStream.listen(req, res)
  })
  const { quotas } = serving
  mount.take(door.read, schemas.read, ({ body, req, res }) =>
    quotas.guess(req, () => {
      quotas.remember(req)
      return theirs(req, doorAt(req, res)).call(read, body)
    }),
  )
  mount.take(door.part, schemas.part, ({ body, req, res }) =>
    quotas.guess(req, () => {
      quotas.remember(req)
      return theirs(req, doorAt(req, res)).call(part, body)
    }),
  )
  mount.take(door.soFar, schemas.soFar, ({ body, req, res }) =>
    quotas.guess(req, () => theirs(req, doorAt(req, res)).look((house, now) => quoteSoFar(house, body, now))),
  )
  app.post(
    '/api/door/:slug/files',
    raw({ type: 'application/octet-stream', limit: LARGEST_FILE }),
    (req, res) => {
      const about = bodyOf(queries.file, req.query)
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0)
      const here = doorAt(req, res)
      if (here === own) quotas.uploading(req, bytes.length)
      const sha256 = createHash('sha256').update(bytes).digest('hex')
      const given = { ...about, bytes, sha256 }
      res.status(201).json(theirs(req, here).call(takeFile, given, undefined, bytes))
    },
  )
  mount.take(door.openings, schemas.openings, ({ body, req, res }) =>
    theirs(req, doorAt(req, res)).look((house, now) => openingsFor(house, body, now)),
  )
  mount.take(door.keep, schemas.keep, ({ body, req, res }) => {
    const here = doorAt(req, res)
    return here === own
      ? quotas.keeping(req, here, body, (unheld) => theirs(req, here).call(keep, { ...body, ...unheld }))
      : theirs(req, here).call(keep, body)
  })
  mount.take(door.renew, schemas.renew, ({ body, req, res }) =>
    theirs(req, doorAt(req, res)).call(renew, body),
  )
  mount.take(door.unkeep, schemas.unkeep, ({ body, req, res }) =>
    theirs(req, doorAt(req, res)).call(unkeep, body),
  )
  mount.take(door.send, schemas.send, async ({ body, req, res, key }) => {
    const here = doorAt(req, res)
    if (here === own) await serving.calendars.lookAgain()
    // Trying again after a lost answer is the same request, only a little later.
    const { clock: _, shown: __, ...same } = body
    const sendIt = (unheld: Unheld) =>
      theirs(req, here).call(send, { ...body, ...unheld }, { scope: 'send', key, body: same })
    const answer = here === own ? quotas.sending(req, here, body, sendIt) : sendIt({})
    serving.soon()
    return { link: secretIn(here, answer) }
  })
  mount.take(door.enquire, schemas.enquire, ({ body, req, res, key }) => {
    const here = doorAt(req, res)
    if (here === own) quotas.writing(req, here, body)
    return theirs(req, here).call(enquire, body, { scope: 'enquire', key, body })
  })

  mount.take(door.join, schemas.join, ({ body, req, res, key }) => {
    const here = doorAt(req, res)
    const { clock: _, ...same } = body
    if (here === own) quotas.joining(req, here)
    const answer = theirs(req, here).call(joinLine, body, { scope: 'line', key, body: same })
    serving.soon()
    return { link: here.secrets.of(answer.link) }
  })
  const lineAt = (req: Request, hash: string, res: Response) =>
    theirs(req, linkAt(hash, res)).look((house, now) => lineView(house, lineBehind(house, hash).line, now))
  mount.get(door.line, ({ req, res }) => lineAt(req, sha256Hex(String(req.params.secret)), res))
  mount.take(door.inLine, schemas.inLine, ({ body: command, req, res, key }) => {
    const secret = String(req.params.secret)
    const hash = sha256Hex(secret)
    const once = { scope: `line ${command.do}`, key, body: { secret, command } }
    theirs(req, linkAt(hash, res)).call(inLine, { hash, command }, once)
    serving.soon()
    return lineAt(req, hash, res)
  })
  mount.take(door.take, schemas.take, async ({ body, req, res, key }) => {
    const secret = String(req.params.secret)
    const hash = sha256Hex(secret)
    const here = linkAt(hash, res)
    // Another calendar may have taken the time meanwhile.
    if (here === own) await serving.calendars.lookAgain()
    const once = { scope: 'line take', key, body: { secret, freed: body.freed } }
    const answer = theirs(req, here).call(takeFreed, { hash, ...body }, once)
    serving.soon()
    return { link: here.secrets.of(answer.link) }
  })
  mount.get(door.my, ({ req, res }) => {
    const hash = sha256Hex(String(req.params.secret))
    const other = otherIn(req)
    return theirs(req, linkAt(hash, res)).look((house, now) =>
      linkView(house, bookingBehind(house, hash, other), now),
    )
  })
  /** Does one thing through a private link, and shows where things stand then. */
  const through = (
    { req, res, key }: { req: Request; res: Response; key: string | undefined },
    command: ClientDoes,
    shown?: string,
  ): LinkView => {
    const secret = String(req.params.secret)
    const hash = sha256Hex(secret)
    const here = linkAt(hash, res)
    const other = otherIn(req)
    const which = other === undefined ? {} : { other }
    const once = { scope: `link ${command.do}`, key, body: { secret, command, ...which } }
    theirs(req, here).call(
      throughLink,
      { hash, command, ...which, ...(shown === undefined ? {} : { shown }) },
      once,
    )
    serving.soon()
    return theirs(req, here).look((house, now) => linkView(house, bookingBehind(house, hash, other), now))
  }
  mount.take(door.prove, schemas.prove, (call) => through(call, { do: 'prove' }))
  mount.take(door.withdraw, schemas.withdraw, (call) => through(call, { do: 'withdraw' }))
  mount.take(door.accept, schemas.accept, (call) => {
    const { shown, ...start } = call.body
    return through(call, { do: 'accept', ...start }, shown)
  })
  mount.take(door.refuse, schemas.refuse, (call) => through(call, { do: 'refuse', text: call.body.text }))
  mount.take(door.reply, schemas.reply, (call) => through(call, { do: 'reply', text: call.body.text }))
  mount.take(door.plead, schemas.plead, (call) => through(call, { do: 'plead', text: call.body.text }))
  mount.take(door.come, schemas.come, (call) => through(call, { do: 'come' }))
  mount.take(door.prepare, schemas.prepare, (call) => through(call, { do: 'prepare', done: call.body.done }))
  mount.take(door.speak, schemas.speak, (call) => through(call, { do: 'speak', ...call.body }))
  mount.take(door.unwant, schemas.unwant, (call) => through(call, { do: 'unwant', ...call.body }))
  mount.take(door.agree, schemas.agree, ({ body, req, res, key }) => {
    const secret = String(req.params.secret)
    const hash = sha256Hex(secret)
    const here = linkAt(hash, res)
    const other = otherIn(req)
    const which = other === undefined ? {} : { other }
    const once = { scope: 'link agree', key, body: { secret, ...which, ...body } }
    theirs(req, here).call(agreeThrough, { hash, ...which, ...body }, once)
    serving.soon()
    return theirs(req, here).look((house, now) => linkView(house, bookingBehind(house, hash, other), now))
  })
  mount.take(door.moves, schemas.moves, ({ body, req, res }) => {
    const hash = sha256Hex(String(req.params.secret))
    return theirs(req, linkAt(hash, res)).look((house, now) =>
      openingsToMove(house, bookingBehind(house, hash, otherIn(req)).booking, body, now),
    )
  })
  mount.take(door.move, schemas.move, async (call) => {
    // Another calendar may have taken the time meanwhile.
    await serving.calendars.lookAgain()
    const { shown, ...start } = call.body
    return through(call, { do: 'move-own', ...start }, shown)
  })
  mount.take(door.cancel, schemas.cancel, (call) =>
    through(call, { do: 'cancel', by: 'client', text: call.body.text }, call.body.shown),
  )

  mountYours(app, mount, serving, linkAt)
  mountTill(app, mount, serving, { linkAt, otherIn })
  mountTexts(app, serving)
  mountUnsubscribe(app, serving)

  const feedAt = (path: string, write: Parameters<Here['look']>[0]): void => {
    app.get(path, (req, res) => {
      if (store.setting('feed') !== sha256Hex(String(req.params.secret)))
        throw new Refused(404, 'unknown-feed')
      res.setHeader('cache-control', 'no-store')
      res.type('text/calendar').send(own.look(write))
    })
  }
  feedAt('/feed/:secret.ics', feed)
  feedAt('/feed/:secret/hours.ics', feedHours)
  feedAt('/feed/:secret.ifb', feedFreeBusy)
  app.get('/', (_req, res, next) => {
    const slug = own.keeper.house.practice?.profile.slug
    if (slug) res.redirect(302, `/${slug}`)
    else next()
  })
  // A trial may be shown inside the desk that opened it, and nowhere else.
  app.use((req, res, next) => {
    const trial = trials.of(req.path.split('/')[1] ?? '')
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
  serveHealth(app, serving)
  servePages(app, serving.doorPages, firstPages(own))
  app.use(failures)
  return app
}

/** Which other booking of the same person is meant. */
const otherIn = (req: Request): string | undefined => bodyOf(queries.link, req.query).booking

/** The first page of the own door, with the practitioner's words in it: made once for each publishing and day. */
function firstPages(own: Here): NonNullable<Parameters<typeof servePages>[2]> {
  const known = new Map<string, ReadonlyMap<string, Buffer>>()
  let of = ''
  return (req, plain) =>
    own.look((house, now) => {
      const { pack } = house
      const [slug, page] = req.path.split('/').slice(1)
      // Whoever comes by a link of their own may see more than this page says.
      if (!pack || slug !== pack.practice.profile.slug || req.query.with !== undefined) return undefined
      const language = languageAt(house, wantedBy(req))
      const view = lookIn(house, language, (spoken) => doorView(spoken, now))
      const standing = `${pack.revision} ${JSON.stringify(view.services.map(({ id }) => id))} ${view.closed === undefined}`
      if (standing !== of) known.clear()
      of = standing
      const whole = !page
      const name = `${language} ${whole}`
      const before = known.get(name)
      if (before) return before
      const words = { view, email: pack.practice.profile.email }
      const made = formsOf(lookIn(house, language, () => firstPage(plain, words, whole)))
      known.set(name, made)
      return made
    })
}

/** The secret of the link that an answer names; answers given before links had names hold the secret itself. */
const secretIn = (here: Here, answer: { link: string } | { secret: string }): string =>
  'secret' in answer ? answer.secret : here.secrets.of(answer.link)
