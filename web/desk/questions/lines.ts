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

/** Bands as they are typed: "10 look moderate", a line each. */
export function bandsFrom(typed: string): Band[] {
  const bands = typed
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line): Band => {
      const match = /^(?:from\s+)?(-?\d+)\s+(fits|look first|look|not a match|closed)(?:\s+(.+))?$/i.exec(
        line,
      )
      if (!match)
        throw new Error(
          `“${line}” is not read. Write from how many points on, and what follows: “10 look first moderate”.`,
        )
      const word = match[2]!.toLowerCase()
      const outcome = word.startsWith('look') ? 'look' : word === 'fits' ? 'fits' : 'closed'
      return { from: Number(match[1]), outcome, ...(match[3] ? { name: match[3].trim() } : {}) }
    })
  if (new Set(bands.map((band) => band.from)).size < bands.length)
    throw new Error('Two bands begin at the same number of points.')
  return bands.sort((a, b) => a.from - b.from)
}

const BAND_WORDS = { fits: 'fits', look: 'look first', closed: 'not a match' } as const

export const bandLines = (bands: readonly Band[]): string =>
  bands.map(({ from, outcome, name }) => `${from} ${BAND_WORDS[outcome]}${name ? ` ${name}` : ''}`).join('\n')
