import { CONTRACT, type Endpoint, type Problem } from '@acolhida/core/contract'
import { Refused } from '@acolhida/core/request'
import { BadData, letIn, type Schema } from '@acolhida/core/schemas'
import express, { type ErrorRequestHandler, type Express, type RequestHandler, type Response } from 'express'
import { rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import type { Clock, Leap } from '../ground/clock.ts'
import { log } from '../ground/log.ts'
import { isLoopback } from '../ground/settings.ts'
import { clientOf } from './client.ts'

/** What an application is guarded by. */
export interface Guarding {
  clock: Clock & { readonly leapt?: Leap | undefined }
  /** Whose `X-Forwarded-For` is believed: addresses, ranges, `loopback`. */
  proxies?: readonly string[]
  /** Whether it answers pages of this machine alone. */
  loopbackOnly?: boolean
}

/**
 * Lets in what was asked for by a name of this machine, from a page of this machine: a page from elsewhere whose name
 * has been made to lead here (DNS rebinding) is told nothing.
 */
const onlyFromHere: RequestHandler = (req, res, next) => {
  const origin = req.get('origin')
  // A form of a page that tells nobody where one came from is sent with no origin; that it is our own, the browser says.
  const hidden = origin === 'null' && req.get('sec-fetch-site') === 'same-origin'
  const from =
    origin === undefined || hidden ? '' : URL.canParse(origin) ? new URL(origin).hostname : 'elsewhere'
  if (isLoopback(req.hostname ?? '') && (from === '' || isLoopback(from))) next()
  else problem(res, 421, { code: 'elsewhere', message: 'This runs for its own machine alone.' })
}

/**
 * An application with the headers that desk and door both have.
 * @param more of the content security policy, which one of them alone needs
 */
export function guarded(
  { clock, proxies = [], loopbackOnly = false }: Guarding,
  more: Record<string, (string | (() => string))[]> = {},
): Express {
  const app = express()
  app.disable('x-powered-by')
  // What a proxy says of who calls is believed of those that are named.
  app.set('trust proxy', proxies.length > 0 ? [...proxies] : false)
  if (loopbackOnly) app.use(onlyFromHere)
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
          ...more,
        },
      },
      // Set by whoever puts TLS in front of it.
      strictTransportSecurity: false,
      referrerPolicy: { policy: 'no-referrer' },
    }),
  )
  app.use((_req, res, next) => {
    res.setHeader('x-relay-now', String(clock.now()))
    if (clock.moved) res.setHeader('x-relay-moved', '1')
    const { leapt } = clock
    if (leapt) res.setHeader('x-relay-leapt', `${leapt.from} ${leapt.to}`)
    next()
  })
  app.use('/api', (req, res, next) => {
    res.setHeader('cache-control', 'no-store')
    const spoken = req.get('x-acolhida-contract')
    if (spoken !== undefined && spoken !== String(CONTRACT)) throw new Refused(409, 'older-page')
    next()
  })
  return app
}

/** At most `perMinute` requests a minute from one address. */
export const limited = (perMinute: number): RequestHandler =>
  rateLimit({
    keyGenerator: clientOf,
    windowMs: 60_000,
    limit: perMinute,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_req, res) => {
      problem(res, 429, {
        code: 'too-many',
        message: 'That was a lot at once. Please wait a minute and try again.',
      })
    },
  })

/** Reads the body of an endpoint, no larger than it may be. */
export const jsonOf = ({ largest }: Pick<Endpoint<unknown, unknown>, 'largest'>): RequestHandler =>
  express.json({ limit: largest, strict: true })

export function problem(res: Response, status: number, body: Problem): void {
  res.status(status).json(body)
}

/** What comes from outside, let in through its schema. @throws Refused naming the place that is wrong */
export function bodyOf<T>(schema: Schema<T>, value: unknown): T {
  try {
    return letIn(schema, value ?? {}, 'The request', false)
  } catch (error) {
    if (!(error instanceof BadData)) throw error
    const [first] = error.faults
    throw new Refused(400, 'malformed', {
      where: first?.path ?? '',
      ...(first ? { message: first.message } : {}),
    })
  }
}

/** Turns what went wrong into a code and a sentence; what was not foreseen says nothing of the inside. */
export const failures: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) {
    next(error)
    return
  }
  if (error instanceof Refused) {
    problem(res, error.status, error.problem)
    return
  }
  const { status, type } = error as { status?: number; type?: string }
  if (type === 'entity.too.large') {
    problem(res, 413, { code: 'too-large', message: 'That is more than can be sent at once.' })
  } else if (status && status >= 400 && status < 500) {
    problem(res, 400, { code: 'malformed', message: 'The request is not readable JSON.' })
  } else {
    log.error(
      { err: error, call: `${req.method} ${String(req.route?.path ?? 'unknown')}` },
      'The relay failed.',
    )
    problem(res, 500, {
      code: 'failed',
      message: 'Something went wrong here. Nothing was stored; please try again.',
    })
  }
}
