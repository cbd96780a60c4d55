import { type Candidate, packBest } from '@acolhida/core/waiting'

const LENGTHS = [20, 30, 50, 60, 75, 90]
const PRICES = [2_500, 3_500, 5_500, 6_800, 8_000, 9_500]
/** The gap, in minutes, and its grid. */
const GAP = 480
const GRID = 5

/** Sixty people with six lengths: free all day, or within windows; worth their price, their minutes, or one of their own. */
function waiting(
  kind: 'all day' | 'windows' | 'minutes' | 'own prices',
  random: (below: number) => number,
): Candidate[] {
  return Array.from({ length: 60 }, (_, nth) => {
    const which = random(6)
    const minutes = LENGTHS[which]!
    const from = kind === 'all day' ? 0 : random(80) * GRID
    const to = kind === 'all day' ? GAP : Math.min(GAP, from + minutes + random(60) * GRID)
    const starts = Array.from({ length: GAP / GRID + 1 }, (_, step) => step * GRID).filter(
      (start) => start >= from && start + minutes <= to,
    )
    const price = PRICES[which]! + (kind === 'own prices' ? random(2_000) : 0)
    return {
      ...{ id: `${nth}`, minutes, starts, before: [0, 5, 15][which % 3]!, after: [10, 15][which % 2]! },
      ...{ value: kind === 'minutes' ? minutes : price, waited: random(4_000) },
    }
  })
}

/** How long it takes to prove who is best for a gap of eight hours. */
export async function benchWaiting(): Promise<void> {
  let state = 12_345
  const random = (below: number): number => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return Math.floor((state / 2 ** 32) * below)
  }
  for (const kind of ['all day', 'windows', 'minutes', 'own prices'] as const) {
    const took: number[] = []
    let unproven = 0
    for (let nth = 0; nth < 60; nth++) {
      const candidates = waiting(kind, random)
      const before = process.cpuUsage()
      const { proven } = packBest(candidates, { space: 'larger' })
      const { user, system } = process.cpuUsage(before)
      // The first are slow in any program.
      if (nth >= 10) took.push((user + system) / 1_000)
      if (!proven) unproven++
    }
    took.sort((a, b) => a - b)
    const at = (share: number): string => took[Math.floor(share * (took.length - 1))]!.toFixed(0)
    console.log(
      `Eight hours, 60 people, ${kind}: ${at(0.5)} ms in the middle, ${at(0.95)} of 95 in 100, ${at(1)} at the most (goal 50); ${unproven} not proven`,
    )
  }
}
