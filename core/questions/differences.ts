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
    ...inList('question', before.questions, after.questions, (one) => one.text),
    ...inList('rule', before.rules, after.rules, (one) => one.name),
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
  name: (one: T) => string,
): VersionDifference[] {
  const was = new Map(before.map((one) => [one.id, one]))
  const is = new Map(after.map((one) => [one.id, one]))
  // Of those in both, whoever is not in the longest run that kept its order has been moved.
  const kept = inOrder(after.flatMap((one) => (was.has(one.id) ? [before.indexOf(was.get(one.id)!)] : [])))
  const stayed = new Set(kept.map((place) => before[place]!.id))
  return [
    ...after.flatMap((one): VersionDifference[] => {
      const old = was.get(one.id)
      if (!old) return [{ how: 'added', what, id: one.id, name: name(one) }]
      if (!same(old, one)) return [{ how: 'changed', what, id: one.id, name: name(one) }]
      return stayed.has(one.id) ? [] : [{ how: 'moved', what, id: one.id, name: name(one) }]
    }),
    ...before
      .filter((one) => !is.has(one.id))
      .map((one): VersionDifference => ({ how: 'removed', what, id: one.id, name: name(one) })),
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
