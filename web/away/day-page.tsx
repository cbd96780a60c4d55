import type { DeskDoes } from '@acolhida/core/booking'
import type { DaySession, DayView } from '@acolhida/core/contract'
import { addDays, dateAt, type Instant, longDate, span, type Zone, zone } from '@acolhida/core/time'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { RelayError } from '../relay-client/client.ts'
import { awayRelay } from './relay.ts'
import { Request } from './request.tsx'
import { Undo } from './undo.tsx'

const KEPT = 'acolhida-phone'

/** The phone's key: from the address once, then kept here; it does not stay in the address. */
function phoneKey(): string {
  const given = location.hash.slice(1)
  if (given) {
    localStorage.setItem(KEPT, given)
    history.replaceState(null, '', location.pathname)
  }
  return given || (localStorage.getItem(KEPT) ?? '')
}

/** Today and tomorrow on the phone: who comes, who waits for a word, and what one says on the way. */
export function DayPage() {
  const [key] = useState(phoneKey)
  const queries = useQueryClient()
  const day = useQuery({
    queryKey: ['day'],
    queryFn: () => awayRelay.day(key),
    enabled: key !== '',
    refetchInterval: 30_000,
  })
  const deciding = useMutation({
    mutationFn: ({ booking, command, seen }: { booking: string; command: DeskDoes; seen: string }) =>
      awayRelay.decideOn(key, booking, command, seen),
    onSuccess: (view) => queries.setQueryData(['day'], view),
    onError: () => queries.invalidateQueries({ queryKey: ['day'] }),
  })
  const ended = day.error instanceof RelayError && day.error.status === 401
  if (key === '' || ended || (day.error && !day.data))
    return (
      <>
        <title>My day · Acolhida</title>
        <h1>My day</h1>
        <p className="mt-3" role="alert">
          {key === ''
            ? 'Open the address, or the code, that the desk shows under “This desk”.'
            : day.error?.message}
        </p>
      </>
    )
  if (!day.data) return <p className="text-soft">One moment …</p>
  const { waiting, sessions, zone: name } = day.data
  const home = zone(name)
  const today = dateAt(home, day.data.now)
  const act = (booking: string, seen: string) => (command: DeskDoes) =>
    deciding.mutate({ booking, command, seen })
  const about = deciding.variables?.booking
  const problemOf = (id: string): string | undefined => (about === id ? deciding.error?.message : undefined)
  return (
    <>
      <title>My day · Acolhida</title>
      <h1>My day</h1>
      {[today, addDays(today, 1)].map((date) => (
        <section key={date} className="mt-5">
          <h2 className="mb-2">{date === today ? 'Today' : longDate(date)}</h2>
          <Sessions
            of={sessions.filter(({ start }) => dateAt(home, start) === date)}
            home={home}
            busy={deciding.isPending}
            act={act}
            problemOf={problemOf}
          />
        </section>
      ))}
      {waiting.length > 0 && (
        <section className="mt-6">
          <h2 className="mb-2">Waiting for your answer</h2>
          <div className="grid gap-3">
            {waiting.map((view) => (
              <Request
                key={view.booking}
                view={view}
                busy={deciding.isPending}
                problem={problemOf(view.booking)}
                folded
                decide={act(view.booking, view.shown)}
              />
            ))}
          </div>
        </section>
      )}
    </>
  )
}

function Sessions({
  of,
  ...rest
}: {
  of: DayView['sessions']
  home: Zone
  busy: boolean
  act: (booking: string, seen: string) => (command: DeskDoes) => void
  problemOf: (booking: string) => string | undefined
}) {
  if (of.length === 0) return <p className="sheet p-4">Nothing is booked.</p>
  return (
    <ul className="grid gap-3">
      {of.map((session) => (
        <Session key={session.booking} session={session} {...rest} />
      ))}
    </ul>
  )
}

/** How many minutes late one can say that one will be. */
const LATE = [5, 10, 15, 30]

function Session({
  session,
  home,
  busy,
  act,
  problemOf,
}: {
  session: DaySession
  home: Zone
  busy: boolean
  act: (booking: string, seen: string) => (command: DeskDoes) => void
  problemOf: (booking: string) => string | undefined
}) {
  const [way, setWay] = useState<'late' | 'cancel'>()
  const decide = (command: DeskDoes): void => {
    act(session.booking, session.shown)(command)
    setWay(undefined)
  }
  const end = (session.start + session.minutes * 60_000) as Instant
  const problem = problemOf(session.booking)
  const name = <span className="sr-only">, {session.name}</span>
  return (
    <li className="sheet p-4">
      <h3 className="figures">{span(session.start, end, home)}</h3>
      <p>
        <b className="wrap-anywhere">{session.name}</b>
        <span className="block text-soft">
          {session.service} · {session.placeName}
        </span>
        {session.address &&
          (/^https?:\/\//.test(session.address) ? (
            <a className="way wrap-anywhere" href={session.address} rel="noreferrer">
              {session.address}
            </a>
          ) : (
            <span className="block">{session.address}</span>
          ))}
        {session.phone && (
          <a className="way block" href={`tel:${session.phone.replaceAll(/[^\d+]/g, '')}`}>
            {session.phone}
          </a>
        )}
      </p>
      {session.state !== 'booked' && (
        <p className="mt-2 font-semibold" role="status">
          {session.state === 'attended' ? 'They were here.' : 'They did not come.'}
        </p>
      )}
      {session.late !== undefined && (
        <p className="mt-2 text-sun-ink">They know that you come {session.late} minutes late.</p>
      )}
      {problem && (
        <p role="alert" className="mt-2 font-semibold text-clay">
          {problem}
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Undo undo={session.undo} busy={busy} onUndo={(of) => decide({ do: 'take-back', of })} />
        {session.begun && session.state !== 'attended' && (
          <button type="button" className="press" disabled={busy} onClick={() => decide({ do: 'attend' })}>
            Attended{name}
          </button>
        )}
        {session.missable && session.state !== 'missed' && (
          <button
            type="button"
            className="press press-no"
            disabled={busy}
            onClick={() => decide({ do: 'miss' })}
          >
            Missed{name}
          </button>
        )}
        {session.state === 'booked' && !session.over && (
          <button type="button" className="press press-quiet" onClick={() => setWay('late')}>
            Running late…{name}
          </button>
        )}
        {session.state === 'booked' && !session.begun && (
          <button type="button" className="press press-no" onClick={() => setWay('cancel')}>
            Cancel…{name}
          </button>
        )}
      </div>
      {way === 'late' && (
        <div className="mt-3">
          <p>They are told by mail that you come</p>
          {session.gives && session.gives.late > 0 && (
            <p className="text-soft">
              Later than {session.gives.after} minutes takes {session.gives.late} % off the price, by your own
              side of the rules.
            </p>
          )}
          <div className="mt-1 flex flex-wrap gap-2">
            {LATE.map((minutes) => (
              <button
                key={minutes}
                type="button"
                className="press"
                disabled={busy}
                onClick={() => decide({ do: 'run-late', minutes })}
              >
                {minutes} minutes late
              </button>
            ))}
            <button type="button" className="press press-quiet" onClick={() => setWay(undefined)}>
              Not late after all
            </button>
          </div>
        </div>
      )}
      {way === 'cancel' && (
        <Cancel
          gives={session.gives?.cancelling ?? 0}
          busy={busy}
          name={session.name}
          decide={decide}
          back={() => setWay(undefined)}
        />
      )}
    </li>
  )
}

function Cancel({
  gives,
  busy,
  name,
  decide,
  back,
}: {
  /** What they get for it, in percent of the price. */
  gives: number
  busy: boolean
  name: string
  decide: (command: DeskDoes) => void
  back: () => void
}) {
  const [text, setText] = useState('')
  return (
    <div className="mt-3 grid gap-2">
      {gives > 0 && (
        <p className="text-soft">
          By your own side of the rules, {name} gets {gives} % of the price for it.
        </p>
      )}
      <label className="ask">
        A word for {name}
        <textarea
          className="field mt-1 min-h-20"
          maxLength={5_000}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="press press-no"
          disabled={busy}
          onClick={() => decide({ do: 'cancel', by: 'practitioner', text })}
        >
          Cancel it; nothing is owed
        </button>
        <button type="button" className="press press-quiet" onClick={back}>
          Keep it
        </button>
      </div>
    </div>
  )
}
