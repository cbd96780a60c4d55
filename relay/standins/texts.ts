import { randomUUID } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import { type Instant, instant } from '@acolhida/core/time'
import express, { raw } from 'express'
import { isSigned, signedHeaders } from '../ground/signature.ts'
import { listen, urlOf } from '../relay.ts'
import type { Manner } from './manner.ts'

/** A text as the stand-in has taken it. */
export interface TakenText {
  id: string
  to: string
  text: string
  at: Instant
}

/** The stand-in for a text gateway: real HTTP on a loopback port, kept in memory. */
export class StandinTexts {
  readonly taken: TakenText[] = []
  /** The id of everything it was asked to send, as often as it was asked. */
  readonly asked: string[] = []
  /** How it behaves. */
  manner: Manner = 'takes'
  /** Where it tells what somebody has answered: the door's address. */
  tellTo = ''
  readonly #clock: { now(): Instant }
  readonly #secret: string
  #server: Server | undefined
  readonly #late: (() => void)[] = []

  constructor(clock: { now(): Instant }, secret: string) {
    this.#clock = clock
    this.#secret = secret
  }

  /** Starts it on a port (0: a free one) and gives its address. */
  async start(port = 0): Promise<string> {
    const app = express()
    app.disable('x-powered-by')
    app.post('/texts', raw({ type: () => true, limit: 20_000 }), async (req, res) => {
      const body = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0)
      const { method, headers } = req
      if (!(await isSigned({ method, path: req.path, headers }, body, this.#secret, this.#clock.now()))) {
        res.status(401).end()
        return
      }
      if (this.manner === 'down') {
        req.socket.destroy()
        return
      }
      if (this.manner === 'refuses') {
        res.status(422).end()
        return
      }
      const take = (): void => {
        this.#take(JSON.parse(body.toString('utf8')) as Omit<TakenText, 'at'>)
        res.status(202).json({})
      }
      if (this.manner === 'slow') this.#late.push(take)
      else take()
    })
    this.#server = await listen(createServer(app), port, '127.0.0.1')
    return urlOf(this.#server)
  }

  /** The same text, said again, is taken once. */
  #take(text: Omit<TakenText, 'at'>): void {
    this.asked.push(text.id)
    if (this.taken.some(({ id }) => id === text.id)) return
    this.taken.push({ ...text, at: instant(this.#clock.now()) })
  }

  /** Takes what it has been slow about. */
  catchUp(): void {
    for (const take of this.#late.splice(0)) take()
  }

  /** Somebody answers to a text. @returns the status the relay answers with */
  async answer(from: string, text: string): Promise<number> {
    const path = '/api/texts'
    const body = JSON.stringify({ id: randomUUID(), from, text })
    const signed = await signedHeaders(
      { method: 'POST', path },
      Buffer.from(body),
      this.#secret,
      this.#clock.now(),
    )
    const answer = await fetch(`${this.tellTo}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...signed },
      body,
    })
    await answer.body?.cancel()
    return answer.status
  }

  stop(): Promise<void> {
    this.catchUp()
    return new Promise((resolve) => {
      if (!this.#server) {
        resolve()
        return
      }
      this.#server.close(() => resolve())
      this.#server.closeAllConnections()
    })
  }
}
