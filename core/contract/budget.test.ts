import { describe, expect, it } from 'vitest'
import { BadData, letIn, type Schema } from '../schemas/index.ts'
import { joiOf } from '../schemas/joi.ts'
import { away, desk } from './desk-endpoints.ts'
import { door } from './door-endpoints.ts'
import type { Endpoint } from './endpoint.ts'
import { queries, schemas } from './schemas.ts'

/** What some letting in of known size takes, in ms of the processor: the best of some. */
function known(): number {
  const text = JSON.stringify(
    Array.from({ length: 20_000 }, (_, i) => ({ id: `id-${i}`, text: 'x'.repeat(20) })),
  )
  let best = Number.POSITIVE_INFINITY
  for (let i = 0; i < 5; i++) {
    const from = process.cpuUsage()
    const read = JSON.parse(text) as { id: string }[]
    read.sort((a, b) => (a.id < b.id ? 1 : -1))
    best = Math.min(best, process.cpuUsage(from).user / 1_000)
  }
  return best
}

/**
 * No body of allowed size may hold the relay up for longer: 50 ms of the processor, where the known work takes no more
 * than `KNOWN`; in proportion on a slower machine.
 */
const KNOWN = 10
const BUDGET = 50 * Math.max(1, known() / KNOWN)

/** Texts that patterns have been brought down with: long runs, near misses, many beginnings without an end. */
const HOSTILE: ((n: number) => string)[] = [
  (n) => 'a'.repeat(n),
  (n) => '<'.repeat(n),
  (n) => '<a'.repeat(n / 2),
  (n) => `${'a'.repeat(n / 2)}@${'a.'.repeat(n / 4)}`.slice(0, n),
  (n) => `${'-a'.repeat(n / 2)}!`.slice(0, n),
  (n) => `${'1'.repeat(n - 1)}x`,
  (n) => `${' '.repeat(n - 1)}x`,
  (n) => 'a.'.repeat(n / 2),
  (n) => `FREQ=DAILY${';BYDAY=MO'.repeat(n / 9)}`.slice(0, n),
  (n) => `P${'1D'.repeat(n / 2)}`.slice(0, n),
  (n) => '\u0301'.repeat(n),
  (n) => '👩‍'.repeat(n / 3),
]

interface Described {
  type?: string
  rules?: { name: string; args?: { limit?: unknown } }[]
  allow?: unknown[]
  flags?: { only?: boolean; presence?: string }
  keys?: Record<string, Described>
  items?: Described[]
  patterns?: { schema?: Described; rule: Described }[]
  matches?: { schema?: Described; then?: Described; is?: Described; ref?: unknown }[]
  whens?: unknown[]
  link?: { ref: { path: string[] } }
  shared?: Described[]
}

const most = ({ rules = [] }: Described, usual: number): number => {
  const limit = rules.find(({ name }) => name === 'max' || name === 'length')?.args?.limit
  return typeof limit === 'number' ? limit : usual
}

/** The largest values that mean to be of a shape, with hostile texts in them; `way` picks among alternatives. */
function hostileOf(
  shape: Described,
  write: (n: number) => string,
  way: number,
  room: number,
  deep = 0,
): unknown {
  if (room <= 4 || deep > 12) return write(4)
  const { allow = [], flags } = shape
  if (flags?.only) return allow[way % allow.length]
  switch (shape.type) {
    case 'number':
      return 1
    case 'boolean':
      return true
    case 'array': {
      const [item] = shape.items ?? []
      const each = Math.max(16, Math.min(room, 2_000))
      const many = Math.min(most(shape, 1_000), Math.max(1, Math.floor(room / each)))
      return Array.from({ length: many }, (_, i) =>
        item ? hostileOf(item, write, way + i, Math.floor(room / many), deep + 1) : i,
      )
    }
    case 'object': {
      const keys = Object.entries(shape.keys ?? {})
      const [pattern] = shape.patterns ?? []
      const share = Math.floor(room / Math.max(1, keys.length))
      const whole = Object.fromEntries(
        keys.map(([name, key]) => [name, hostileOf(key, write, way, share, deep + 1)]),
      )
      if (!pattern) return whole
      const many = Math.min(most(shape, 5_000), Math.floor(room / 40))
      for (let i = 0; i < many; i++)
        whole[`key${i}`] = hostileOf(pattern.rule, write, way + i, Math.floor(room / many) - 10, deep + 1)
      return whole
    }
    case 'alternatives': {
      const ways = (shape.matches ?? []).flatMap((match) => match.then ?? match.schema ?? [])
      const next = ways[way % Math.max(1, ways.length)]
      return next ? hostileOf(next, write, way, room, deep + 1) : write(Math.min(room, 100))
    }
    case 'link':
      return { all: Array.from({ length: 3 }, () => ({ not: { all: [] } })) }
    default:
      return write(Math.max(4, Math.min(most(shape, room), room)))
  }
}

const nested = (n: number): unknown => {
  let value: unknown = 'x'
  for (let i = 0; i < n; i++)
    value = i % 2 ? [value] : { a: value, all: value, not: value, do: 'x', kind: 'all' }
  return value
}

/** Letting a value in, in ms of the processor: the best of some, as the machine may be busy. */
function cost(schema: Schema<unknown>, value: unknown): number {
  let best = Number.POSITIVE_INFINITY
  for (let i = 0; i < 5 && best > BUDGET / 2; i++) {
    const from = process.cpuUsage()
    try {
      letIn(schema, value, 'It', false)
    } catch (error) {
      if (!(error instanceof BadData)) throw error
    }
    const { user, system } = process.cpuUsage(from)
    best = Math.min(best, (user + system) / 1_000)
  }
  return best
}

const ENDPOINTS: Record<string, Endpoint<never, unknown>> = { ...door, ...desk, ...away } as never
// The package comes from the desk alone, is told to be let in by its key before it is read, and has 8 MB.
const OF_THE_DESK = new Set(['publish'])
const ALL = [...Object.entries(schemas), ...Object.entries(queries)] as [string, Schema<unknown>][]

describe('every schema', () => {
  it.each(ALL.filter(([name]) => !OF_THE_DESK.has(name)))(
    '%s lets in or refuses within its time',
    (name, schema) => {
      const room = ENDPOINTS[name]?.largest || 8_000
      const shape = joiOf(schema).describe() as Described
      const slow: string[] = []
      const tryIt = (what: string, value: unknown): void => {
        const ms = cost(schema, value)
        if (ms > BUDGET) slow.push(`${what}: ${ms} ms`)
      }
      for (let way = 0; way < 6; way++)
        HOSTILE.forEach((write, i) => {
          const value = hostileOf(shape, write, way, room)
          // What is tried could have been sent.
          if (JSON.stringify(value).length <= room * 1.5) tryIt(`way ${way}, text ${i}`, value)
        })
      for (const n of [10, 100, 1_000, 3_000]) {
        tryIt(`${n} deep`, nested(n))
        const keys = Object.keys(shape.keys ?? {})
        for (const key of keys) tryIt(`${key} ${n} deep`, { [key]: nested(n) })
      }
      tryIt('wide', Object.fromEntries(Array.from({ length: room / 12 }, (_, i) => [`key-${i}`, i])))
      tryIt(
        'a long list',
        Array.from({ length: room / 4 }, (_, i) => i),
      )
      expect(slow).toEqual([])
    },
  )

  it('is tried with what could be meant, and lets some of it in', () => {
    const tried = ALL.filter(([, schema]) => {
      const value = hostileOf(
        joiOf(schema).describe() as Described,
        (n) => 'a'.repeat(Math.min(n, 16)),
        0,
        4_000,
      )
      try {
        letIn(schema, value, 'It', false)
        return true
      } catch {
        return false
      }
    })
    expect(tried.length).toBeGreaterThan(8)
  })
})
