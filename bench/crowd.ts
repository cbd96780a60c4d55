import { request } from 'node:http'
import { openIn, requestFor } from './house.ts'
import { relayOfYears, SLUG } from './years.ts'

const CLIENTS = 1_000

/** One call, with the time it took in ms. */
const post = (url: string, body: string, key: string): Promise<{ status: number; ms: number }> =>
  new Promise((resolve, reject) => {
    const began = performance.now()
    const call = request(
      url,
      { method: 'POST', headers: { 'content-type': 'application/json', 'idempotency-key': key } },
      (answer) => {
        answer.resume()
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, ms: performance.now() - began }))
      },
    )
    call.on('error', reject)
    call.end(body)
  })

/** A thousand clients send for one time at once: one gets it, the others are told, and how long the last has waited. */
export async function benchCrowd(): Promise<void> {
  const years = await relayOfYears(15_000, 3_000)
  const { door } = await years.relay.start({ door: 0, desk: 0 })
  const start = openIn(years.relay, 21)[3]!
  const bodies = Array.from({ length: CLIENTS }, () => JSON.stringify(requestFor(years.relay, start)))
  const began = performance.now()
  const answers = await Promise.all(
    bodies.map((body, i) => post(`${door}/api/door/${SLUG}/send`, body, `bench-crowd-key-${1_000 + i}`)),
  )
  const whole = performance.now() - began
  const of = (is: (status: number) => boolean): number => answers.filter(({ status }) => is(status)).length
  console.log(
    `  ${CLIENTS} clients for one time: ${of((number) => number === 201)} booked, ${of((number) => number === 409)} told, ` +
      `${of((number) => number >= 500)} server errors; the last waited ${Math.round(Math.max(...answers.map(({ ms }) => ms)))} ms, ` +
      `all of it took ${Math.round(whole)} ms`,
  )
  await years.close()
}
