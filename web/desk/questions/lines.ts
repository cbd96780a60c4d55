import type { Band, Choice, Item } from '@acolhida/core/questions'

/** A choice or an item as it is typed on a line: its words, and after a bar what it is worth or how many at most. */
const typedLine = (line: string): { text: string; number?: number } => {
  const match = /^(.*\S)\s*\|\s*(-?\d+)$/.exec(line)
  return match ? { text: match[1]!, number: Number(match[2]) } : { text: line }
}

/** Choices as lines to be typed: with what they are worth, where they are scored. */
export const choiceLines = (choices: readonly Choice[]): string =>
  choices.map(({ text, points }) => (points === undefined ? text : `${text} | ${points}`)).join('\n')

export const itemLines = (items: readonly Item[]): string =>
  items.map(({ text, most }) => `${text} | ${most}`).join('\n')

/** Items as they are typed, a line each with how many at most. */
export const itemsFrom = (typed: string, before: readonly Item[]): Item[] =>
  namedLines(typed, before, 'item').map(({ id, text, number }) => {
    const most = number ?? before.find((item) => item.id === id)?.most ?? 10
    if (most < 1) throw new Error(`“${text}” can be asked for at least once.`)
    return { id, text, most }
  })

/** Choices as they are typed, a line each; a choice that stays keeps its name in conditions. */
export const choicesFrom = (typed: string, before: readonly Choice[]): Choice[] =>
  namedLines(typed, before, 'choice').map(({ id, text, number }) => ({
    id,
    text,
    ...(number === undefined ? {} : { points: number }),
  }))

function namedLines(
  typed: string,
  before: readonly { id: string; text: string }[],
  what: string,
): { id: string; text: string; number?: number }[] {
  const lines = typed
    .split('\n')
    .map((line) => typedLine(line.trim()))
    .filter((line) => line.text)
  if (new Set(lines.map((line) => line.text)).size < lines.length)
    throw new Error(`Two lines are the same; each ${what} needs words of its own.`)
  if (lines.length === 0) throw new Error(`Please write at least one ${what}, a line each.`)
  const taken = new Set<string>()
  const found = lines.map((line) => {
    const same = before.find((other) => other.text === line.text)
    if (same) taken.add(same.id)
    return { ...line, id: same?.id }
  })
  return found.map(({ id, ...line }, i) => {
    if (id) return { ...line, id }
    // A line that was only reworded is the one that stood there.
    const there = lines.length === before.length ? before[i]?.id : undefined
    let next = there !== undefined && !taken.has(there) ? there : undefined
    for (let n = 1; next === undefined || taken.has(next); n++) next = `c${before.length + n}`
    taken.add(next)
    return { ...line, id: next }
  })
}

/** Bands in their order, one of them changed. @throws Error when two begin at the same number */
export function changedBand(bands: readonly Band[], at: number, change: (band: Band) => Band): Band[] {
  const next = bands.map((band, i) => (i === at ? change(band) : band))
  if (new Set(next.map(({ from }) => from)).size < next.length)
    throw new Error('Another line begins at this number of points already.')
  return next
}
