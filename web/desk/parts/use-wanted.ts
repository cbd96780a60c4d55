import { useSearchParams } from 'react-router'

/** The setting that whoever came here wants to change: its path or its label, from the address (`?set=`). */
export function useWanted(): string | undefined {
  const [search] = useSearchParams()
  return search.get('set') ?? undefined
}
