import type { Unwanted } from '@acolhida/core/booking'
import type { LinkView } from '@acolhida/core/contract'
import { useEffect, useRef } from 'react'
import { clocksNamed, momentAt } from '../parts/clocks.ts'
import { rich, say } from '../parts/say.ts'
import type { LinkAct } from '../visit/relay.ts'

interface Acts {
  view: LinkView
  act: (act: LinkAct) => void
  busy: boolean
}

/** What a message has led to on this page: it is shown first, and has the focus. */
export function useLedTo(wanted: boolean) {
  const place = useRef<HTMLElement>(null)
  useEffect(() => {
    if (!wanted || !place.current) return
    place.current.scrollIntoView({ block: 'center' })
    place.current.focus({ preventScroll: true })
  }, [wanted])
  return place
}

/** What is to be read or done before the session, with a tick where there is one. */
export function BeforeIt({ view, act, busy }: Acts) {
  const { before } = view
  if (!before) return null
  return (
    <section className="sheet mt-4 p-5">
      <h2>{say('my.before')}</h2>
      <p className="mt-2 whitespace-pre-line wrap-anywhere empty:hidden">{before.text}</p>
      {before.address && (
        <a className="press mt-3" href={before.address} target="_blank" rel="noopener noreferrer">
          {say('my.before-open')}
        </a>
      )}
      {before.by !== undefined && (
        <p className="mt-3 text-soft">
          {rich('my.before-by', { until: momentAt(before.by, clocksNamed(view.clocks)) })}
        </p>
      )}
      {before.tick && (
        <label className="mt-3 flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 shrink-0 accent-(--leaf)"
            checked={before.done === true}
            disabled={busy}
            onChange={(event) => act({ do: 'prepare', done: event.target.checked })}
          />
          {say('my.before-tick')}
        </label>
      )}
    </section>
  )
}

/** Saying that one will be there. */
export function Coming({ view, act, busy, led }: Acts & { led: boolean }) {
  const place = useLedTo(led)
  if (view.coming === undefined) return null
  return (
    <section className="sheet mt-4 p-5 outline-none" ref={place} tabIndex={-1}>
      <h2>{say('my.come-ask')}</h2>
      {view.coming ? (
        <p className="mt-2" role="status">
          {say('my.come-yes')}
        </p>
      ) : (
        <button
          type="button"
          className="press press-go mt-3"
          disabled={busy}
          onClick={() => act({ do: 'come' })}
        >
          {say('my.come')}
        </button>
      )}
    </section>
  )
}

/** What one wants to be sent no more. */
export function WhatIsSent({ view, act, busy, led }: Acts & { led: boolean }) {
  const place = useLedTo(led)
  const one = (what: Unwanted, label: string) => (
    <label className="mt-2 flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="size-6 shrink-0 accent-(--leaf)"
        checked={view.unwanted.includes(what)}
        disabled={busy}
        onChange={(event) => act({ do: 'unwant', what, on: event.target.checked })}
      />
      {label}
    </label>
  )
  return (
    <section className="sheet mt-4 p-5 outline-none" ref={place} tabIndex={-1}>
      <h2>{say('my.unwant')}</h2>
      {one('follow-ups', say('my.unwant-follow-ups'))}
      {one('texts', say('my.unwant-texts'))}
      <p className="mt-2 text-[14px] text-soft">{say('my.unwant-still')}</p>
    </section>
  )
}
