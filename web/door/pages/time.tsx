import type { DoorOpenings, DoorService } from '@acolhida/core/door'
import { type TravelZone, travelZoneAt } from '@acolhida/core/practice'
import { addressOf } from '@acolhida/core/questions'
import type { Instant } from '@acolhida/core/time'
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link } from 'react-router'
import { RelayError } from '../../relay-client/client.ts'
import { GoOn } from '../parts/go-on.tsx'
import { Notice } from '../parts/notice.tsx'
import { Openings } from '../parts/openings.tsx'
import { TravelChoice } from '../parts/travel-choice.tsx'
import { ZoneChoice } from '../parts/zone-choice.tsx'
import { useDoor, useSlug } from '../visit/follow.ts'
import { relay } from '../visit/relay.ts'
import { changeDraft, draftOf, useVisit, wantedOf } from '../visit/visit.ts'
import type { Step } from './flow.tsx'

/** A page goes on by itself until it has at least this many starts to show. */
const ENOUGH = 6

/** Where an address that was asked for says how far to travel, its postal code does so, until one chooses otherwise. */
function useTravelFromAddress(service: DoorService, zones: readonly TravelZone[]): void {
  const { answers, travel, address } = draftOf(useVisit(), service.id)
  const question = service.questionnaire?.questions.find((one) => one.kind === 'address' && one.travel)
  const answer = question ? answers[question.id] : undefined
  useEffect(() => {
    if (typeof answer !== 'string' || zones.length === 0) return
    const { street, postalCode, town } = addressOf(answer)
    const found = travelZoneAt(zones, postalCode)
    if (found && !travel) changeDraft(service.id, { travel: found.id })
    if (!address) changeDraft(service.id, { address: `${street}, ${postalCode} ${town}` })
  }, [answer, zones, travel, address, service.id])
}

/** When: the openings the relay computes for these answers. Picking one keeps it for ten minutes. */
export function Time({
  service,
  go,
  told,
}: {
  service: DoorService
  go: (step: Step) => void
  told?: string | undefined
}) {
  const slug = useSlug()
  const { practice } = useDoor()
  const visit = useVisit()
  const queries = useQueryClient()
  const draft = draftOf(visit, service.id)
  const place = service.places.some((one) => one.id === draft.place) ? draft.place! : service.places[0]!.id
  const at = service.places.find((one) => one.id === place)
  const zones = at?.kind === 'client' ? (at.travel ?? []) : []
  const travels = zones.length > 0
  const travel = zones.find((one) => one.id === draft.travel)
  useTravelFromAddress(service, zones)
  const wanted = { ...wantedOf(visit, service), place }

  const openings = useInfiniteQuery({
    queryKey: ['openings', slug, wanted],
    enabled: !travels || travel !== undefined,
    queryFn: ({ pageParam, signal }) =>
      relay.openings(slug, { ...wanted, ...(pageParam ? { from: pageParam } : {}), days: 7 }, signal),
    initialPageParam: '',
    getNextPageParam: (last: DoorOpenings) => last.next,
  })
  const keeping = useMutation({
    mutationFn: (start: Instant) => relay.keep(slug, { ...wanted, start }),
    onSuccess: (kept) => changeDraft(service.id, { kept, place }),
    onError: (error) => {
      if (error instanceof RelayError && error.code === 'closed') {
        changeDraft(service.id, { reading: undefined as never })
        go('questions')
      }
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ['openings'] }),
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
  const chosen = draft.kept?.place === place ? draft.kept.start : undefined
  const shown = chosen && !starts.includes(chosen) ? [...starts, chosen].sort((a, b) => a - b) : starts
  return (
    <section>
      <h1>When suits you?</h1>
      {draft.reading?.suggested && draft.reading.suggested.length > 0 && (
        <div className="mt-3">
          <Notice tone="info">
            By your answers, this may suit you better:{' '}
            {draft.reading.suggested.map((other, i) => (
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
            {service.places.map((one) => (
              <label key={one.id} className="flex min-h-[44px] cursor-pointer items-center gap-2">
                <input
                  type="radio"
                  className="radio radio-primary"
                  name="place"
                  checked={one.id === place}
                  onChange={() => changeDraft(service.id, { place: one.id, kept: undefined as never })}
                />
                {one.name}
              </label>
            ))}
          </div>
        </fieldset>
      )}
      {travels && <TravelChoice service={service} zones={zones} />}
      {(told || keeping.error) && (
        <div className="mb-4">
          <Notice>{keeping.error?.message ?? told}</Notice>
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
