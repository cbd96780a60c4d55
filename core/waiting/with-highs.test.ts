import highs from 'highs'
import { expect, it } from 'vitest'
import type { Candidate } from './candidate.ts'
import { packBest } from './packing.ts'

// HiGHS, an exact solver of linear programs in whole numbers (Huangfu and Hall 2018), compiled to WebAssembly.
const solver = await highs()

/** The same question as a program for it: who begins when, each once, and no two at one minute. */
function programOf(candidates: readonly Candidate[]): string {
  const value: string[] = []
  const once: string[] = []
  const busy = new Map<number, string[]>()
  candidates.forEach(({ value: worth, starts, minutes, before, after }, nth) => {
    const names = starts.map((start) => `x${nth}_${start}`)
    value.push(...names.map((name) => `${worth} ${name}`))
    if (names.length > 0) once.push(`o${nth}: ${names.join(' + ')} <= 1`)
    starts.forEach((start, i) => {
      for (let minute = start - before; minute < start + minutes + after; minute += 5)
        busy.set(minute, [...(busy.get(minute) ?? []), names[i]!])
    })
  })
  const apart = [...busy].flatMap(([minute, names]) =>
    names.length > 1 ? [`b${minute + 100}: ${names.join(' + ')} <= 1`] : [],
  )
  const all = candidates.flatMap(({ starts }, nth) => starts.map((start) => `x${nth}_${start}`))
  return [
    'Maximize',
    `v: ${value.join(' + ')}`,
    'Subject To',
    ...once,
    ...apart,
    'Binary',
    ...all,
    'End',
  ].join('\n')
}

/** Always the same cases. */
let state = 20_261_128
const random = (below: number): number => {
  state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
  return Math.floor((state / 2 ** 32) * below)
}
const LENGTHS = [20, 30, 50, 60, 75, 90]

/** Half a day or a whole one, and people with windows in it; everything on five minutes. */
function someCase(people: number): Candidate[] {
  const length = 240 + random(49) * 5
  return Array.from({ length: people }, (_, nth) => {
    const kind = random(6)
    const minutes = LENGTHS[kind]!
    const from = random(Math.max(1, (length - minutes) / 5)) * 5
    const to = Math.min(length, from + minutes + random(30) * 5)
    const starts = Array.from({ length: length / 5 }, (_, step) => step * 5).filter(
      (start) => start >= from && start + minutes <= to,
    )
    return {
      ...{ id: `${nth}`, minutes, starts, before: random(3) * 5, after: random(3) * 5 },
      ...{ value: 2_000 + minutes * 80 + random(1_500), waited: 0 },
    }
  })
}

// 40 in the suite; the rest with `CASES=200`.
const CASES = Number(process.env.CASES ?? 40)

it(`is worth as much as an exact solver finds, ${CASES} times`, { timeout: 60_000 + CASES * 5_000 }, () => {
  let [ours, theirs] = [0, 0]
  for (let nth = 0; nth < CASES; nth++) {
    const candidates = someCase(8 + random(18))
    const began = process.cpuUsage()
    const found = packBest(candidates, { space: 'sum' })
    const between = process.cpuUsage(began)
    const { ObjectiveValue, Status } = solver.solve(programOf(candidates))
    const whole = process.cpuUsage(began)
    ours += between.user
    theirs += whole.user - between.user
    expect(Status).toBe('Optimal')
    expect([nth, found.value, found.proven]).toEqual([nth, Math.round(ObjectiveValue), true])
  }
  console.log(`      ${CASES} cases: ${(theirs / ours).toFixed(0)} times as fast as HiGHS, by CPU`)
})
