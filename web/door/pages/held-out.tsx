import type { AgreedVersion, FreedView, LineDoes, LineView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { durationWords } from '@acolhida/core/time'
import { useNow } from '../../relay-client/clock.ts'
import { useAgreeing } from '../parts/agreeing.tsx'
import { besideIt, clocksNamed, momentAt, sessionAt, startWords } from '../parts/clocks.ts'
import { Notice } from '../parts/notice.tsx'
import { rich, say } from '../parts/say.ts'
import { whatHappensWhen } from '../parts/words.ts'

/** A freed time with everything about it, to be taken or let go on. */
export function HeldOutForThem({
  view,
  offer,
  act,
  take,
  busy,
}: {
  view: LineView
  offer: FreedView
  act: (does: LineDoes) => void
  take: (offer: FreedView, agreed: AgreedVersion[]) => void
  busy: boolean
}) {
  const now = useNow()
  const clocks = clocksNamed(view.clocks)
  const { start, minutes, toAgree, cannot, first } = offer
  const beside = besideIt(start, minutes, clocks)
  const agreeing = useAgreeing(toAgree)
  const press = (): void => {
    const agreed = agreeing.agreed()
    if (agreed) take(offer, agreed)
  }
  return (
    <section className="sheet mt-4 grid gap-3 p-5" aria-label={say('line.offered')}>
      <p className="serif text-[20px] leading-snug">{sessionAt(start, minutes, clocks)}</p>
      {beside && <p className="text-[14px] text-soft">{beside}</p>}
      <p>
        {view.service} · {view.place}
      </p>
      <p className="figures">
        {offer.price > 0 ? money(offer.price, view.currency) : say('terms.free')}
        {offer.deposit > 0 && `, ${say('my.deposit', { deposit: money(offer.deposit, view.currency) })}`}
      </p>
      {view.instead !== undefined && (
        <p>{say('line.moves', { when: sessionAt(view.instead, minutes, clocks) })}</p>
      )}
      <div className="note bg-sun-soft text-sun-ink empty:hidden">
        {whatHappensWhen(offer, offer.price, clocks, now, false).map((line) => (
          <p key={line}>{line}</p>
        ))}
      </div>
      {first && (
        <p>
          {say('line.first', {
            amount: money(first.amount, view.currency),
            within: durationWords(first.within),
          })}
        </p>
      )}
      {offer.wordUntil !== undefined && (
        <p>{say('line.asks', { name: view.practitioner, until: momentAt(offer.wordUntil, clocks) })}</p>
      )}
      <p>{rich('line.until', { until: momentAt(offer.until, clocks) })}</p>
      {agreeing.texts}
      {agreeing.wrong}
      {cannot && <Notice>{cannot.message}</Notice>}
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="press press-go"
          disabled={busy || cannot !== undefined}
          onClick={press}
        >
          {say('line.take', { when: startWords(start, clocks) })}
        </button>
        <button
          type="button"
          className="press press-quiet"
          disabled={busy}
          onClick={() => act({ do: 'turn', freed: offer.freed })}
        >
          {say('line.turn')}
        </button>
      </div>
    </section>
  )
}
