import type { DeskDoes, Start } from '@acolhida/core/booking'
import type { WordView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { dateAt, type Instant, longDate, moment, span, type Zone, zone, zonePlace } from '@acolhida/core/time'
import { type ReactNode, useId, useState } from 'react'
import { useAt } from '../relay-client/clock.ts'
import { Times } from './times.tsx'
import { Undo } from './undo.tsx'

const OUTCOMES = { fits: 'Fits', look: 'Look first', closed: 'Not a match' } as const

/** How a request stands that no longer waits. */
const STANDS: Partial<Record<WordView['state'], string>> = {
  booked: 'Booked.',
  offered: 'Other times have been offered.',
  unpaid: 'Welcomed; it is booked once their payment has come.',
  declined: 'Turned down.',
  lapsed: 'The hold has run out, and the time is free again.',
  withdrawn: 'They have withdrawn it.',
  cancelled: 'Cancelled.',
  attended: 'They were here.',
  missed: 'They did not come.',
}

/** One request: who, what, when and why it waits; and what can be said to it. */
export function Request({
  view,
  busy,
  problem,
  decide,
  times,
  folded = false,
}: {
  view: WordView
  busy: boolean
  problem: string | undefined
  decide: (command: DeskDoes) => void
  /** Looks up open times, where other times can be offered here. */
  times?: () => Promise<Instant[]>
  /** Whether the answers are folded away until one wants to read them. */
  folded?: boolean
}) {
  const home = zone(view.zone)
  const end = (view.start + view.minutes * 60_000) as Instant
  const waits = useAt((now) => view.state === 'waiting' && now <= view.until)
  return (
    <article className="sheet p-4">
      <h2 className="wrap-anywhere">{view.name}</h2>
      <p className="text-soft">
        {view.service} · {view.minutes} min · {view.place}
        {view.price > 0 && ` · ${money(view.price, view.currency)}`}
      </p>
      <p className="mt-1 font-semibold">
        {longDate(dateAt(home, view.start))}, {span(view.start, end, home)}
      </p>
      <p className="text-[14px] text-soft">
        {view.known ? 'You know them' : 'New'}
        {view.clientZone !== view.zone &&
          ` · there, in ${zonePlace(view.clientZone)}, ${span(view.start, end, zone(view.clientZone))}`}
      </p>
      {waits && (
        <>
          <p className="mt-3">
            <span className={`tag tag-${view.outcome}`}>{OUTCOMES[view.outcome]}</span>
          </p>
          <ul className="mt-1.5 grid gap-0.5">
            {view.reasons.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
            {view.attempts > 0 && <li>They answered differently before.</li>}
          </ul>
          {view.answers.length > 0 && (
            <details className="mt-3" open={!folded}>
              <summary className="way cursor-pointer">What they answered</summary>
              <dl className="mt-2 grid gap-2">
                {view.answers.map(({ question, answer }) => (
                  <div key={question}>
                    <dt className="text-[14px] text-soft">{question}</dt>
                    <dd className="whitespace-pre-line wrap-anywhere" dir="auto">
                      {answer}
                    </dd>
                  </div>
                ))}
              </dl>
            </details>
          )}
        </>
      )}
      {view.question && (
        <div className="note mt-3 bg-tile-soft text-tile-ink">
          <p>You asked: {view.question.text}</p>
          <p className="mt-1 font-semibold" dir="auto">
            {view.question.reply ?? 'No answer yet.'}
          </p>
        </div>
      )}
      {waits && !view.undo && (
        <p className="mt-3 text-[14px]">Kept until {moment(view.until, home)}, then it is free again.</p>
      )}
      {(!waits || view.undo) && (
        <p className="mt-3 font-semibold" role="status">
          {view.undo && view.state === 'waiting' ? 'Asked back.' : (STANDS[view.state] ?? 'It has run out.')}
          {view.text && <span className="block font-normal">“{view.text}”</span>}
        </p>
      )}
      <div className="mt-2">
        <Undo undo={view.undo} busy={busy} onUndo={(of) => decide({ do: 'take-back', of })} />
      </div>
      {problem && (
        <p role="alert" className="mt-2 font-semibold text-clay">
          {problem}
        </p>
      )}
      {waits && !view.undo && <Decide view={view} home={home} busy={busy} decide={decide} times={times} />}
    </article>
  )
}

type Way = 'welcome' | 'offer' | 'ask' | 'decline'

function Decide({
  view,
  home,
  busy,
  decide,
  times,
}: {
  view: WordView
  home: Zone
  busy: boolean
  decide: (command: DeskDoes) => void
  times: (() => Promise<Instant[]>) | undefined
}) {
  const [way, setWay] = useState<Way>()
  const [text, setText] = useState('')
  const [starts, setStarts] = useState<Start[]>([])
  const name = <span className="sr-only">, {view.name}</span>
  if (way === undefined)
    return (
      <div className="mt-4 grid gap-2">
        <button
          type="button"
          className="press press-go justify-center"
          disabled={busy}
          onClick={() => decide({ do: 'welcome' })}
        >
          Welcome{name}
        </button>
        <div className="flex flex-wrap gap-2">
          <button type="button" className="press press-quiet" onClick={() => setWay('welcome')}>
            Welcome with a word…{name}
          </button>
          {times && (
            <button type="button" className="press press-quiet" onClick={() => setWay('offer')}>
              Offer other times…{name}
            </button>
          )}
          <button type="button" className="press press-quiet" onClick={() => setWay('ask')}>
            Ask something…{name}
          </button>
          <button type="button" className="press press-no" onClick={() => setWay('decline')}>
            Turn down…{name}
          </button>
        </div>
      </div>
    )
  const back = (): void => setWay(undefined)
  const send = (command: DeskDoes): void => {
    decide(command)
    back()
  }
  return (
    <div className="mt-4 grid gap-3">
      {way === 'welcome' && (
        <Words label="A word with it" text={text} onChange={setText} back={back}>
          <Send busy={busy} onSend={() => send({ do: 'welcome', text })}>
            Welcome them
          </Send>
        </Words>
      )}
      {way === 'decline' && (
        <Words label="What they will read" text={text} onChange={setText} back={back}>
          <Send busy={busy} onSend={() => send({ do: 'decline', text })}>
            Turn down and send this
          </Send>
        </Words>
      )}
      {way === 'ask' && (
        <Words label="What you would like to know" text={text} onChange={setText} back={back}>
          <Send busy={busy || !text.trim()} onSend={() => send({ do: 'ask', text: text.trim() })}>
            Ask, and keep the time meanwhile
          </Send>
        </Words>
      )}
      {way === 'offer' && times && (
        <>
          <Times look={times} home={home} place={view.placeId} chosen={starts} onChoose={setStarts} />
          <Words label="A word with it" text={text} onChange={setText} back={back}>
            <Send busy={busy || starts.length === 0} onSend={() => send({ do: 'offer', starts, text })}>
              {starts.length > 1 ? `Offer these ${starts.length} times` : 'Offer this time'}
            </Send>
          </Words>
        </>
      )}
    </div>
  )
}

function Words({
  label,
  text,
  onChange,
  back,
  children,
}: {
  label: string
  text: string
  onChange: (text: string) => void
  back: () => void
  children: ReactNode
}) {
  const id = useId()
  return (
    <>
      <label className="ask" htmlFor={id}>
        {label}
      </label>
      <textarea
        id={id}
        className="field min-h-24"
        maxLength={5_000}
        value={text}
        onChange={(event) => onChange(event.target.value)}
      />
      <div className="flex flex-wrap gap-2">
        {children}
        <button type="button" className="press press-quiet" onClick={back}>
          Back
        </button>
      </div>
    </>
  )
}

const Send = ({ busy, onSend, children }: { busy: boolean; onSend: () => void; children: ReactNode }) => (
  <button type="button" className="press press-go" disabled={busy} onClick={onSend}>
    {children}
  </button>
)
