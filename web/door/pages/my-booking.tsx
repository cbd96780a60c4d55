import { hasBegun } from '@acolhida/core/booking'
import type { LinkView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { answerWords } from '@acolhida/core/questions'
import { dateAt, lengthOf, longDate, MINUTE, moment, shift, span, zone } from '@acolhida/core/time'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Link, useLocation, useParams } from 'react-router'
import { ReadinessTile } from '../../drawings/tile.tsx'
import { useAt, useNow } from '../../relay-client/clock.ts'
import { Notice } from '../parts/notice.tsx'
import { whatHappensWhen } from '../parts/words.ts'
import { useSlug } from '../visit/follow.ts'
import { actThrough, doorRelay, type LinkAct } from '../visit/relay.ts'
import { fillIn } from '../visit/visit.ts'

/** Where things stand with one booking, behind its private link. */
export function MyBooking() {
  const slug = useSlug()
  const { secret = '' } = useParams()
  const { state } = useLocation() as { state: { sent?: boolean } | null }
  const queries = useQueryClient()
  const my = useQuery({
    queryKey: ['my', secret],
    queryFn: () => doorRelay.my(secret),
    refetchInterval: 15_000,
  })
  const acting = useMutation({
    mutationFn: (act: LinkAct) => actThrough(secret, act),
    onSuccess: (view) => queries.setQueryData(['my', secret], view),
    // What it was done on is no longer so: what is shown now.
    onError: () => queries.invalidateQueries({ queryKey: ['my', secret] }),
  })
  const { mutate } = acting
  const unproved = my.data && !my.data.mailProved
  const isFromMail = !state?.sent
  useEffect(() => {
    // Opening a link only shows; that somebody really followed it is said by the page itself.
    if (unproved && isFromMail) mutate({ do: 'prove' })
  }, [unproved, isFromMail, mutate])

  if (my.error && !my.data) {
    return (
      <div className="max-w-[640px]">
        <h1>This link leads nowhere</h1>
        <p className="mt-3">{my.error.message}</p>
        <p className="mt-3">
          <Link className="way" to={`/${slug}`}>
            See what is offered
          </Link>
        </p>
      </div>
    )
  }
  if (!my.data) return <p className="text-soft">One moment …</p>
  return (
    <Standing
      view={my.data}
      sent={state?.sent ?? false}
      act={mutate}
      error={acting.error?.message}
      busy={acting.isPending}
    />
  )
}

const HEADS: Record<LinkView['state'], string> = {
  unproved: 'One step more',
  waiting: 'Your request is on its way',
  offered: 'Other times for you',
  booked: 'Your time is confirmed',
  attended: 'You were here',
  missed: 'This session was missed',
  declined: 'It did not work out this time',
  lapsed: 'This request has run out',
  withdrawn: 'This request is closed',
  cancelled: 'This session is cancelled',
}

function Standing({
  view,
  sent,
  act,
  error,
  busy,
}: {
  view: LinkView
  sent: boolean
  act: (act: LinkAct) => void
  error: string | undefined
  busy: boolean
}) {
  const { secret = '' } = useParams()
  const now = useNow()
  const where = zone(view.zone)
  const offered = view.state === 'offered'
  const end = shift(view.start, view.minutes * MINUTE)
  return (
    <div className="max-w-[680px]">
      <div className="flex items-center gap-4">
        <ReadinessTile readiness={view.readiness} size={52} />
        <h1>{offered ? `${view.practitioner} offers you other times` : HEADS[view.state]}</h1>
      </div>
      {view.state === 'unproved' && (
        <p className="note mt-4 bg-tile-soft text-tile-ink" role="status">
          A mail is on its way to you. Please open its link by <strong>{moment(view.until, where)}</strong>:
          so it is known that it reaches you. Until then the time is kept; only then your request is with{' '}
          {view.practitioner}.
        </p>
      )}
      {sent && view.state !== 'unproved' && !view.mailProved && (
        <p className="note mt-4 bg-tile-soft text-tile-ink" role="status">
          A mail is on its way to you. Please follow its link once, so that {view.practitioner} knows it
          reaches you.
        </p>
      )}
      {error && (
        <div className="mt-4">
          <Notice>{error}</Notice>
        </div>
      )}
      <section className="sheet mt-4 p-5">
        <h2>{view.service}</h2>
        {!offered && (
          <p className="mt-2 text-[17px] font-bold">
            {longDate(dateAt(where, view.start))}, {span(view.start, end, where)}
          </p>
        )}
        <p className="text-soft">
          {view.minutes} minutes {view.place}
          {view.price > 0 ? ` · ${money(view.price, view.currency)}` : ' · free of charge'}
          {view.deposit > 0 && `, of which ${money(view.deposit, view.currency)} is asked beforehand`}
        </p>
        {view.address && (
          <p className="mt-1">
            {/^https?:\/\//.test(view.address) ? (
              <a className="way" href={view.address} rel="noreferrer">
                {view.address}
              </a>
            ) : (
              view.address
            )}
          </p>
        )}
        {view.text && <p className="mt-3 border-l-4 border-line pl-3 whitespace-pre-line">{view.text}</p>}
        {view.state === 'waiting' && (
          <p className="mt-3">
            {view.practitioner} answers by <strong>{moment(view.until, where)}</strong> (in{' '}
            {lengthOf(view.until - now)}). The time is kept for you until then.
          </p>
        )}
        {view.state === 'lapsed' && (
          <p className="mt-3">
            {view.mailProved
              ? 'No answer came in time, so the time is free again.'
              : 'The link in the mail was not opened in time, so the time is free again.'}{' '}
            You are welcome to choose another one.
          </p>
        )}
        {view.state === 'cancelled' && (
          <p className="mt-3">
            {view.cancelledBy === 'practitioner'
              ? `${view.practitioner} has cancelled; nothing is owed.`
              : 'You have cancelled.'}
            {view.share > 0 && ` ${view.share} % of the price is due.`}
          </p>
        )}
        {view.state === 'booked' && (
          <div className="note mt-4 bg-sun-soft text-sun-ink">
            {whatHappensWhen(view, view.price, where, now).map((line) => (
              <p key={line}>{line}</p>
            ))}
          </div>
        )}
      </section>
      {view.answers && view.answers.length > 0 && (
        <section className="sheet mt-4 p-5">
          <h2>What you answered</h2>
          <dl>
            {view.answers.map(({ question, answer }) => (
              <div key={question.id} className="mt-2">
                <dt className="text-[14px] text-soft">{question.text}</dt>
                <dd className="whitespace-pre-line wrap-anywhere">{answerWords(question, answer)}</dd>
              </div>
            ))}
          </dl>
        </section>
      )}
      {offered && <Offers view={view} act={act} busy={busy} />}
      <WayOut view={view} act={act} busy={busy} />
      {view.again && (
        <p className="mt-5">
          <Link
            className="way"
            to={`/${view.slug}/${view.again}?with=${secret}`}
            reloadDocument
            onClick={() => bringAlong(view)}
          >
            Book {view.service} once more
          </Link>
        </p>
      )}
      {['declined', 'lapsed', 'withdrawn', 'cancelled'].includes(view.state) && (
        <p className="mt-5">
          <Link className="press" to={`/${view.slug}`}>
            See what is offered
          </Link>
        </p>
      )}
    </div>
  )
}

/** Books once more with what was answered before, unless something else has been begun here already. */
function bringAlong({ again, answersBefore = {} }: LinkView): void {
  if (!again) return
  fillIn(again, { is: 'brought', answers: answersBefore })
}

function Offers({ view, act, busy }: { view: LinkView; act: (act: LinkAct) => void; busy: boolean }) {
  const where = zone(view.zone)
  return (
    <section className="mt-5">
      <h2>Choose one of these</h2>
      <p className="text-soft">
        Kept for you until <strong className="text-ink">{moment(view.until, where)}</strong>
      </p>
      <ul className="mt-3 grid gap-2">
        {view.offers.map((offer) => (
          <li key={`${offer.start} ${offer.place}`}>
            <button
              type="button"
              className="press w-full justify-between"
              disabled={busy}
              onClick={() => act({ do: 'accept', start: offer.start, place: offer.place, shown: view.shown })}
            >
              <span>
                Take {longDate(dateAt(where, offer.start))},{' '}
                {span(offer.start, shift(offer.start, view.minutes * MINUTE), where)}
              </span>
              <span className="font-normal">{offer.placeName}</span>
            </button>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="press press-no mt-3"
        disabled={busy}
        onClick={() => act({ do: 'refuse' })}
      >
        None of these suits me
      </button>
    </section>
  )
}

/** Withdrawing and cancelling: what it costs is said on the way, and it is done with a second press. */
function WayOut({ view, act, busy }: { view: LinkView; act: (act: LinkAct) => void; busy: boolean }) {
  const [sure, setSure] = useState(false)
  const begun = useAt((now) => hasBegun(view, now))
  const requested = view.state === 'unproved' || view.state === 'waiting'
  const cancellable = view.state === 'booked' && !begun
  if (!requested && !cancellable) return null
  const name = requested ? 'Withdraw my request' : 'Cancel this session'
  const cost =
    requested || view.shareNow === 0 || view.price === 0
      ? 'Nothing is owed.'
      : `${view.shareNow} % of the price is due.`
  return sure ? (
    <section className="note mt-5 bg-clay-soft text-clay-ink" aria-live="polite">
      <p className="font-semibold">
        {name}? {cost}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="press"
          disabled={busy}
          onClick={() => act(requested ? { do: 'withdraw' } : { do: 'cancel', shown: view.shown })}
        >
          Yes, {requested ? 'withdraw it' : 'cancel it'}
        </button>
        <button type="button" className="press press-quiet" onClick={() => setSure(false)}>
          Keep it
        </button>
      </div>
    </section>
  ) : (
    <button type="button" className="press press-no mt-5" onClick={() => setSure(true)}>
      {name}
    </button>
  )
}
