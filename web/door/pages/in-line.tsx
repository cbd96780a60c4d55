import type { AgreedVersion, FreedView, LineDoes, LineView } from '@acolhida/core/contract'
import type { LineWishes } from '@acolhida/core/waiting'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import { newKey } from '../../relay-client/client.ts'
import { clocksNamed, momentAt, sessionAt, startWords } from '../parts/clocks.ts'
import { LineWishesFields } from '../parts/line-wishes.tsx'
import { Notice } from '../parts/notice.tsx'
import { Nowhere } from '../parts/nowhere.tsx'
import { say } from '../parts/say.ts'
import { useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { HeldOutForThem } from './held-out.tsx'

/** Where somebody stands in line, behind their private link; and the freed time that is held out to them. */
export default function InLine() {
  const slug = useSlug()
  const { secret = '' } = useParams()
  const { state } = useLocation() as { state: { sent?: boolean } | null }
  const queryKey = ['line', secret]
  const queries = useQueryClient()
  const navigate = useNavigate()
  const line = useQuery({
    queryKey,
    queryFn: () => doorRelay.line(secret),
    refetchInterval: 15_000,
  })
  const acting = useMutation({
    mutationFn: (does: LineDoes) => doorRelay.inLine(secret, does, newKey()),
    onSuccess: (view) => queries.setQueryData(queryKey, view),
    onError: () => queries.invalidateQueries({ queryKey }),
  })
  // Trying again after a lost answer takes the same time once.
  const [key] = useState(newKey)
  const taking = useMutation({
    mutationFn: ({ offer, agreed }: { offer: FreedView; agreed: AgreedVersion[] }) =>
      doorRelay.take(
        secret,
        { freed: offer.freed, shown: offer.shown, agreed },
        `${key}${offer.freed}`.slice(0, 64),
      ),
    onSuccess: ({ link }) => navigate(`/${slug}/my/${link}`, { replace: true, state: { sent: true } }),
    onError: () => queries.invalidateQueries({ queryKey }),
  })
  const view = line.data
  if (line.error && !view) {
    return (
      <Nowhere slug={slug} title={say('line.nowhere')}>
        {line.error.message}
      </Nowhere>
    )
  }
  if (!view) return <p className="text-soft">{say('moment')}</p>
  return (
    <Standing
      view={view}
      sent={state?.sent ?? false}
      act={acting.mutate}
      take={(offer, agreed) => taking.mutate({ offer, agreed })}
      error={taking.error?.message ?? acting.error?.message}
      busy={acting.isPending || taking.isPending}
    />
  )
}

function Standing({
  view,
  sent,
  act,
  take,
  error,
  busy,
}: {
  view: LineView
  /** One has just got in line here; what was sent by mail still has to be opened. */
  sent: boolean
  act: (does: LineDoes) => void
  take: (offer: FreedView, agreed: AgreedVersion[]) => void
  error: string | undefined
  busy: boolean
}) {
  const head = useRef<HTMLHeadingElement>(null)
  const { state, service } = view
  const title = say(`line.${state}`, { service })
  const clocks = clocksNamed(view.clocks)
  const waits = state === 'waiting' || state === 'paused' || state === 'doubted' || state === 'offered'
  // What one has done leads to what has come of it.
  const before = useRef(state)
  useEffect(() => {
    if (before.current !== state) head.current?.focus()
    before.current = state
  }, [state])
  return (
    <div className="max-w-[680px]">
      <title>{`${title} · ${view.practitioner}`}</title>
      <h1 ref={head} tabIndex={-1} className="outline-none">
        {title}
      </h1>
      {error && (
        <div className="mt-4">
          <Notice>{error}</Notice>
        </div>
      )}
      {state === 'unproved' && view.until !== undefined && (
        <section className="sheet mt-4 p-5">
          {sent ? (
            <p>{say('wait.open-mail', { email: view.email, until: momentAt(view.until, clocks) })}</p>
          ) : (
            <>
              <p>{say('line.prove', { service })}</p>
              <button
                type="button"
                className="press press-go mt-3"
                disabled={busy}
                onClick={() => act({ do: 'prove' })}
              >
                {say('line.prove-press')}
              </button>
            </>
          )}
        </section>
      )}
      {view.offer && <HeldOutForThem view={view} offer={view.offer} act={act} take={take} busy={busy} />}
      {state === 'doubted' && (
        <section className="sheet mt-4 p-5">
          <p>{say('line.doubted-why')}</p>
          <button
            type="button"
            className="press press-go mt-3"
            disabled={busy}
            onClick={() => act({ do: 'still' })}
          >
            {say('line.still')}
          </button>
        </section>
      )}
      {waits && !view.offer && <Where view={view} />}
      {state === 'taken' && <p className="sheet mt-4 p-5">{say('line.taken-go')}</p>}
      {state === 'ended' && (
        <section className="sheet mt-4 p-5">
          <p>
            {say(
              view.why === 'unproved'
                ? 'line.why-unproved'
                : view.why === 'over'
                  ? 'line.why-over'
                  : 'line.why-other',
            )}
          </p>
          <Link className="press mt-3 inline-flex" to={`/${view.slug}/${view.serviceId}`}>
            {view.service}
          </Link>
        </section>
      )}
      {waits && <Changes view={view} act={act} busy={busy} />}
    </div>
  )
}

/** Where one stands, without a promise; what became of the last; and what is open without waiting. */
function Where({ view }: { view: LineView }) {
  const clocks = clocksNamed(view.clocks)
  const { last } = view
  return (
    <section className="sheet mt-4 grid gap-2 p-5">
      <p>{say('line.since', { when: momentAt(view.since, clocks) })}</p>
      {view.instead !== undefined && (
        <p>{say('line.instead', { when: sessionAt(view.instead, view.minutes, clocks) })}</p>
      )}
      {view.state === 'paused' && <p>{say('line.paused-why')}</p>}
      {view.outside && <p className="note bg-sun-soft text-sun-ink">{say('line.outside')}</p>}
      <p>{say('line.others', { others: view.others, freed: view.freedLately })}</p>
      {last && (
        <p className="text-soft">
          {say(`line.last-${last.how === 'stopped' ? 'gone' : last.how}`, {
            when: startWords(last.start, clocks),
          })}
        </p>
      )}
      {view.open.length > 0 && (
        <p className="note tag-fits">
          {say('line.open')} {view.open.map((start) => startWords(start, clocks)).join(' · ')}.{' '}
          <Link className="way" to={`/${view.slug}/${view.serviceId}`}>
            {say('line.open-go')}
          </Link>
        </p>
      )}
    </section>
  )
}

/** When one could come, as one says it now; a pause; and leaving. */
function Changes({ view, act, busy }: { view: LineView; act: (does: LineDoes) => void; busy: boolean }) {
  const [wishes, setWishes] = useState<LineWishes>()
  const [kept, setKept] = useState(false)
  const [sure, setSure] = useState(false)
  const changed = wishes !== undefined && JSON.stringify(wishes) !== JSON.stringify(view.wishes)
  return (
    <>
      <section className="mt-6" aria-label={say('line.change')}>
        <h2 className="mb-2">{say('line.change')}</h2>
        <LineWishesFields
          wishes={wishes ?? view.wishes}
          zoneName={view.clocks.first}
          onChange={(next) => {
            setWishes(next)
            setKept(false)
          }}
        />
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <button
            type="button"
            className="press"
            disabled={busy || !changed || (wishes?.by === 'text' && !view.phone)}
            onClick={() => {
              if (wishes) act({ do: 'change', ...wishes })
              setKept(true)
            }}
          >
            {say('line.keep')}
          </button>
          <span role="status">{kept && !changed ? say('line.kept') : ''}</span>
          {wishes?.by === 'text' && !view.phone && <span className="text-clay">{say('wait.no-phone')}</span>}
        </div>
      </section>
      <div className="mt-6 flex flex-wrap gap-3">
        <button
          type="button"
          className="press press-quiet"
          disabled={busy}
          onClick={() => act({ do: view.state === 'paused' ? 'resume' : 'pause' })}
        >
          {say(view.state === 'paused' ? 'line.resume' : 'line.pause')}
        </button>
        {sure ? (
          <span className="flex flex-wrap items-center gap-3">
            <span role="status">{say('line.leave-sure')}</span>
            <button type="button" className="press" disabled={busy} onClick={() => act({ do: 'leave' })}>
              {say('line.leave-yes')}
            </button>
          </span>
        ) : (
          <button type="button" className="press press-no" onClick={() => setSure(true)}>
            {say('line.leave')}
          </button>
        )}
      </div>
    </>
  )
}
