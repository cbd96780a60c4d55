import { momentsOf } from './rule.ts'
import { BadRule, readRule, type WallSeconds } from './rule-text.ts'

const DAY = 86_400

/** Times a day and less are no way to be away. */
const FREQUENCIES = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']

/** Whether a text is a rule by which whole days repeat. */
export function isRepeat(text: string): boolean {
  try {
    return FREQUENCIES.includes(readRule(text).freq)
  } catch (error) {
    if (error instanceof BadRule) return false
    throw error
  }
}

/** A date and a time of day on the wall as seconds. */
export const wallSeconds = (day: number, minutes: number): WallSeconds =>
  (day * DAY + minutes * 60) as WallSeconds

/** How many days the calendar takes to begin anew: 400 years, weekdays and all. */
const CALENDAR = 146_097

/**
 * Whether a rule of whole days ever comes true again: the 30th of February never does. What has not come true when the
 * calendar begins anew never will; a long interval takes as many turns of it as it has units.
 */
export function comesTrue(text: string, from: { year: number; month: number; day: number }): boolean {
  if (!isRepeat(text)) return false
  // How long it goes on is no matter here.
  const { until: _, count: __, ...rule } = readRule(text)
  const start = wallSeconds(Date.UTC(from.year, from.month - 1, from.day) / 86_400_000, 0)
  const last = Date.UTC(9_999, 0, 1) / 1_000
  const end = Math.min(last, start + CALENDAR * DAY * 2)
  try {
    for (const at of momentsOf(rule, start, (start + 1) as WallSeconds, end as WallSeconds)) return at > start
  } catch (error) {
    if (!(error instanceof BadRule)) throw error
  }
  return false
}
