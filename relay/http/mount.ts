import type { Endpoint } from '@acolhida/core/contract'
import type { Schema } from '@acolhida/core/schemas'
import type { Express, Request, RequestHandler, Response } from 'express'
import { bodyOf, jsonOf, limited } from './security.ts'
import { checkSeen } from './seen.ts'

/** One call of an endpoint, with its body let in. */
export interface Call<B> {
  body: B
  req: Request
  res: Response
  /** What names the call, where it happens once. */
  key: string | undefined
}

type Work<B, A> = (call: Call<B>) => A | Promise<A>

/** Puts the endpoints of a contract at their addresses: who may call, how much, in which shape, and what comes back. */
export class Mount {
  readonly #app: Express
  readonly #guards: Partial<Record<Endpoint<unknown, unknown>['who'], RequestHandler>>
  readonly #rate: number

  /** @param rate of the whole relay, requests a minute from one address */
  constructor(
    app: Express,
    guards: Partial<Record<Endpoint<unknown, unknown>['who'], RequestHandler>>,
    rate: number,
  ) {
    this.#app = app
    this.#guards = guards
    this.#rate = rate
  }

  /** What is looked at before a body is read: the rate, the key. */
  #before({ who, rate }: Pick<Endpoint<unknown, unknown>, 'who' | 'rate'>): RequestHandler[] {
    const guard = this.#guards[who]
    return [...(rate === undefined ? [] : [limited(Math.min(rate, this.#rate))]), ...(guard ? [guard] : [])]
  }

  get<A>(endpoint: Endpoint<undefined, A>, work: Work<undefined, A>): void {
    this.#app.get(endpoint.path, ...this.#before(endpoint), async (req, res) => {
      res.json(await work({ body: undefined, req, res, key: undefined }))
    })
  }

  /** Of endpoints with a body. */
  take<B, A>(endpoint: Endpoint<B, A>, schema: Schema<B>, work: Work<B, A>): void {
    const method = endpoint.method === 'PUT' ? 'put' : 'post'
    this.#app[method](
      endpoint.path,
      ...this.#before(endpoint),
      jsonOf(endpoint),
      async (req: Request, res: Response) => {
        // What the desk publishes is its own; what a client sends, somebody must have typed.
        if (endpoint.who !== 'desk') checkSeen(req.body)
        const body = bodyOf(schema, req.body)
        const answer = await work({ body, req, res, key: req.get('idempotency-key') })
        res.status(endpoint.status).json(answer)
      },
    )
  }
}
