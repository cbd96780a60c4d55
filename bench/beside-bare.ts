import type { AddressInfo } from 'node:net'
import { letIn, type Schema } from '@acolhida/core/schemas'
import express from 'express'
import type { Relay } from '../relay/relay.ts'
import { type Bare, bareOf } from './bare.ts'
import { type Spent, spend, zero } from './side-by-side.ts'

let keys = 0

/**
 * A relay that is called over HTTP, and beside it a bare Express handler for each path, with the same Joi schema, that
 * writes the same rows to the same SQLite file in one transaction.
 */
export async function besideBare(relay: Relay) {
  const { door } = await relay.start({ door: 0, desk: 0 })
  const app = express()
  const server = app.listen(0)
  const bare = `http://localhost:${(server.address() as AddressInfo).port}/`
  const likes = new Map<string, Bare>()
  const sums = new Map<string, [ours: Spent, bare: Spent]>()

  const post = async (url: string, body: unknown): Promise<void> => {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': `bench-http-${1_000_000 + keys++}` },
      body: JSON.stringify(body),
    })
    if (!response.ok) throw new Error(`${url}: ${await response.text()}`)
    await response.json()
  }
  const handle = (name: string, schema: Schema<unknown>): void => {
    app.post(`/${name}`, express.json({ limit: '256kb' }), (req, res) => {
      letIn(schema, req.body, 'The body')
      likes.get(name)?.write()
      res.json({ done: true })
    })
  }

  return {
    door,
    /** What each step has taken so far, by its name. */
    sums,
    /** One call of the relay's, and one of the bare handler's that bears its name. */
    async step(
      counts: boolean,
      name: string,
      path: string,
      schema: Schema<unknown>,
      body: unknown,
    ): Promise<void> {
      const first = !sums.has(name)
      const [ours, theirs] = sums.get(name) ?? [zero(), zero()]
      sums.set(name, [ours, theirs])
      const rowsSince = first ? bareOf(relay.store.db) : undefined
      await spend(counts ? ours : zero(), () => post(door + path, body))
      if (rowsSince) {
        likes.set(name, rowsSince())
        handle(name, schema)
      }
      await spend(counts ? theirs : zero(), () => post(bare + name, body))
    },
    async close(): Promise<void> {
      for (const like of likes.values()) like.clean()
      await new Promise((resolve) => server.close(resolve))
    },
  }
}
