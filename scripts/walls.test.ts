import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { circles, importsBehind, isTest, readPlan, roomOf } from './walls.ts'

const plan = readPlan(dirname(dirname(fileURLToPath(import.meta.url))))
const code = [...plan.imports.keys()].filter((path) => !isTest(path))
/** Imports of one folder into another that are not to be, tests aside. */
const crossing = (from: RegExp, to: RegExp): string[] =>
  code
    .filter((path) => from.test(path))
    .flatMap((path) =>
      plan.imports
        .get(path)!
        .filter((other) => to.test(other))
        .map((other) => `${path} → ${other}`),
    )

describe('the walls of the house', () => {
  it('are read from the real files', () => {
    expect(code.length).toBeGreaterThan(300)
    expect(plan.imports.get('relay/main.ts')).toContain('relay/relay.ts')
    expect(plan.imports.get('core/house/act.ts')).toContain('core/agenda/index.ts')
    expect(
      circles(
        new Map([
          ['a', ['b']],
          ['b', ['c']],
          ['c', ['a']],
          ['d', ['a']],
        ]),
      ),
    ).toEqual([['a', 'b', 'c']])
    expect([...new Set(code.map(roomOf))]).toContain('core/house')
  })

  it('have no circle of imports', () => {
    expect(circles(plan.imports)).toEqual([])
  })

  it('let nothing run the wrong way', () => {
    expect(crossing(/^core\//, /^(relay|web|demo|terminal|e2e|scripts)\//)).toEqual([])
    expect(crossing(/^web\//, /^(relay|terminal|e2e)\//)).toEqual([])
    expect(crossing(/^relay\//, /^(web|terminal|e2e)\//)).toEqual([])
    expect(crossing(/^web\/door\//, /^web\/desk\//)).toEqual([])
    expect(crossing(/^web\/(drawings|questions|relay-client|seal|theme)\b/, /^web\/(desk|door)\//)).toEqual(
      [],
    )
    // The rules know no house, the house no formats, and nothing of either knows the shape of what comes in.
    expect(
      crossing(
        /^core\/(booking|openings|questions|practice|terms|time|money|people)\//,
        /^core\/(agenda|house|request|contract|schemas|formats)\//,
      ),
    ).toEqual([])
    expect(crossing(/^core\/request\//, /^core\/(agenda|house|schemas|formats)\//)).toEqual([])
    expect(crossing(/^core\/agenda\//, /^core\/(house|request|schemas|formats)\//)).toEqual([])
    expect(crossing(/^core\/house\//, /^core\/(schemas|formats)\//)).toEqual([])
    expect(crossing(/^web\/desk\//, /^web\/door\//)).toEqual([])
    expect(crossing(/^relay\/(desk|http\/desk)/, /^relay\/http\/door/)).toEqual([])
    // What the relay stands on knows nothing of what stands on it.
    expect(crossing(/^relay\/ground\//, /^relay\/(?!ground\/)/)).toEqual([])
    expect(crossing(/^relay\/store\//, /^relay\/(?!ground\/|store\/)/)).toEqual([])
    // Shapes are said beside what they describe, and know none of it; only their own room knows the library.
    expect(crossing(/^core\/shape\//, /^core\/(?!shape\/|time\/|money\/|people\/mail)/)).toEqual([])
    // The desk reckons and decides, and never acts.
    expect(crossing(/^web\//, /^core\/house\//)).toEqual([])
  })

  it('keep the schemas out of the door, whose weight they are', () => {
    const door = importsBehind(plan.imports, 'web/door/main.tsx')
    expect(door.has('core/contract/index.ts')).toBe(true)
    expect([...door].filter((path) => /^core\/(schemas|contract\/schemas)/.test(path))).toEqual([])
  })

  it('are not talked round: no cast through another type', () => {
    const TALKED = /\bas (never|unknown as)\b|\bundefined as\b|\bas any\b/
    const found = code
      .filter((path) => /^(core|relay|web|demo|terminal)\//.test(path))
      .flatMap((path) =>
        plan.text
          .get(path)!
          .split('\n')
          .flatMap((line, i) =>
            TALKED.test(line) && !/^\s*(\/\/|\*|\/\*)/.test(line) ? [`${path}:${i + 1} ${line.trim()}`] : [],
          ),
      )
    expect(found).toEqual([])
  })
})
