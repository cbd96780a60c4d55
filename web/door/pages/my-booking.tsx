import type { LinkView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { answerWords } from '@acolhida/core/questions'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef } from 'react'
import { Link, useLocation, useParams, useSearchParams } from 'react-router'
import { ReadinessTile } from '../../drawings/tile.tsx'
import { useNow } from '../../relay-client/clock.ts'
import { besideIt, clocksNamed, momentAt, sessionAt } from '../parts/clocks.ts'
import { Notice } from '../parts/notice.tsx'
import { Nowhere } from '../parts/nowhere.tsx'
import { rich, say } from '../parts/say.ts'
import { whatHappensWhen } from '../parts/words.ts'
import { useSlug } from '../visit/follow.ts'
import { actThrough, doorRelay, type LinkAct } from '../visit/relay.ts'
import { fillIn } from '../visit/visit.ts'
import { useCameBack } from '../visit/way-back.ts'
import { MoveMine } from './move-mine.tsx'
import { MyCard } from './my-card.tsx'
import { MyInvoices } from './my-invoices.tsx'
import { BeforeIt, Coming, WhatIsSent } from './my-messages.tsx'
import { MyMoney } from './my-money.tsx'
import { AgreeNow, WasAgreed } from './my-terms.tsx'
import { AskedBack, Exception } from './my-words.tsx'
import { WayOut } from './way-out.tsx'

/** Where things stand with one booking, behind its private link. */
export function MyBooking() {
  const slug = useSlug()
  const { secret = '' } = useParams()
  const { state } = useLocation() as { state: { sent?: boolean } | null }
  const [search] = useSearchParams()
  const booking = search.get('booking') ?? undefined
  const queryKey = ['my', secret, booking]
  const queries = useQueryClient()
  const my = useQuery({
    queryKey,
    queryFn: () => doorRelay.my(secret, booking),
    refetchInterval: 15_000,
  })
  const acting = useMutation({
    mutationFn: (act: LinkAct) => actThrough(secret, booking, act),
    onSuccess: (view) => queries.setQueryData(queryKey, view),
    // What it was done on is no longer so: what is shown now.
    onError: () => queries.invalidateQueries({ queryKey }),
  })
  const { mutate } = acting
  const unproved = my.data && !my.data.mailProved
  const isFromMail = !state?.sent
  useEffect(() => {
    // Opening a link only shows; that somebody really followed it is said by the page itself.
    if (unproved && isFromMail) mutate({ do: 'prove' })
  }, [unproved, isFromMail, mutate])

  const comeBack = useCallback(() => mutate({ do: 'came-back' }), [mutate])
  useCameBack(my.data !== undefined, comeBack)

  if (my.error && !my.data) {
    return (
      <Nowhere slug={slug} title={say('my.nowhere')}>
        {my.error.message}
      </Nowhere>
    )
  }
  if (!my.data) return <p className="text-soft">{say('moment')}</p>
  return (
    <Standing
      view={my.data}
      led={search.get('to') ?? ''}
      sent={state?.sent ?? false}
      act={mutate}
      moved={acting.isSuccess && acting.variables.do === 'move'}
      error={acting.error?.message}
      busy={acting.isPending}
    />
  )
}

function Standing({
  view,
  led,
  sent,
  act,
  moved,
  error,
  busy,
}: {
  view: LinkView
  /** What a message has led to on this page. */
  led: string
  sent: boolean
  act: (act: LinkAct) => void
  moved: boolean
  error: string | undefined
  busy: boolean
}) {
  const { secret = '' } = useParams()
  const now = useNow()
  const clocks = clocksNamed(view.clocks)
  const offered = view.state === 'offered'
  const beside = besideIt(view.start, view.minutes, clocks)
  const until = momentAt(view.until, clocks)
  const name = view.practitioner
  const head = say(`my.${view.state}`, { name })
  const price = [
    view.price > 0 ? money(view.price, view.currency) : say('terms.free'),
    view.deposit > 0 ? say('my.deposit', { deposit: money(view.deposit, view.currency) }) : '',
  ]
  return (
    <div className="max-w-[680px]">
      <title>{`${head} · ${name}`}</title>
      <div className="flex items-center gap-4">
        <ReadinessTile readiness={view.readiness} size={52} />
        <h1>{head}</h1>
      </div>
      {view.state === 'unproved' && (
        <p className="note mt-4 bg-tile-soft text-tile-ink">
          {rich(view.unheld ? 'my.prove-first' : 'my.prove', { until, name })}
        </p>
      )}
      {sent && view.state !== 'unproved' && !view.mailProved && (
        <p className="note mt-4 bg-tile-soft text-tile-ink">{say('my.open-mail', { name })}</p>
      )}
      {error && (
        <div className="mt-4">
          <Notice>{error}</Notice>
        </div>
      )}
      {view.late !== undefined && (
        <p className="note mt-4 bg-sun-soft text-sun-ink">{rich('my.late', { name, minutes: view.late })}</p>
      )}
      {moved && <Moved key={`moved ${view.start}`} when={sessionAt(view.start, view.minutes, clocks)} />}
      <section className="sheet mt-4 p-5">
        <h2>{view.service}</h2>
        {!offered && (
          <p className="mt-2 text-[17px]">
            <b>{sessionAt(view.start, view.minutes, clocks)}</b>
            {beside && <span className="block text-[15px] text-soft">{beside}</span>}
          </p>
        )}
        <p className="text-soft">
          {say('my.price', {
            minutes: view.minutes,
            place: view.place,
            price: price.filter(Boolean).join(', '),
          })}
        </p>
        {(view.comes || view.pays) && (
          <p className="text-soft">
            {[
              view.comes ? say('my.comes', { name: view.comes }) : '',
              view.pays ? say('my.pays', { name: view.pays }) : '',
            ]
              .filter(Boolean)
              .join(' ')}
          </p>
        )}
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
        {view.later && (view.state === 'booked' || view.state === 'waiting') && (
          <p className="mt-1 text-soft">{say('summary.address-later', { when: view.later })}</p>
        )}
        {view.text && <p className="mt-3 border-l-4 border-line pl-3 whitespace-pre-line">{view.text}</p>}
        {view.state === 'waiting' && <p className="mt-3">{rich('my.answers-by', { name, until })}</p>}
        {view.state === 'unpaid' && <p className="mt-3">{rich('my.pay-by', { until })}</p>}
        {view.state === 'lapsed' && (
          <p className="mt-3">
            {say(view.lapsedUnpaid ? 'my.not-paid' : view.mailProved ? 'my.no-answer' : 'my.not-opened')}
          </p>
        )}
        {view.state === 'cancelled' && (
          <p className="mt-3">
            {view.cancelledBy === 'practitioner'
              ? say('my.cancelled-by-them', { name })
              : say('my.cancelled-by-you')}{' '}
            {view.share > 0 && view.price > 0 && say('my.due', { share: view.share })}
          </p>
        )}
        {view.state === 'booked' && (
          <div className="note mt-4 bg-sun-soft text-sun-ink empty:hidden">
            {whatHappensWhen(view, view.price, clocks, now, true).map((line) => (
              <p key={line}>{line}</p>
            ))}
          </div>
        )}
      </section>
      {view.question && <AskedBack view={{ ...view, question: view.question }} act={act} busy={busy} />}
      {view.toAgree && <AgreeNow view={view} terms={view.toAgree} act={act} busy={busy} />}
      <ToDoBefore view={view} secret={secret} />
      <BeforeIt view={view} act={act} busy={busy} />
      <Coming view={view} act={act} busy={busy} led={led === 'come'} />
      {view.afterwards && (
        <section className="sheet mt-4 p-5">
          <h2>{say('my.afterwards', { name })}</h2>
          <p className="mt-2 whitespace-pre-line wrap-anywhere empty:hidden">{view.afterwards.text}</p>
          {view.afterwards.address && (
            <a
              className="press mt-3"
              href={view.afterwards.address}
              target="_blank"
              rel="noopener noreferrer"
            >
              {say('my.afterwards-open')}
            </a>
          )}
        </section>
      )}
      <MyMoney view={view} secret={secret} />
      <MyCard view={view} secret={secret} />
      <MyInvoices of={[view]} />
      <WasAgreed view={view} />
      {view.answers && view.answers.length > 0 && (
        <section className="sheet mt-4 p-5">
          <h2>{say('my.answers')}</h2>
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
      {view.move && (
        <MoveMine
          key={`move ${view.start}`}
          led={led === 'move'}
          secret={secret}
          view={{ ...view, move: view.move }}
          act={act}
          busy={busy}
          failed={error !== undefined}
        />
      )}
      {view.state === 'booked' && !view.move && !view.as && now < view.start && (
        <p className="mt-5">
          {say('my.move-late')}{' '}
          <Link className="way" to={`/${view.slug}/write`}>
            {say('services.write')}
          </Link>
        </p>
      )}
      <Exception view={view} act={act} busy={busy} />
      {!view.as && (
        <>
          <WayOut view={view} act={act} busy={busy} led={led === 'cancel'} />
          <WhatIsSent view={view} act={act} busy={busy} led={led === 'unwant'} />
        </>
      )}
      <Others view={view} secret={secret} />
      {view.mailProved && view.as !== 'pays' && (
        <p className="mt-5">
          <Link className="way" to={`/${view.slug}/yours/${secret}`}>
            {say('my.everything')}
          </Link>
        </p>
      )}
      {view.again && (
        <p className="mt-5">
          <Link
            className="way"
            to={`/${view.slug}/${view.again}?with=${secret}`}
            reloadDocument
            onClick={() => bringAlong(view)}
          >
            {say('my.again', { service: view.service })}
          </Link>
        </p>
      )}
      {['declined', 'lapsed', 'withdrawn', 'cancelled'].includes(view.state) && (
        <p className="mt-5">
          <Link className="press" to={`/${view.slug}`}>
            {say('services.see')}
          </Link>
        </p>
      )}
    </div>
  )
}

/** What was given to do before it, on a page of its own. */
function ToDoBefore({ view, secret }: { view: LinkView; secret: string }) {
  const { toDo, slug } = view
  if (!toDo) return null
  return (
    <section className="sheet mt-4 p-5">
      <h2>{toDo.left > 0 ? say('my.to-do', { left: toDo.left }) : say('my.to-do-done')}</h2>
      <Link className={`press mt-3 ${toDo.left > 0 ? 'press-go' : ''}`} to={`/${slug}/yours/${secret}`}>
        {say('my.to-do-open')}
      </Link>
    </section>
  )
}

/** What else is still to come of the same person, on a page of its own each. */
function Others({ view, secret }: { view: LinkView; secret: string }) {
  if (view.others.length === 0) return null
  return (
    <section className="sheet mt-5 p-5">
      <h2>{say('my.others')}</h2>
      <ul className="mt-2 grid gap-2">
        {view.others.map((other) => (
          <li key={other.booking}>
            <Link className="way" to={`/${view.slug}/my/${secret}?booking=${other.booking}`}>
              {other.service}, {sessionAt(other.start, other.minutes, clocksNamed(other.clocks))}
            </Link>
            <span className="block text-[14px] text-soft">
              {say(`my.${other.state}`, { name: view.practitioner })}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** That it was moved; what was pressed is gone, so one goes on here. */
function Moved({ when }: { when: string }) {
  const note = useRef<HTMLParagraphElement>(null)
  useEffect(() => note.current?.focus(), [])
  return (
    <p ref={note} tabIndex={-1} role="status" className="note mt-4 bg-tile-soft text-tile-ink outline-none">
      {rich('my.moved', { when })}
    </p>
  )
}

/** Books once more with what was answered before, unless something else has been begun here already. */
function bringAlong({ again, answersBefore = {} }: LinkView): void {
  if (!again) return
  fillIn(again, { is: 'brought', answers: answersBefore })
}

function Offers({ view, act, busy }: { view: LinkView; act: (act: LinkAct) => void; busy: boolean }) {
  return (
    <section className="mt-5">
      <h2>{say('my.choose')}</h2>
      <p className="text-soft">
        {rich('my.kept', { until: momentAt(view.until, clocksNamed(view.clocks)) })}
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
                {say('my.take', { when: sessionAt(offer.start, view.minutes, clocksNamed(offer.clocks)) })}
                <span className="block text-[13px] font-normal">
                  {besideIt(offer.start, view.minutes, clocksNamed(offer.clocks))}
                </span>
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
        {say('my.none')}
      </button>
    </section>
  )
}
