import type { DoorView } from '@acolhida/core/contract'
import { type Asking, newcomer } from '@acolhida/core/questions'
import { inForce } from '@acolhida/core/time'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useOutletContext, useParams } from 'react-router'
import { doorRelay } from './relay.ts'
import { useVisit } from './visit.ts'

/** What the relay has written into the page: it stands there at once, and is asked for anew all the same. */
function writtenHere(slug: string): DoorView | undefined {
  const block = document.getElementById('door')?.textContent
  if (!block) return undefined
  const view = JSON.parse(block) as DoorView
  return view.slug === slug && view.language === inForce() ? view : undefined
}

export const useDoorQuery = (slug: string) => {
  const { with: key } = useVisit()
  const [written] = useState(() => (key === undefined ? writtenHere(slug) : undefined))
  return useQuery({
    queryKey: ['door', slug, key],
    queryFn: () => doorRelay.view(slug, key),
    ...(written ? { initialData: written, initialDataUpdatedAt: 0 } : {}),
  })
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

/** Within how long those who look ask again, in ms. */
const SPREAD = 2_000

/** Follows what changes behind the door: the practice at once, the openings when somebody takes one. */
export function useFollowing(slug: string): void {
  const queries = useQueryClient()
  useEffect(() => {
    const source = new EventSource(`/api/door/${encodeURIComponent(slug)}/changes`)
    source.addEventListener('practice', () => queries.invalidateQueries())
    // Everybody who looks is told at once; if all asked at once, too, the relay would have a hard second.
    let timer: ReturnType<typeof setTimeout> | undefined
    source.addEventListener('openings', () => {
      timer ??= setTimeout(() => {
        timer = undefined
        void queries.invalidateQueries({ queryKey: ['openings'] })
        void queries.invalidateQueries({ queryKey: ['my'] })
      }, Math.random() * SPREAD)
    })
    return () => {
      source.close()
      clearTimeout(timer)
    }
  }, [slug, queries])
}
