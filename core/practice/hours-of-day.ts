import { addDays, dayNumber, type LocalDate, weekday } from '../time/index.ts'
import type { Block, ChangedDay, Hours, Week } from './types.ts'

/** The week that counts on a date: that of a season it lies in, or the usual one. */
export const weekOn = ({ seasons = [], weekly }: Hours, on: LocalDate): Week =>
  seasons.find(({ from, to }) => from <= on && on <= to)?.weekly ?? weekly

/** The blocks of a date: of a changed day, or of the week that counts. */
export const blocksOfDate = (hours: Hours, on: LocalDate): Block[] =>
  hours.changedDays.find(({ date }) => date === on)?.blocks ?? weekOn(hours, on)[weekday(dayNumber(on)) - 1]!

/** All lists of blocks that hours consist of, each with where it stands: "weekly[0]". */
export const blocksIn = ({
  weekly,
  seasons = [],
  changedDays,
}: Hours): { path: string; blocks: Block[] }[] => [
  ...weekly.map((blocks, i) => ({ path: `weekly[${i}]`, blocks })),
  ...seasons.flatMap((season, n) =>
    season.weekly.map((blocks, i) => ({ path: `seasons[${n}].weekly[${i}]`, blocks })),
  ),
  ...changedDays.map(({ blocks }, i) => ({ path: `changedDays[${i}].blocks`, blocks })),
]

/** Hours without seasons, which mean the same on `days` dates from one on: each date of a season is a changed day. */
export function withoutSeasons({ seasons = [], ...hours }: Hours, from: LocalDate, days: number): Hours {
  if (seasons.length === 0) return hours
  const changed = new Map(hours.changedDays.map((day) => [day.date, day]))
  for (let i = 0; i < days; i++) {
    const on = addDays(from, i)
    const season = seasons.find((other) => other.from <= on && on <= other.to)
    if (season && !changed.has(on)) changed.set(on, dayOf(season.weekly, on))
  }
  return { ...hours, changedDays: [...changed.values()].sort((a, b) => (a.date < b.date ? -1 : 1)) }
}

const dayOf = (weekly: Week, on: LocalDate): ChangedDay => ({
  date: on,
  blocks: weekly[weekday(dayNumber(on)) - 1]!,
})
