import { useLiveQuery } from 'dexie-react-hooks'
import { useCallback, useMemo, useState } from 'react'

/** Rows by their keys, nothing for those that are gone. */
export type RowsOf<R> = (keys: string[]) => PromiseLike<(R | undefined)[]>

/**
 * The rows that are in sight, live, of many known by their keys.
 * @param rowsOf the same function at every drawing
 * @returns what `WindowTable` asks: the row of a key, and to be told what is seen
 */
export function useRows<R extends { id: string }>(
  rowsOf: RowsOf<R>,
  keys: readonly string[],
): { rowOf: (key: string) => R | undefined; onSeen: (first: number, end: number) => void } {
  const [seen, setSeen] = useState<readonly [number, number]>([0, 0])
  const onSeen = useCallback(
    (first: number, end: number) =>
      setSeen((old) => (old[0] === first && old[1] === end ? old : [first, end])),
    [],
  )
  const wanted = keys.slice(seen[0], seen[1])
  const found = useLiveQuery(
    async () => (await rowsOf([...wanted])).filter((row) => row !== undefined),
    [wanted.join(' ')],
  )
  const rows = useMemo(() => new Map(found?.map((row) => [row.id, row])), [found])
  return { rowOf: useCallback((key) => rows.get(key), [rows]), onSeen }
}
