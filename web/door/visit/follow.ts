import type { DoorView } from '@acolhida/core/door'
import { type Asking, newcomer } from '@acolhida/core/questions'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useOutletContext, useParams } from 'react-router'
import { relay } from './relay.ts'
import { useVisit } from './visit.ts'

export const useDoorQuery = (slug: string) => {
  const { with: key } = useVisit()
  return useQuery({ queryKey: ['door', slug, key], queryFn: () => relay.view(slug, key) })
}

/** The practice behind the door, for pages inside it. */
export const useDoor = (): DoorView => useOutletContext<DoorView>()

/** Who asks for a service, as far as the door knows: what tells which questions are shown. */
export function useAsking(service: string): Asking {
  const { visitor } = useDoor()
  return visitor
    ? { ...newcomer, standing: visitor.standing, invited: visitor.invited.includes(service) }
    : newcomer
}

export const useSlug = (): string => useParams().slug ?? ''

/** Follows what changes behind the door: the practice at once, the openings when somebody takes one. */
export function useFollowing(slug: string): void {
  const queries = useQueryClient()
  useEffect(() => {
    const source = new EventSource(`/api/door/${encodeURIComponent(slug)}/changes`)
    source.addEventListener('practice', () => queries.invalidateQueries())
    source.addEventListener('openings', () => {
      queries.invalidateQueries({ queryKey: ['openings'] })
      queries.invalidateQueries({ queryKey: ['my'] })
    })
    return () => source.close()
  }, [slug, queries])
}
