import type { DoorOpenings, DoorService } from '@acolhida/core/contract'
import { durationWords, type Instant, type LocalDate } from '@acolhida/core/time'
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link } from 'react-router'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { clocksAt, otherClock } from '../parts/clocks.ts'
import { GoOn } from '../parts/go-on.tsx'
import { Notice } from '../parts/notice.tsx'
import { Openings } from '../parts/openings.tsx'
import { rich, say } from '../parts/say.ts'
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
export function Time({
  service,
  go,
}: {
  service: DoorService
  go: (step: DoorStep, day?: LocalDate) => void
}) {
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
  const clocks = clocksAt(at, visit.zone)

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
    onSuccess: (kept) => {
      fillIn(service.id, { is: 'kept', kept })
      // On from here, wherever the way on is shown.
      requestAnimationFrame(() => {
        const ways = [...document.querySelectorAll<HTMLElement>('[data-go-on]')]
        ways.find((way) => way.getClientRects().length > 0)?.focus({ preventScroll: true })
      })
    },
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
  const told = {
    lower: pages.flatMap((page) => page.lower),
    near: pages.flatMap((page) => page.near),
    seats: Object.assign({}, ...pages.map((page) => page.seats)) as Record<string, number>,
    ...pages.flatMap(({ lowerPrice }) => (lowerPrice === undefined ? [] : [{ lowerPrice }]))[0],
  }
  const chosen = filling.kept?.place === place ? filling.kept.start : undefined
  const shown = chosen && !starts.includes(chosen) ? [...starts, chosen].sort((a, b) => a - b) : starts
  return (
    <section>
      <h1 tabIndex={-1} className="outline-none">
        {say('time.title')}
      </h1>
      {filling.tells?.map((text) => (
        <p key={text} className="note tag-info mt-3 whitespace-pre-line">
          {text}
        </p>
      ))}
      {filling.read?.suggested && filling.read.suggested.length > 0 && (
        <div className="mt-3">
          <Notice tone="info" still>
            {rich('time.suggested', {
              services: filling.read.suggested.map((other, i) => (
                <span key={other.id}>
                  {i > 0 && ', '}
                  <Link className="way" to={`/${slug}/${other.id}`}>
                    {other.name}
                  </Link>
                </span>
              )),
            })}
          </Notice>
        </div>
      )}
      <ZoneChoice
        home={practice.zone}
        clocks={clocks}
        differs={shown.some((start) => otherClock(clocks, start) !== undefined)}
      />
      {service.least && (
        <p className="mb-4 text-[14px]">
          {say('time.least', { people: service.least.people, lead: durationWords(service.least.by) })}
        </p>
      )}
      {service.places.length > 1 && (
        <fieldset className="mb-4">
          <legend className="ask mb-1">{say('time.where')}</legend>
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
            {say('try-again')}
          </button>
        </Notice>
      )}
      {openings.isLoading && <p className="text-soft">{say('time.looking')}</p>}
      <Openings
        starts={shown}
        told={told}
        clocks={clocks}
        chosen={chosen}
        busy={keeping.isPending}
        full={service.line ? pages.flatMap((page) => page.full ?? []) : []}
        onWait={(day) => go('line', day)}
        onPick={(start) => keeping.mutate(start)}
      />
      {openings.data && starts.length === 0 && !openings.hasNextPage && (
        <p className="sheet p-5">{say('time.none')}</p>
      )}
      <div className="mt-4 flex flex-wrap justify-between gap-4">
        {openings.hasNextPage ? (
          <button
            type="button"
            className="way min-h-[44px]"
            onClick={() => openings.fetchNextPage()}
            disabled={openings.isFetchingNextPage}
          >
            {say('time.later')}
          </button>
        ) : (
          <span />
        )}
        {service.line && (
          <button type="button" className="way min-h-[44px]" onClick={() => go('line')}>
            {say('time.wait')}
          </button>
        )}
        <Link className="way inline-flex min-h-[44px] items-center" to={`/${slug}/write?about=${service.id}`}>
          {say('time.write')}
        </Link>
      </div>
      {chosen !== undefined && (
        <div className="fixed inset-x-0 bottom-0 z-10 border-t border-line bg-card px-5 py-3 lg:hidden">
          <GoOn start={chosen} clocks={clocks} go={go} />
        </div>
      )}
    </section>
  )
}
