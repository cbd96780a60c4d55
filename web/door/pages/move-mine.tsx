import type { LinkView } from '@acolhida/core/contract'
import type { Instant, LocalDate } from '@acolhida/core/time'
import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useNow } from '../../relay-client/clock.ts'
import { clocksNamed, momentAt, sessionAt } from '../parts/clocks.ts'
import { Notice } from '../parts/notice.tsx'
import { Openings } from '../parts/openings.tsx'
import { rich, say } from '../parts/say.ts'
import { whatHappensWhen } from '../parts/words.ts'
import { doorRelay, type LinkAct } from '../visit/relay.ts'

/** How many days are looked at at once. */
const DAYS = 14

/** Moving one's own session: the open times, what follows from it, and a second press. */
export function MoveMine({
  secret,
  view,
  act,
  busy,
  led,
  failed,
}: {
  secret: string
  view: LinkView & { move: NonNullable<LinkView['move']> }
  act: (act: LinkAct) => void
  busy: boolean
  /** A message has led here: the times are shown at once. */
  led: boolean
  /** The last try did not work: what is open is looked at anew. */
  failed: boolean
}) {
  const [open, setOpen] = useState(led)
  const [start, setStart] = useState<Instant>()
  const [place, setPlace] = useState(view.placeId)
  const now = useNow()
  const head = useRef<HTMLHeadingElement>(null)
  const clocks = clocksNamed(view.clocks)
  const booking = useSearchParams()[0].get('booking') ?? undefined
  const moves = useInfiniteQuery({
    queryKey: ['moves', secret, booking, view.start, place],
    enabled: open,
    queryFn: ({ pageParam, signal }) =>
      doorRelay.moves(
        secret,
        booking,
        { days: DAYS, place, ...(pageParam ? { from: pageParam } : {}) },
        signal,
      ),
    initialPageParam: '' as LocalDate | '',
    getNextPageParam: (last) => last.next,
  })
  // What holds then is told by the relay, by the rules of the day one asked.
  const moved = useQuery({
    queryKey: ['moved', secret, booking, place, start],
    enabled: start !== undefined,
    queryFn: ({ signal }) => doorRelay.moves(secret, booking, { days: 1, place, start: start! }, signal),
  })
  const { refetch } = moves
  useEffect(() => {
    if (open) head.current?.focus()
  }, [open])
  useEffect(() => {
    if (!failed) return
    setStart(undefined)
    void refetch()
  }, [failed, refetch])
  if (!open)
    return (
      <button type="button" className="press mt-5" onClick={() => setOpen(true)}>
        {say('my.move')}
      </button>
    )
  const pages = moves.data?.pages ?? []
  const starts = pages.flatMap((page) => page.starts)
  return (
    <section className="mt-5" aria-labelledby="move-mine">
      <h2 id="move-mine" ref={head} tabIndex={-1} className="outline-none">
        {say('my.move-to')}
      </h2>
      <p className="mt-1 mb-3 text-soft">
        {say('my.move-rule', { until: momentAt(view.move.until, clocks), left: view.move.left })}
      </p>
      {view.move.places && (
        <fieldset className="mb-3 flex flex-wrap gap-x-5 gap-y-1">
          <legend className="font-semibold">{say('my.move-where')}</legend>
          {view.move.places.map(({ id, name }) => (
            <label key={id} className="flex min-h-[44px] cursor-pointer items-center gap-2">
              <input
                type="radio"
                className="radio radio-primary"
                name="move-where"
                checked={place === id}
                onChange={() => {
                  setPlace(id)
                  setStart(undefined)
                }}
              />
              {name}
            </label>
          ))}
        </fieldset>
      )}
      {moves.error && <Notice>{moves.error.message}</Notice>}
      {moves.isLoading && <p className="text-soft">{say('time.looking')}</p>}
      <Openings
        starts={starts}
        told={{ seats: {}, lower: [], near: [] }}
        clocks={clocks}
        chosen={start}
        busy={busy}
        onPick={setStart}
      />
      {moves.data && starts.length === 0 && !moves.hasNextPage && (
        <p className="sheet p-5">{say('my.move-none')}</p>
      )}
      <div className="mt-3 flex flex-wrap gap-3">
        {moves.hasNextPage && (
          <button
            type="button"
            className="way min-h-[44px]"
            disabled={moves.isFetchingNextPage}
            onClick={() => moves.fetchNextPage()}
          >
            {say('time.later')}
          </button>
        )}
        <button type="button" className="press press-quiet" onClick={() => setOpen(false)}>
          {say('my.leave-it')}
        </button>
      </div>
      {start !== undefined && (
        <div className="note sticky bottom-3 z-10 mt-4 bg-tile-soft text-tile-ink shadow-lg" role="status">
          <p>{rich('my.move-sure', { when: sessionAt(start, view.minutes, clocks) })}</p>
          {view.shareNow > 0 && view.price > 0 && (
            <p className="mt-1">{say('my.move-least', { share: view.shareNow })}</p>
          )}
          {moved.data?.holds &&
            whatHappensWhen(moved.data.holds, view.price, clocks, now, true).map((line) => (
              <p key={line} className="text-[14px]">
                {line}
              </p>
            ))}
          <button
            type="button"
            className="press press-go mt-2"
            disabled={busy || moved.isLoading}
            onClick={() => act({ do: 'move', start, place, shown: view.shown })}
          >
            {say('my.yes-move')}
          </button>
        </div>
      )}
    </section>
  )
}
