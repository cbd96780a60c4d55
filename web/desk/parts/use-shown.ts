import { useEffect, useState } from 'react'

/**
 * Something that is kept elsewhere and takes a moment to come back: what was chosen shows at once, and what is kept
 * counts as soon as it is another.
 */
export function useShown<T>(kept: T): [T, (next: T) => void] {
  const print = JSON.stringify(kept)
  const [shown, setShown] = useState(kept)
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is equal has not changed
  useEffect(() => setShown(kept), [print])
  return [shown, setShown]
}
