import type { EnquiryNews } from '@acolhida/core/contract'
import type { DeskEnquiry } from '@acolhida/core/formats'
import { quoteDrafts, quoteStepWords } from '@acolhida/core/messages'
import { money } from '@acolhida/core/money'
import { questionnaireOf, serviceOf } from '@acolhida/core/practice'
import { answerWords } from '@acolhida/core/questions'
import { type ReactNode, useEffect, useRef, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { relayNow, useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { BookIn } from '../diary/book-in.tsx'
import { stepTitle } from '../messages/titles.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { currencyOf, OUTCOME, when } from '../parts/words.ts'
import { answerEnquiry } from '../sync/acts.ts'
import { QuoteDialog } from './quote-dialog.tsx'
import { WhyNot } from './why-not.tsx'

/** Somebody who has written, or spoken, instead of booking: answered, quoted, booked, or ended. */
export function EnquiryCard({ desk, enquiry }: { desk: Desk; enquiry: DeskEnquiry }) {
  const [doing, setDoing] = useState<'quote' | 'book' | { begin: string }>()
  const service = enquiry.service ? serviceOf(desk.practice, enquiry.service) : undefined
  const questions = (service && questionnaireOf(desk.practice, service)?.questions) ?? []
  const answered = questions.filter((question) => question.id in enquiry.answers)
  /** An answer being written, and what it began with. */
  const answering = typeof doing === 'object' ? doing : undefined
  const act = useAct()
  const now = useMinute()
  const drafts = quoteDrafts(desk.practice, enquiry.history ?? [], now)
  const meant = useLocation().hash === `#enquiry-${enquiry.id}`
  const card = useRef<HTMLLIElement>(null)
  useEffect(() => {
    // Whoever comes by a link to this one is led to it.
    if (meant) card.current?.focus()
  }, [meant])
  const quoted = enquiry.history?.findLast(({ quote }) => quote)?.quote?.service
  const held = desk.intentions.find((intention) => intention.booking === enquiry.id && !intention.refused)
  const move = (state: DeskEnquiry['state']): Promise<number> => db.enquiries.update(enquiry.id, { state })
  return (
    <li ref={card} className="sheet p-4" tabIndex={-1}>
      <div className="flex items-baseline justify-between gap-3">
        <h3>{enquiry.name}</h3>
        <span className={`tag ${enquiry.state === 'open' ? 'tag-look' : 'tag-info'}`}>{enquiry.state}</span>
      </div>
      <p className="text-[14px] text-soft">
        {when(desk.practice, enquiry.at)}
        {service ? ` · about ${service.name}` : ''}
        {enquiry.byHand ? ' · begun by you' : ''}
      </p>
      {enquiry.message && (
        <p className="mt-2 whitespace-pre-line wrap-anywhere" dir="auto">
          {enquiry.message}
        </p>
      )}
      <WhyNot practice={desk.practice} enquiry={enquiry} />
      {answered.length > 0 && (
        <details className="mt-2 text-[14px]">
          <summary className="cursor-pointer font-semibold">What was answered</summary>
          <dl className="mt-1">
            {answered.map((question) => (
              <div key={question.id} className="mt-1">
                <dt className="text-soft">{question.text}</dt>
                <dd className="wrap-anywhere">{answerWords(question, enquiry.answers[question.id])}</dd>
              </div>
            ))}
          </dl>
        </details>
      )}
      {enquiry.attempts.length > 0 && (
        <p className="mt-1 text-[14px] text-soft">
          {enquiry.attempts.length} {enquiry.attempts.length === 1 ? 'set' : 'sets'} of answers in this visit:{' '}
          {enquiry.attempts
            .map((attempt) => OUTCOME[attempt.outcome as keyof typeof OUTCOME].toLowerCase())
            .join(', ')}
        </p>
      )}
      <ul>
        {(enquiry.history ?? []).map((news) => (
          <li key={`${news.at} ${news.news}`} className="mt-2 border-l-4 border-line pl-3 text-[14px]">
            <Told desk={desk} news={news} />
          </li>
        ))}
      </ul>
      {held && <p className="mt-2 text-[14px] text-soft">Not gone out yet.</p>}
      {!answering &&
        drafts.map((draft) => (
          <p
            key={draft.step}
            className="note mt-2 flex flex-wrap items-center justify-between gap-2 bg-leaf-soft"
          >
            <span>“{stepTitle(desk.practice, draft.step)}” is laid before you.</span>
            <button
              type="button"
              className="press press-quiet"
              onClick={() =>
                setDoing({ begin: quoteStepWords(desk.practice, enquiry, quoted ?? '', draft)?.body ?? '' })
              }
            >
              Look at it
            </button>
          </p>
        ))}
      {answering ? (
        <AnswerForm
          enquiry={enquiry}
          begin={answering.begin}
          link={quoted !== undefined}
          close={() => setDoing(undefined)}
        />
      ) : (
        <div className="mt-3 flex flex-wrap gap-2">
          {enquiry.state !== 'ended' ? (
            <>
              <Act onClick={() => setDoing({ begin: '' })}>Answer …</Act>
              <Act onClick={() => setDoing('quote')}>Send a quote …</Act>
              <Act onClick={() => setDoing('book')}>Book them in …</Act>
              <button
                type="button"
                className="press press-quiet"
                onClick={() => act.run(() => move('ended'))}
              >
                End it
              </button>
            </>
          ) : (
            <button type="button" className="press press-quiet" onClick={() => act.run(() => move('open'))}>
              Open it again
            </button>
          )}
        </div>
      )}
      <ProblemNote of={act} />
      {doing === 'quote' && <QuoteDialog desk={desk} enquiry={enquiry} close={() => setDoing(undefined)} />}
      {doing === 'book' && (
        <BookIn
          desk={desk}
          service={enquiry.service ?? desk.practice.services[0]!.id}
          at={relayNow()}
          about={enquiry}
          booked={() => move('booked')}
          close={() => setDoing(undefined)}
        />
      )}
    </li>
  )
}

const Act = ({ onClick, children }: { onClick: () => void; children: ReactNode }) => (
  <button type="button" className="press" onClick={onClick}>
    {children}
  </button>
)

/** One thing that was said or sent. */
function Told({ desk, news }: { desk: Desk; news: EnquiryNews }) {
  const at = when(desk.practice, news.at)
  if (news.news === 'booked')
    return (
      <Link className="way" to={`/arrivals/${news.booking}`}>
        Accepted and booked {at}
      </Link>
    )
  return (
    <>
      <span className="text-soft">
        {news.quote
          ? `Quote sent ${news.by ? 'by text message ' : ''}${at}: ${news.quote.minutes} min, ${money(news.quote.price, currencyOf(news.quote.currency))}, until ${when(desk.practice, news.quote.until)}`
          : `Answered ${at}`}
      </span>
      {news.text && <span className="block whitespace-pre-line">{news.text}</span>}
    </>
  )
}

/** An answer by mail; what is typed stays until it has been sent or put aside. */
function AnswerForm({
  enquiry,
  begin,
  link,
  close,
}: {
  enquiry: DeskEnquiry
  /** What it begins with. */
  begin: string
  /** Whether there is a quote that a link can lead to. */
  link: boolean
  close: () => void
}) {
  const [text, setText] = useState(begin)
  const act = useAct()
  return (
    <form
      className="mt-3 grid gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!text.trim()) return
        act.run(() => answerEnquiry(enquiry.id, text.trim()), close)
      }}
    >
      <PlainField label={`Your answer to ${enquiry.name}`} rows={4} value={text} onChange={setText} />
      {text.includes('{link}') && (
        <p className="text-[13px] text-soft">
          {'{link}'} becomes {link ? 'the link to their quote' : 'the address of your door'}.
        </p>
      )}
      <ProblemNote of={act} />
      <span className="flex gap-2">
        <button type="submit" className="press press-go" disabled={!text.trim()}>
          Send the answer
        </button>
        <button type="button" className="press press-quiet" onClick={close}>
          Leave it
        </button>
      </span>
    </form>
  )
}
