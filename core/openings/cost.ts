import type { Practice } from '../practice/types.ts'
import {
  type DayNumber,
  dayNumber,
  HOUR,
  type Instant,
  instant,
  type LocalDate,
  MINUTE,
} from '../time/index.ts'
import { type Ask, allows, blocksOn, frame } from './ask.ts'
import { CLOSURE_RULES, type ClosureRule } from './closures.ts'
import type { Diary } from './diary.ts'
import { closuresIn } from './why.ts'

/** What the rules cost over a span: of the starts that the hours and the grid allow, how many each one closes. */
export interface Cost {
  /** Length of the hours that allow the service, in hours. */
  hours: number
  /** Starts that fit into the hours and lie on the grid. */
  starts: number
  open: number
  /** In the order of the rules; `alone`: starts that would be open but for this rule. */
  closed: { rule: ClosureRule; starts: number; alone: number }[]
}

/** Counts what every rule costs on `days` dates from `from` on (dates of the place's zone). */
export function costOfRules(practice: Practice, diary: Diary, ask: Ask, from: LocalDate, days: number): Cost {
  const f = frame(practice, ask)
  const seen = new Set<Instant>()
  let worked = 0
  const first = dayNumber(from)
  for (let day = first; day < first + days; day = (day + 1) as DayNumber) {
    for (const { from: begins, to: ends, block } of blocksOn(f.hours, day)) {
      if (!allows(block, f)) continue
      const begin = f.zone.toInstant(day, begins)
      const end = f.zone.toInstant(day, ends)
      worked += Math.max(0, end - begin)
      const step = ask.service.starts.kind === 'every' ? ask.service.starts.minutes * MINUTE : MINUTE
      for (let s = begin; s + f.length <= end; s = instant(s + step)) seen.add(s)
    }
  }
  const counts = new Map<ClosureRule, { starts: number; alone: number }>()
  let starts = 0
  let open = 0
  for (const start of seen) {
    const rules = new Set(closuresIn(f, diary, start).map((closure) => closure.rule))
    if (rules.has('grid') || rules.has('hours')) continue
    starts++
    if (rules.size === 0) open++
    for (const rule of rules) {
      const count = counts.get(rule) ?? { starts: 0, alone: 0 }
      count.starts++
      if (rules.size === 1) count.alone++
      counts.set(rule, count)
    }
  }
  return {
    hours: worked / HOUR,
    starts,
    open,
    closed: CLOSURE_RULES.flatMap((rule) => {
      const count = counts.get(rule)
      return count ? [{ rule, ...count }] : []
    }),
  }
}
