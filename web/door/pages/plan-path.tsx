import type { PathPlan, PathView } from '@acolhida/core/contract'
import { RHYTHMS, type Rhythm } from '@acolhida/core/planning'
import {
  addDays,
  date,
  dateAt,
  type Instant,
  type LocalDate,
  shortDate,
  time,
  timeAt,
  zone,
  zonePlace,
} from '@acolhida/core/time'
import type { WaitingWindow } from '@acolhida/core/waiting'
import { useMutation } from '@tanstack/react-query'
import { useEffect, useId, useRef, useState } from 'react'
import { WindowsEdit } from '../../questions/windows-edit.tsx'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { clocksNamed, sessionAt } from '../parts/clocks.ts'
import { Notice } from '../parts/notice.tsx'
import { say } from '../parts/say.ts'
import { doorRelay } from '../visit/relay.ts'
import type { OnYours } from '../visit/yours.ts'

/** Plans what is left of a path after a rhythm of one's own, changes single times, and books all of it at once. */
export default function PlanPath({
  course,
  path,
  zoneName,
  doing,
  onBooked,
}: {
  course: string
  path: PathView & { plan: NonNullable<PathView['plan']> }
  /** By whose clock dates are meant until a place's own is known. */
  zoneName: string
  doing: OnYours
  onBooked: () => void
}) {
  const id = useId()
  const { places } = path.plan
  const today = dateAt(zone(zoneName), relayNow())
  const [place, setPlace] = useState(places[0]?.id ?? '')
  const there = places.find((one) => one.id === place)?.zone ?? zoneName
  const [rhythm, setRhythm] = useState<Rhythm>('week')
  const [first, setFirst] = useState<string>(addDays(today, 7))
  const [at, setAt] = useState('10:00')
  const [windows, setWindows] = useState<WaitingWindow[]>([])
  const [moved, setMoved] = useState<ReadonlyMap<string, Instant>>(new Map())
  const head = useRef<HTMLHeadingElement>(null)
  const planning = useMutation({
    mutationFn: () =>
      doorRelay.planPath(doing.secret, {
        ...{ course, place, rhythm, first: date(first), time: time(at) },
        ...(windows.length > 0 ? { windows } : {}),
      }),
    onSuccess: () => setMoved(new Map()),
  })
  const [key, setKey] = useState(newKey)
  const booking = useMutation({
    mutationFn: (plan: PathPlan) =>
      doorRelay.bookPath(
        doing.secret,
        {
          ...{ course, place },
          sessions: plan.sessions.flatMap(({ session, start }) => {
            const taken = moved.get(session) ?? start
            return taken === undefined ? [] : [{ session, start: taken }]
          }),
        },
        key,
      ),
    onSuccess: (view) => {
      doing.show(view)
      onBooked()
    },
    onError: () => {
      setKey(newKey())
      // Somebody was quicker: planned anew, what is taken is not offered again.
      planning.mutate()
    },
  })
  const plan = planning.data
  useEffect(() => {
    if (plan) head.current?.focus()
  }, [plan])
  const clocks = plan && clocksNamed(plan.clocks)
  const found =
    plan?.sessions.filter(({ session, start }) => (moved.get(session) ?? start) !== undefined).length ?? 0
  const wrong = first === '' || at === ''
  return (
    <div>
      <form
        noValidate
        className="grid gap-3 sm:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (!wrong) planning.mutate()
        }}
      >
        {places.length > 1 && (
          <label className="ask sm:col-span-2" htmlFor={`${id}-place`}>
            {say('yours.plan-place')}
            <select
              id={`${id}-place`}
              className="field mt-1"
              value={place}
              onChange={(event) => setPlace(event.target.value)}
            >
              {places.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
        )}
        <label className="ask sm:col-span-2" htmlFor={`${id}-rhythm`}>
          {say('yours.plan-rhythm')}
          <select
            id={`${id}-rhythm`}
            className="field mt-1"
            value={rhythm}
            onChange={(event) => setRhythm(event.target.value as Rhythm)}
          >
            {RHYTHMS.map((one) => (
              <option key={one} value={one}>
                {say(`yours.rhythm-${one}`)}
              </option>
            ))}
          </select>
        </label>
        <label className="ask" htmlFor={`${id}-first`}>
          {say('yours.plan-first')}
          <input
            id={`${id}-first`}
            type="date"
            className="field mt-1"
            min={today}
            value={first}
            onChange={(event) => setFirst(event.target.value as LocalDate)}
          />
        </label>
        <label className="ask" htmlFor={`${id}-at`}>
          {say('yours.plan-at')} {say('zone.named', { place: zonePlace(there) })}
          <input
            id={`${id}-at`}
            type="time"
            className="field mt-1"
            value={at}
            onChange={(event) => setAt(event.target.value)}
          />
        </label>
        <div className="sm:col-span-2">
          <WindowsEdit windows={windows} today={today} onChange={setWindows} />
        </div>
        {wrong && <p className="font-semibold text-clay sm:col-span-2">{say('yours.plan-wrong')}</p>}
        <button
          type="submit"
          className="press press-go justify-self-start"
          disabled={planning.isPending || wrong}
        >
          {say(planning.isPending ? 'moment' : 'yours.plan-see')}
        </button>
      </form>
      {(booking.error ?? planning.error) && (
        <div className="mt-3">
          <Notice>{(booking.error ?? planning.error)?.message}</Notice>
        </div>
      )}
      {plan && clocks && (
        <section className="mt-4" aria-labelledby={`${id}-plan`}>
          <h3 id={`${id}-plan`} ref={head} tabIndex={-1} className="outline-none">
            {found === plan.sessions.length
              ? say('yours.plan-all', { count: found })
              : say('yours.plan-some', { count: found, of: plan.sessions.length })}
          </h3>
          <ol className="mt-2 grid gap-2">
            {plan.sessions.map(({ session, name, minutes, meant, start, days, off, others }) => {
              const taken = moved.get(session) ?? start
              return (
                <li key={session} className="rounded-lg border border-line p-3">
                  <p className="text-[14px] text-soft">
                    {name}, {say('yours.minutes-of', { minutes })}
                  </p>
                  {taken === undefined ? (
                    <p className="font-semibold text-clay">
                      {say('yours.plan-none', { date: shortDate(meant) })}
                    </p>
                  ) : (
                    <>
                      <p className="font-semibold">{sessionAt(taken, minutes, clocks)}</p>
                      {(days !== 0 || off !== 0) && taken === start && (
                        <p className="text-[14px] text-soft">
                          {say('yours.plan-moved', { date: shortDate(meant) })}
                        </p>
                      )}
                      {others.length > 1 && (
                        <label className="mt-1 block text-[14px]" htmlFor={`${id}-${session}`}>
                          {say('yours.plan-other')}{' '}
                          <select
                            id={`${id}-${session}`}
                            className="field w-auto"
                            value={taken}
                            onChange={(event) =>
                              setMoved(new Map(moved).set(session, Number(event.target.value) as Instant))
                            }
                          >
                            {[...new Set([taken, ...others])]
                              .sort((a, b) => a - b)
                              .map((one) => (
                                <option key={one} value={one}>
                                  {timeAt(clocks.first, one)}
                                </option>
                              ))}
                          </select>
                        </label>
                      )}
                    </>
                  )}
                </li>
              )
            })}
          </ol>
          <button
            type="button"
            className="press press-go mt-3"
            disabled={booking.isPending || found === 0}
            onClick={() => booking.mutate(plan)}
          >
            {say(booking.isPending ? 'moment' : 'yours.plan-book', { count: found })}
          </button>
        </section>
      )}
    </div>
  )
}
