import type { DoorQuote, DoorService } from '@acolhida/core/contract'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useSlug } from './follow.ts'
import { doorRelay } from './relay.ts'
import { useVisit, wantedOf } from './visit.ts'

export interface RunningQuote {
  quote?: DoorQuote
  /** It is not known just now what the answers come to: nothing may stand in its place. */
  unknown: boolean
}

/** How long answers must rest before the relay is asked what they come to, in ms. */
const REST = 400

/** What the answers so far come to, as one answers. The rules that say so stay with the relay. */
export function useRunningQuote(service: DoorService, on: boolean): RunningQuote {
  const slug = useSlug()
  const visit = useVisit()
  const wanted = wantedOf(visit, service)
  const typed = JSON.stringify(wanted)
  const [rested, setRested] = useState(typed)
  useEffect(() => {
    const timer = setTimeout(() => setRested(typed), REST)
    return () => clearTimeout(timer)
  }, [typed])
  const asks = on && (service.questionnaire !== undefined || service.extras.length > 0)
  const { data, isError } = useQuery({
    queryKey: ['running-quote', slug, rested],
    enabled: asks,
    queryFn: ({ signal }) => doorRelay.soFar(slug, JSON.parse(rested) as typeof wanted, signal),
    placeholderData: keepPreviousData,
  })
  if (!asks) return { unknown: false }
  return isError ? { unknown: true } : { unknown: false, ...(data ? { quote: data } : {}) }
}
