import { type Amount, beside, ENDLESS } from '../limit.ts'
import type { Way } from './kind.ts'

/** The numbers that can be answered. */
export interface Line {
  least?: number | undefined
  most?: number | undefined
  /** Whole numbers alone; else whatever lies between. */
  whole?: boolean | undefined
}

/** A stretch of numbers that nothing tells apart. */
interface Cell {
  low: number
  high: number
  /** Whether its ends belong to it. */
  lowIn: boolean
  highIn: boolean
}

/**
 * The ways of answering with a number: what lies between two numbers that it is compared with is one way, each of
 * these numbers is another. Where effects multiply by it, a stretch is answered at both its ends, half a way each:
 * what follows from it rises or falls from one to the other.
 * @param cuts the numbers it is compared with
 * @param multiplied whether effects multiply by it
 */
export function waysOnLine(line: Line, cuts: readonly number[], multiplied: boolean): Way<number>[] {
  // Below zero it counts as nothing, so zero tells apart, too.
  const apart = [...new Set(multiplied ? [...cuts, 0] : cuts)].sort((a, b) => a - b)
  const cells: Cell[] = []
  let low = Number.NEGATIVE_INFINITY
  for (const cut of apart) {
    cells.push(
      { low, high: cut, lowIn: false, highIn: false },
      { low: cut, high: cut, lowIn: true, highIn: true },
    )
    low = cut
  }
  cells.push({ low, high: Number.POSITIVE_INFINITY, lowIn: false, highIn: false })
  return cells.flatMap((cell) => {
    const within = line.whole ? wholeWithin(cell, line) : anyWithin(cell, line)
    return within ? waysIn(within, line.whole === true, multiplied) : []
  })
}

function wholeWithin({ low, high, lowIn, highIn }: Cell, { least, most }: Line): Cell | undefined {
  const from = Math.max(
    lowIn ? Math.ceil(low) : Math.floor(low) + 1,
    Math.ceil(least ?? Number.NEGATIVE_INFINITY),
  )
  const to = Math.min(
    highIn ? Math.floor(high) : Math.ceil(high) - 1,
    Math.floor(most ?? Number.POSITIVE_INFINITY),
  )
  return from <= to ? { low: from, high: to, lowIn: true, highIn: true } : undefined
}

function anyWithin(cell: Cell, { least, most }: Line): Cell | undefined {
  const within = { ...cell }
  if (least !== undefined && least > cell.low) Object.assign(within, { low: least, lowIn: true })
  if (most !== undefined && most < cell.high) Object.assign(within, { high: most, highIn: true })
  if (within.low === within.high) return within.lowIn && within.highIn ? within : undefined
  if (within.low > within.high) return undefined
  const inside = between(within.low, within.high)
  return within.lowIn || within.highIn || (within.low < inside && inside < within.high) ? within : undefined
}

function waysIn(cell: Cell, whole: boolean, multiplied: boolean): Way<number>[] {
  const { low, high, lowIn, highIn } = cell
  if (low === high) return [[low, 1]]
  const middle = whole ? wholeBetween(low, high) : between(low, high)
  if (!multiplied || high <= 0) return [[middle, 1]]
  const ends: [number, Amount][] = [
    lowIn ? [low, low] : [nearTo(low, high, 1), beside(low, 1)],
    highIn && Number.isFinite(high)
      ? [high, high]
      : high === Number.POSITIVE_INFINITY
        ? [far(low), ENDLESS]
        : [nearTo(low, high, -1), beside(high, -1)],
  ]
  return ends.map(([value, amount]) => [value, 1 / 2, amount])
}

const wholeBetween = (low: number, high: number): number => {
  if (Number.isFinite(low)) return Number.isFinite(high) ? Math.floor((low + high) / 2) : low
  return Number.isFinite(high) ? high : 0
}

/** A number between two others, with as few digits as can be. */
function between(low: number, high: number): number {
  if (low === Number.NEGATIVE_INFINITY) return high === Number.POSITIVE_INFINITY ? 0 : Math.ceil(high) - 1
  if (high === Number.POSITIVE_INFINITY) return Math.floor(low) + 1
  const middle = low + (high - low) / 2
  for (let digits = 0; digits <= 15; digits++) {
    const short = Number(middle.toFixed(digits))
    if (low < short && short < high) return short
  }
  return middle
}

/** A number near to one end of a stretch: a tenth, a hundredth, … of its width from it. */
function nearTo(low: number, high: number, side: 1 | -1): number {
  const end = side > 0 ? low : high
  const width = Number.isFinite(high - low) ? high - low : 1
  const near = between(
    ...((side > 0 ? [low, low + width / 16] : [high - width / 16, high]) as [number, number]),
  )
  return low < near && near < high && near !== end ? near : between(low, high)
}

/** A number much larger than another. */
const far = (low: number): number => Math.max(1_000_000, Math.ceil(low) * 10)
