import type { DoorOpenings, DoorService } from '@acolhida/core/contract'
import type { Instant, LocalDate } from '@acolhida/core/time'
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link } from 'react-router'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { GoOn } from '../parts/go-on.tsx'
import { Notice } from '../parts/notice.tsx'
import { Openings } from '../parts/openings.tsx'
import { TravelChoice } from '../parts/travel-choice.tsx'
import { ZoneChoice } from '../parts/zone-choice.tsx'
import { useDoor, useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { fillIn, fillingOf, useVisit, wantedOf } from '../visit/visit.ts'
import type { DoorStep } from './steps.ts'

/** A page goes on by itself until it has at least this many starts to show. */
const ENOUGH = 6

/** Refusals that are about the questions. */
const LEADS_BACK = new Set(['answers', 'closed', 'enquiry-instead', 'code'])

/** When: the openings the relay computes for these answers. Picking one keeps it for ten minutes. */
export function Time({ service, go }: { service: DoorService; go: (step: DoorStep) => void }) {
  const slug = useSlug()
  const { practice } = useDoor()
  const visit = useVisit()
  const queries = useQueryClient()
  const filling = fillingOf(visit, service.id)
  const place = service.places.find((place) => place.id === filling.place)?.id ?? service.places[0]!.id
  const at = service.places.find((other) => other.id === place)
  const zones = at?.kind === 'client' ? (at.travel ?? []) : []
  const travels = zones.length > 0
  const travel = zones.find((travelZone) => travelZone.id === filling.travel)
  const wanted = { ...wantedOf(visit, service), place }

  const openings = useInfiniteQuery({
    queryKey: ['openings', slug, wanted],
    enabled: !travels || travel !== undefined,
    queryFn: ({ pageParam, signal }) =>
      doorRelay.openings(slug, { ...wanted, ...(pageParam ? { from: pageParam } : {}), days: 7 }, signal),
    initialPageParam: '' as LocalDate | '',
    getNextPageParam: (last: DoorOpenings) => last.next,
  })
  const back = (error: Error): void => {
    if (!(error instanceof RelayError) || !LEADS_BACK.has(error.code)) return
    fillIn(service.id, { is: 'refused', problem: error.problem, key: newKey() })
    void queries.invalidateQueries({ queryKey: ['door'] })
    queries.removeQueries({ queryKey: ['openings'] })
    go('questions')
  }
  const keeping = useMutation({
    mutationFn: (start: Instant) => doorRelay.keep(slug, { ...wanted, start }),
    onSuccess: (kept) => fillIn(service.id, { is: 'kept', kept }),
    onError: (error) => back(error),
    onSettled: () => queries.invalidateQueries({ queryKey: ['openings'] }),
  })

  // What no longer holds leads back, also when it shows only in looking for times.
  const { error: lookingError } = openings
  useEffect(() => {
    if (lookingError) back(lookingError)
  })

  const pages = openings.data?.pages ?? []
  const { hasNextPage, isFetching, fetchNextPage } = openings
  const few = pages.reduce((sum, page) => sum + page.starts.length, 0) < ENOUGH
  useEffect(() => {
    if (few && hasNextPage && !isFetching) fetchNextPage()
  }, [few, hasNextPage, isFetching, fetchNextPage])
  const starts = pages.flatMap((page) => page.starts)
  const lower = pages.flatMap((page) => page.lower)
  const seats = Object.assign({}, ...pages.map((page) => page.seats)) as Record<string, number>
  const chosen = filling.kept?.place === place ? filling.kept.start : undefined
  const shown = chosen && !starts.includes(chosen) ? [...starts, chosen].sort((a, b) => a - b) : starts
  return (
    <section>
      <h1>When suits you?</h1>
      {filling.read?.suggested && filling.read.suggested.length > 0 && (
        <div className="mt-3">
          <Notice tone="info">
            By your answers, this may suit you better:{' '}
            {filling.read.suggested.map((other, i) => (
              <span key={other.id}>
                {i > 0 && ', '}
                <Link className="way" to={`/${slug}/${other.id}`}>
                  {other.name}
                </Link>
              </span>
            ))}
          </Notice>
        </div>
      )}
      <ZoneChoice home={practice.zone} />
      {service.places.length > 1 && (
        <fieldset className="mb-4">
          <legend className="ask mb-1">Where</legend>
          <div className="flex flex-wrap gap-4">
            {service.places.map((option) => (
              <label key={option.id} className="flex min-h-[44px] cursor-pointer items-center gap-2">
                <input
                  type="radio"
                  className="radio radio-primary"
                  name="place"
                  checked={option.id === place}
                  onChange={() => fillIn(service.id, { is: 'placed', place: option.id })}
                />
                {option.name}
              </label>
            ))}
          </div>
        </fieldset>
      )}
      {travels && <TravelChoice service={service} zones={zones} />}
      {(filling.note || keeping.error) && (
        <div className="mb-4">
          <Notice>{keeping.error?.message ?? filling.note}</Notice>
        </div>
      )}
      {openings.error && (
        <Notice>
          {openings.error.message}{' '}
          <button type="button" className="way" onClick={() => openings.refetch()}>
            Try again
          </button>
        </Notice>
      )}
      {openings.isLoading && <p className="text-soft">Looking for openings …</p>}
      <Openings
        starts={shown}
        seats={seats}
        lower={lower}
        zoneName={visit.zone}
        chosen={chosen}
        busy={keeping.isPending}
        onPick={(start) => keeping.mutate(start)}
      />
      {openings.data && starts.length === 0 && !openings.hasNextPage && (
        <p className="sheet p-5">
          No time is open at the moment. You are welcome to write, and you will hear when one is.
        </p>
      )}
      <div className="mt-4 flex flex-wrap justify-between gap-4">
        {openings.hasNextPage ? (
          <button
            type="button"
            className="way min-h-[44px]"
            onClick={() => openings.fetchNextPage()}
            disabled={openings.isFetchingNextPage}
          >
            Later days
          </button>
        ) : (
          <span />
        )}
        <Link className="way inline-flex min-h-[44px] items-center" to={`/${slug}/write?about=${service.id}`}>
          None of these work: write a message
        </Link>
      </div>
      {chosen !== undefined && (
        <div className="fixed inset-x-0 bottom-0 z-10 border-t border-line bg-card px-5 py-3 lg:hidden">
          <GoOn start={chosen} go={go} />
        </div>
      )}
    </section>
  )
}
