import type { Sheet } from './types.ts'

/** One thing in which two versions differ. */
export interface VersionDifference {
  /** `moved`: the same, at another place. */
  how: 'added' | 'removed' | 'changed' | 'moved'
  what: 'question' | 'rule' | 'bands' | 'values'
  /** Its id, where it has one. */
  id?: string
  /** What it is called, in the version that has it. */
  name: string
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/** In what one version differs from another: what came, what went, what is otherwise, what stands elsewhere. */
export function differencesBetween(before: Sheet, after: Sheet): VersionDifference[] {
  const values = ({ lookAbove, enquiryAbove }: Sheet) => [lookAbove, enquiryAbove]
  return [
    ...inList('question', before.questions, after.questions, (question) => question.text),
    ...inList('rule', before.rules, after.rules, (rule) => rule.name),
    ...(same(before.bands, after.bands)
      ? []
      : [{ how: 'changed', what: 'bands', name: 'What points come to' } as const]),
    ...(same(values(before), values(after))
      ? []
      : [
          { how: 'changed', what: 'values', name: 'The prices above which you look, or talk first' } as const,
        ]),
  ]
}

function inList<T extends { id: string }>(
  what: 'question' | 'rule',
  before: readonly T[],
  after: readonly T[],
  name: (item: T) => string,
): VersionDifference[] {
  const was = new Map(before.map((item) => [item.id, item]))
  const is = new Map(after.map((item) => [item.id, item]))
  // Of those in both, whoever is not in the longest run that kept its order has been moved.
  const kept = inOrder(after.flatMap((item) => (was.has(item.id) ? [before.indexOf(was.get(item.id)!)] : [])))
  const stayed = new Set(kept.map((place) => before[place]!.id))
  return [
    ...after.flatMap((item): VersionDifference[] => {
      const old = was.get(item.id)
      if (!old) return [{ how: 'added', what, id: item.id, name: name(item) }]
      if (!same(old, item)) return [{ how: 'changed', what, id: item.id, name: name(item) }]
      return stayed.has(item.id) ? [] : [{ how: 'moved', what, id: item.id, name: name(item) }]
    }),
    ...before
      .filter((item) => !is.has(item.id))
      .map((item): VersionDifference => ({ how: 'removed', what, id: item.id, name: name(item) })),
  ]
}

/** A longest run of rising numbers in a list. */
function inOrder(list: readonly number[]): number[] {
  const best: number[][] = []
  for (const [i, value] of list.entries()) {
    let longest: number[] = []
    for (let j = 0; j < i; j++) if (list[j]! < value && best[j]!.length > longest.length) longest = best[j]!
    best.push([...longest, value])
  }
  return best.reduce<number[]>((a, b) => (b.length > a.length ? b : a), [])
}
