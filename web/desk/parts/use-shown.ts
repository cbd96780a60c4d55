import { useCallback, useEffect, useRef, useState } from 'react'

/**
 * Something that is kept elsewhere and takes a moment to come back: what was chosen shows at once, and what is kept
 * counts as soon as it is another. An earlier choice of one's own that comes back late does not take the place of a
 * later one that is still on its way.
 */
export function useShown<T>(kept: T): [T, (next: T) => void] {
  const print = JSON.stringify(kept)
  const [shown, setShown] = useState(kept)
  const onTheirWay = useRef<string[]>([])
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is equal has not changed
  useEffect(() => {
    const at = onTheirWay.current.indexOf(print)
    onTheirWay.current = at < 0 ? [] : onTheirWay.current.slice(at + 1)
    if (onTheirWay.current.length === 0) setShown(kept)
  }, [print])
  const show = useCallback((next: T): void => {
    onTheirWay.current.push(JSON.stringify(next))
    setShown(next)
  }, [])
  return [shown, show]
}
