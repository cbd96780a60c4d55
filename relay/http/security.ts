import type { Problem } from '@acolhida/core/door'
import { BadData, letIn } from '@acolhida/core/schemas'
import { canonicalJson, sha256Hex } from '@acolhida/core/terms'
import express, { type ErrorRequestHandler, type Express, type RequestHandler, type Response } from 'express'
import { rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import type Joi from 'joi'
import type { Clock } from '../clock.ts'
import { Refused } from '../refused.ts'
import type { Store } from '../store/store.ts'

/** The largest body the relay reads, in bytes. */
export const LARGEST = { door: 128 * 1024, desk: 8 * 1024 * 1024 }

/**
 * An application with the headers and limits that desk and door both have.
 * @param more of the content security policy, which one of them alone needs
 */
export function guarded(
  clock: Clock,
  largest: number,
  more: Record<string, (string | (() => string))[]> = {},
): Express {
  const app = express()
  app.disable('x-powered-by')
  app.set('trust proxy', 'loopback')
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
    next()
  })
  app.use('/api', (_req, res, next) => {
    res.setHeader('cache-control', 'no-store')
    next()
  })
  app.use('/api', express.json({ limit: largest, strict: true }))
  return app
}

/** At most `perMinute` requests a minute from one address. */
export const limited = (perMinute: number): RequestHandler =>
  rateLimit({
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

export function problem(res: Response, status: number, body: Problem): void {
  res.status(status).json(body)
}

/** The body of a request, let in through its schema. @throws Refused naming the place that is wrong */
export function bodyOf<T>(schema: Joi.Schema, value: unknown): T {
  try {
    return letIn<T>(schema, value ?? {}, 'The request')
  } catch (error) {
    if (!(error instanceof BadData)) throw error
    const [first] = error.faults
    throw new Refused(400, 'malformed', first?.message ?? 'The request is malformed.', {
      where: first?.path ?? '',
    })
  }
}

const KEY = /^[A-Za-z0-9_-]{16,64}$/

/**
 * Does a thing once: the same key with the same body gets the answer it got before, and nothing happens again.
 * The answer is kept in the transaction of the act itself.
 * @throws Refused without a key, or when the key was used for something else
 */
export function once<T>(
  store: Store,
  clock: Clock,
  key: string | undefined,
  scope: string,
  body: unknown,
  work: () => T,
): T {
  if (!key || !KEY.test(key)) {
    throw new Refused(
      400,
      'no-key',
      'A request that changes something carries an Idempotency-Key of 16 to 64 letters.',
      {
        where: 'idempotency-key',
      },
    )
  }
  const name = `${scope} ${key}`
  const print = sha256Hex(canonicalJson(body))
  return store.act(() => {
    const before = store.done(name)
    if (before) {
      if (before.print !== print) {
        throw new Refused(422, 'key-reused', 'This Idempotency-Key was used for another request.', {
          where: 'idempotency-key',
        })
      }
      return before.answer as T
    }
    const answer = work()
    store.markDone(name, print, answer, clock.now())
    return answer
  })
}

/** Turns what went wrong into a code and a sentence; what was not foreseen says nothing of the inside. */
export const failures: ErrorRequestHandler = (error: unknown, _req, res, next) => {
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
    console.error('The relay failed:', error)
    problem(res, 500, {
      code: 'failed',
      message: 'Something went wrong here. Nothing was stored; please try again.',
    })
  }
}
