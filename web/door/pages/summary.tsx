import type { DoorService } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { before, type Clocks, durationWords, type Instant, MINUTE, timeAt } from '@acolhida/core/time'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { useNow } from '../../relay-client/clock.ts'
import { besideIt, clocksAt, momentAt, sessionAt } from '../parts/clocks.ts'
import { GoOn } from '../parts/go-on.tsx'
import { rich, say } from '../parts/say.ts'
import { lengthAndPlace, priceWords, whatHappensWhen } from '../parts/words.ts'
import { useDoor, useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { type RunningQuote, useRunningQuote } from '../visit/running-quote.ts'
import { fillIn, fillingOf, isQuoted, useVisit, wantedOf } from '../visit/visit.ts'
import type { DoorStep } from './steps.ts'

/** The running summary: what, how long, when, for how much, and what happens when. */
export function Summary({
  service,
  step,
  go,
}: {
  service: DoorService
  step: DoorStep
  go: (step: DoorStep) => void
}) {
  const { currency, practice } = useDoor()
  const visit = useVisit()
  const now = useNow()
  const filling = fillingOf(visit, service.id)
  const { read: reading, kept } = filling
  const place =
    service.places.find((place) => place.id === (kept?.place ?? filling.place)) ?? service.places[0]
  const clocks = clocksAt(place, visit.zone)
  const quoted = isQuoted(visit, service.id)
  const running = useRunningQuote(service, step === 'questions' && !reading && !quoted)
  const told = reading?.open ? (kept ?? reading) : undefined
  const quote = told ?? whole(running)
  const minutes = quote?.minutes ?? reading?.minutes ?? running.quote?.minutes ?? service.minutes
  const start = reading?.open ? kept?.start : undefined
  const beside = start === undefined || minutes === undefined ? undefined : besideIt(start, minutes, clocks)
  // Beside a no stands no price.
  const closed = filling.closed !== undefined || (reading !== undefined && !reading.open)
  if (closed)
    return (
      <aside className="sheet mt-8 h-fit p-5 lg:mt-0" aria-label={say('summary')}>
        <h2>{service.name}</h2>
      </aside>
    )
  return (
    <aside className="sheet mt-8 h-fit p-5 lg:mt-0" aria-label={say('summary')}>
      <h2>{service.name}</h2>
      <p className="mt-0.5 text-[14px] text-soft">{lengthAndPlace(minutes, place?.name)}</p>
      {place?.address && <p className="text-[14px] text-soft">{place.address}</p>}
      {place?.later && (
        <p className="text-[14px] text-soft">{say('summary.address-later', { when: place.later })}</p>
      )}
      {place?.kind === 'phone' && (
        <p className="text-[14px] text-soft">
          {say(place.whoCalls === 'client' ? 'summary.call-you' : 'summary.call-me')}
        </p>
      )}
      <hr className="my-3.5 border-line" />
      {start !== undefined && minutes !== undefined && (
        <p className="mb-3">
          <b>{sessionAt(start, minutes, clocks)}</b>
          {beside && <span className="block text-[14px] text-soft">{beside}</span>}
        </p>
      )}
      {quote ? (
        <div className="figures grid gap-1.5">
          {quote.lines.map((line) => (
            <div key={line.name} className="flex justify-between gap-4">
              <span>
                {line.quantity > 1
                  ? say('summary.times', { quantity: line.quantity, name: line.name })
                  : line.name}
              </span>
              <span>{money(line.amount, currency)}</span>
            </div>
          ))}
          <div
            className={`flex justify-between gap-4 font-bold ${quote.lines.length > 0 ? 'border-t border-line pt-2' : ''}`}
          >
            <span>
              {practice.tax && quote.price > 0
                ? say('summary.total-tax', { tax: practice.tax })
                : say('summary.total')}
            </span>
            <span>{quote.price === 0 ? say('summary.free') : money(quote.price, currency)}</span>
          </div>
          {told && told.deposit > 0 && (
            <div className="flex justify-between gap-4 text-[14px] text-soft">
              <span>{say('summary.deposit')}</span>
              <span>{money(told.deposit, currency)}</span>
            </div>
          )}
        </div>
      ) : running.unknown ? (
        <p className="text-[14px] font-semibold text-clay" role="status">
          {say('summary.unknown')}
        </p>
      ) : (
        <p className="font-bold">{priceWords(service, currency, practice) || say('summary.follows')}</p>
      )}
      {service.codes && !quoted && <Code service={service} />}
      {start !== undefined && kept && (
        <>
          {service.least && (
            <p className="mt-3 text-[14px] text-soft">
              {say('summary.least', {
                people: service.least.people,
                by: momentAt(before(start, service.least.by, clocks.first), clocks),
              })}
            </p>
          )}
          <div className="note mt-4 bg-sun-soft text-sun-ink empty:hidden">
            {whatHappensWhen(kept, kept.price, clocks, now, false).map((line) => (
              <p key={line}>{line}</p>
            ))}
          </div>
          {kept.first && (
            <p className="note mt-3 bg-sun-soft text-sun-ink">
              {rich('summary.first', {
                amount: money(kept.first.amount, currency),
                within: durationWords(kept.first.within),
              })}
            </p>
          )}
          {kept.proveWithin !== undefined && (
            <p className="mt-3 text-[14px] text-soft">
              {say('summary.prove', { minutes: kept.proveWithin })}
            </p>
          )}
          {kept.wordUntil !== undefined && (
            <p className="mt-3 text-[14px] text-soft">
              {rich('summary.word', {
                name: practice.name.split(' ')[0] ?? practice.name,
                until: momentAt(kept.wordUntil, clocks),
              })}
            </p>
          )}
          {kept.unheld ? (
            <p className="note mt-3 bg-sun-soft text-sun-ink">{say('summary.unheld')}</p>
          ) : (
            <KeptLine
              service={service}
              until={kept.until}
              renewable={kept.renewable}
              now={now}
              clocks={clocks}
            />
          )}
        </>
      )}
      {step === 'time' && start !== undefined && (
        <div className="mt-4 hidden lg:block">
          <GoOn start={start} clocks={clocks} go={go} />
        </div>
      )}
    </aside>
  )
}

/** A running quote that tells both length and price. */
const whole = ({ quote }: RunningQuote) =>
  quote?.lines && quote.price !== undefined && quote.minutes !== undefined
    ? { minutes: quote.minutes, lines: quote.lines, price: quote.price }
    : undefined

/** A price code, looked at by the relay before it counts. */
function Code({ service }: { service: DoorService }) {
  const slug = useSlug()
  const visit = useVisit()
  const filling = fillingOf(visit, service.id)
  const { code } = filling
  const [typed, setTyped] = useState('')
  // A price that has been told, and a time that is kept, are told and kept anew: nobody is sent back.
  const using = useMutation({
    mutationFn: async (next: string | undefined) => {
      const { code: _, ...plain } = wantedOf(visit, service)
      const wanted = next ? { ...plain, code: next } : plain
      const { codeProblem } = await doorRelay.soFar(slug, wanted)
      if (codeProblem) throw new Error(codeProblem)
      const read = filling.read && (await doorRelay.read(slug, wanted))
      const { place, start } = filling.kept ?? {}
      const kept =
        read?.open && place !== undefined && start !== undefined
          ? await doorRelay.keep(slug, { ...wanted, place, start })
          : undefined
      return { code: next, read, kept }
    },
    onSuccess: (parts) => fillIn(service.id, { is: 'coded', ...parts }),
  })
  const problem = using.error?.message
  if (code)
    return (
      <p className="mt-3 flex items-center justify-between gap-3 text-[14px]">
        {say('code', { code })}
        <button
          type="button"
          className="way min-h-[44px]"
          disabled={using.isPending}
          onClick={() => using.mutate(undefined)}
        >
          {say('code.away')}
        </button>
      </p>
    )
  return (
    <details className="mt-3 text-[14px]">
      <summary className="way min-h-[44px] cursor-pointer py-3">{say('code.have')}</summary>
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (typed.trim()) using.mutate(typed.trim())
        }}
      >
        <input
          className="field min-w-0"
          aria-label={say('code.label')}
          autoComplete="off"
          maxLength={60}
          value={typed}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? 'code-problem' : undefined}
          onChange={(event) => setTyped(event.target.value)}
        />
        <button type="submit" className="press shrink-0" disabled={using.isPending}>
          {say('code.use')}
        </button>
      </form>
      {problem && (
        <p id="code-problem" role="alert" className="mt-1 font-semibold text-clay">
          {problem}
        </p>
      )}
    </details>
  )
}

/** Until when the picked time is kept, as a moment; longer once, on request. */
function KeptLine({
  service,
  until,
  renewable,
  now,
  clocks,
}: {
  service: DoorService
  until: Instant
  renewable: boolean
  now: Instant
  clocks: Clocks
}) {
  const slug = useSlug()
  const visit = useVisit()
  const renewing = useMutation({
    mutationFn: () => doorRelay.renew(slug, visit.id),
    onSuccess: (more) => fillIn(service.id, { is: 'renewed', more }),
  })
  const left = until - now
  if (left < 0) {
    return <p className="mt-3 text-[14px] font-semibold text-clay">{say('summary.not-kept')}</p>
  }
  return (
    <p className="mt-3 text-[14px] text-soft">
      {rich('summary.kept', { until: timeAt(clocks.first, until) })}{' '}
      {renewable && left < 4 * MINUTE && (
        <button type="button" className="way" onClick={() => renewing.mutate()} disabled={renewing.isPending}>
          {say('summary.longer')}
        </button>
      )}
    </p>
  )
}
