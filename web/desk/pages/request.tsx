import { type Attempt, type Booking, readiness, wordNeeded } from '@acolhida/core/booking'
import type { SentMail } from '@acolhida/core/formats'
import { money } from '@acolhida/core/money'
import { questionnaireOf, serviceOf } from '@acolhida/core/practice'
import { type Answers, answerWords, asked, type Question } from '@acolhida/core/questions'
import { dateAt, formatInstant, lengthOf, moment, shortDate, span, timeAt } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { type ReactNode, useState } from 'react'
import { Link, useParams } from 'react-router'
import { LeadLine } from '../../drawings/lead-line.tsx'
import { ReadinessTile } from '../../drawings/tile.tsx'
import { useNow } from '../../relay-client/clock.ts'
import { db } from '../data/database.ts'
import { bookingsOf, type Desk, personOf, useDesk } from '../data/live.ts'
import { Move } from '../diary/move.tsx'
import { Decide } from '../parts/decide.tsx'
import {
  bookingLine,
  currencyOf,
  endOf,
  homeZone,
  marksOf,
  OUTCOME,
  STATUS,
  serviceName,
  when,
} from '../parts/words.ts'
import { decideFor } from '../sync/acts.ts'

/** One request: its lead line, answers, reasons, agreement, and what can be said to it. */
export function RequestPage() {
  const desk = useDesk()
  const now = useNow()
  const { id = '' } = useParams()
  const booking = desk.bookings.find((one) => one.id === id)
  const mails = useLiveQuery(() => db.mails.where('booking').equals(id).toArray(), [id]) ?? []
  if (!booking) {
    return (
      <>
        <h1>This request is not here</h1>
        <p className="mt-3">
          <Link className="way" to="/arrivals">
            See all arrivals
          </Link>
        </p>
      </>
    )
  }
  const { practice } = desk
  const where = homeZone(practice)
  const { person } = booking.asked
  return (
    <>
      <title>{`${person.name} · Acolhida`}</title>
      <header className="flex flex-wrap items-start justify-between gap-4 lg:flex-nowrap">
        <div className="flex min-w-0 items-center gap-4">
          <ReadinessTile readiness={readiness(booking)} size={58} />
          <div>
            <h1 className="wrap-anywhere">{person.name}</h1>
            <p className="mt-1 max-w-[560px] text-[14px] text-soft">
              <b className="text-ink">
                {shortDate(dateAt(where, booking.start))}, {span(booking.start, endOf(booking), where)}
              </b>{' '}
              · {serviceName(practice, booking.asked.service)} · {bookingLine(practice, booking)}
            </p>
          </div>
        </div>
        <div className="shrink-0 lg:pt-3">
          <Decide desk={desk} booking={booking} full />
        </div>
      </header>
      <State desk={desk} booking={booking} />
      <section className="sheet mt-5 px-4 pt-3 pb-2" aria-label="Deadlines">
        <LeadLine marks={marksOf(practice, booking)} now={now} zone={where} />
      </section>
      <div className="mt-[18px] grid gap-5 lg:grid-cols-[1fr_380px]">
        <AnswersCard desk={desk} booking={booking} />
        <div className="grid h-fit gap-4">
          <Reasons desk={desk} booking={booking} />
          <Quote booking={booking} />
          <Agreed desk={desk} booking={booking} />
          <Before desk={desk} booking={booking} />
          <Messages desk={desk} mails={mails} />
        </div>
      </div>
    </>
  )
}

const Card = ({ title, children, aside }: { title: string; children: ReactNode; aside?: ReactNode }) => (
  <section className="sheet px-[18px] py-4">
    <div className="flex items-baseline justify-between gap-3">
      <h2>{title}</h2>
      {aside && <span className="text-[13px] text-soft">{aside}</span>}
    </div>
    {children}
  </section>
)

/** What has become of it, when it no longer simply waits. */
function State({ desk, booking }: { desk: Desk; booking: Booking }) {
  const now = useNow()
  const [moving, setMoving] = useState(false)
  const { practice } = desk
  if (booking.status === 'requested' && booking.offers.length === 0 && now <= booking.until) return null
  const lapsed = booking.status === 'requested' && now > booking.until
  const offered = booking.status === 'requested' && !lapsed
  return (
    <div className="note mt-4 flex flex-wrap items-center justify-between gap-3 bg-tile-soft text-tile-ink">
      <span>
        <b>{lapsed ? STATUS.lapsed : offered ? 'Other times offered' : STATUS[booking.status]}.</b>{' '}
        {offered &&
          `${booking.offers.map((one) => when(practice, one.start)).join(' · ')}. Kept until ${when(practice, booking.until)}.`}
        {booking.cancelledBy && `By the ${booking.cancelledBy}; ${booking.share} % of the price is due.`}
        {booking.text && ` “${booking.text}”`}
      </span>
      {booking.status === 'booked' && now < booking.start && (
        <span className="flex gap-2">
          <button type="button" className="press" onClick={() => setMoving(true)}>
            Move…
          </button>
          <button
            type="button"
            className="press press-no"
            onClick={() => decideFor(booking.id, { do: 'cancel', by: 'practitioner', text: '' })}
          >
            Cancel this session, free for {booking.asked.person.name}
          </button>
        </span>
      )}
      {moving && <Move desk={desk} booking={booking} close={() => setMoving(false)} />}
    </div>
  )
}

function AnswersCard({ desk, booking }: { desk: Desk; booking: Booking }) {
  const { questionnaire, answers, reading, attempts, at, standing } = booking.asked
  const service = serviceOf(desk.practice, booking.asked.service)
  const current = service && questionnaireOf(desk.practice, service)
  const all = current?.id === questionnaire?.id ? (current?.questions ?? []) : []
  const asking = { standing, invited: false, tags: [], attempts: attempts.length }
  const shown = asked(all, answers, asking).questions
  const mattered = new Map(
    reading.reasons.flatMap((reason) => reason.questions.map((id) => [id, reason.outcome] as const)),
  )
  const first = Math.min(at, ...attempts.map((attempt) => attempt.at))
  const aside = [
    questionnaire ? `Questions v${questionnaire.version}` : '',
    first < at ? `first answered ${lengthOf(at - first)} before` : '',
    booking.mailProved ? 'mail address proved' : 'mail address not proved yet',
  ]
  return (
    <Card title="Answers" aside={aside.filter(Boolean).join(' · ')}>
      {shown.length === 0 && <p className="mt-2 text-soft">Nothing was asked.</p>}
      <dl>
        {shown.map((question) => {
          const outcome = mattered.get(question.id)
          return (
            <div key={question.id} className="border-t border-line py-2.5 first:mt-1.5 first:border-0">
              <dt className="text-[14px] text-soft">{question.text}</dt>
              <dd className="flex items-start justify-between gap-4">
                <span className="max-w-[520px] whitespace-pre-line wrap-anywhere">
                  {answerWords(question, answers[question.id])}
                </span>
                {outcome && outcome !== 'fits' && (
                  <span className={`tag tag-${outcome}`}>{OUTCOME[outcome].toLowerCase()}</span>
                )}
              </dd>
            </div>
          )
        })}
      </dl>
      {attempts.map((attempt) => (
        <Earlier key={attempt.at} attempt={attempt} questions={all} answers={answers} desk={desk} />
      ))}
    </Card>
  )
}

/** What was answered before, where it differed. */
function Earlier({
  attempt,
  questions,
  answers,
  desk,
}: {
  attempt: Attempt
  questions: Question[]
  answers: Answers
  desk: Desk
}) {
  const differing = questions.filter(
    (one) => JSON.stringify(attempt.answers[one.id]) !== JSON.stringify(answers[one.id]),
  )
  return (
    <section className="note mt-3 bg-sun-soft text-sun-ink">
      <h3>
        Before that, at {timeAt(homeZone(desk.practice), attempt.at)}:{' '}
        {OUTCOME[attempt.outcome].toLowerCase()}
      </h3>
      <dl className="mt-1 text-[14px]">
        {differing.map((question) => (
          <div key={question.id} className="mt-1">
            <dt>{question.text}</dt>
            <dd className="font-semibold">{answerWords(question, attempt.answers[question.id])}</dd>
          </div>
        ))}
      </dl>
    </section>
  )
}

function Reasons({ desk, booking }: { desk: Desk; booking: Booking }) {
  const service = serviceOf(desk.practice, booking.asked.service)
  const word = service && wordNeeded(service, booking.asked.standing, booking.asked.reading)
  const { reasons, outcome } = booking.asked.reading
  return (
    <Card title="Why it came to you" aside={<span className={`tag tag-${outcome}`}>{OUTCOME[outcome]}</span>}>
      <ol className="mt-2 grid list-decimal gap-2 pl-[18px]">
        {reasons.map((reason) => (
          <li key={`${reason.rule} ${reason.name}`}>
            {reason.note || reason.name}
            {reason.rule && <div className="text-[14px] text-soft">Your rule “{reason.name}”</div>}
          </li>
        ))}
        {word && !booking.asked.byHand && <li>{word}</li>}
        {booking.asked.byHand && <li>You booked them in by hand.</li>}
        {!booking.asked.byHand && reasons.length === 0 && !word && (
          <li>Nothing spoke against it; it went straight in.</li>
        )}
      </ol>
    </Card>
  )
}

function Quote({ booking }: { booking: Booking }) {
  const { quote } = booking.asked.reading
  const currency = currencyOf(booking.asked.currency)
  if (quote.price === 0) return null
  return (
    <Card title="Quote" aside={`${quote.minutes} min`}>
      <dl className="figures mt-2 grid gap-1">
        {quote.lines.map((line) => (
          <div key={line.name} className="flex justify-between gap-4">
            <dt>
              {line.quantity > 1 ? `${line.quantity} × ` : ''}
              {line.name}
            </dt>
            <dd>{money(line.amount, currency)}</dd>
          </div>
        ))}
        <div className="flex justify-between gap-4 border-t border-line pt-1 font-bold">
          <dt>Total</dt>
          <dd>{money(quote.price, currency)}</dd>
        </div>
      </dl>
    </Card>
  )
}

function Agreed({ desk, booking }: { desk: Desk; booking: Booking }) {
  const { agreements } = booking.asked
  const title = (terms: string, version: number): string =>
    desk.practice.terms.find((one) => one.id === terms)?.versions.find((one) => one.number === version)
      ?.title ?? terms
  return (
    <Card title="Agreed to">
      {agreements.length === 0 && <p className="mt-2 text-soft">There were no terms to agree to.</p>}
      {agreements.map((agreement) => (
        <div key={agreement.fingerprint} className="mt-2">
          {title(agreement.terms, agreement.version)}, version {agreement.version}
          <div className="text-[14px] text-soft">
            <time dateTime={formatInstant(agreement.at)}>
              {moment(agreement.at, homeZone(desk.practice))}
            </time>{' '}
            · typed “{agreement.name}”
            <br />
            fingerprint{' '}
            <span className="figures">
              {agreement.fingerprint.slice(0, 4)} {agreement.fingerprint.slice(4, 8)} …{' '}
              {agreement.fingerprint.slice(-4)}
            </span>
          </div>
        </div>
      ))}
    </Card>
  )
}

function Before({ desk, booking }: { desk: Desk; booking: Booking }) {
  const person = personOf(desk.people, booking)
  const others = person ? bookingsOf(desk.bookings, person).filter((one) => one.id !== booking.id) : []
  const { email, phone } = booking.asked.person
  return (
    <Card title="Before, with you">
      <p className="mt-1.5 text-[14px] wrap-anywhere">
        <a className="way" href={`mailto:${encodeURIComponent(email)}`}>
          {email}
        </a>
        {phone && <span className="text-soft"> · {phone}</span>}
      </p>
      {others.length === 0 && <p className="mt-1.5 text-[14px] text-soft">No earlier requests.</p>}
      <ul className="mt-1.5 grid gap-1 text-[14px]">
        {others.slice(0, 6).map((one) => (
          <li key={one.id}>
            <Link className="way" to={`/arrivals/${one.id}`}>
              {when(desk.practice, one.start)}
            </Link>{' '}
            {serviceName(desk.practice, one.asked.service)} · {STATUS[one.status].toLowerCase()}
          </li>
        ))}
      </ul>
    </Card>
  )
}

const MAIL: Record<SentMail['state'], string> = {
  waiting: 'waits',
  sent: 'sent',
  failed: 'could not be sent',
  'taken-back': 'taken back',
}

function Messages({ desk, mails }: { desk: Desk; mails: SentMail[] }) {
  if (mails.length === 0) return null
  return (
    <Card title="Messages">
      <ul className="mt-1.5 grid gap-1 text-[14px]">
        {mails.map((mail) => (
          <li key={mail.n}>
            {mail.subject}
            <span className={mail.state === 'failed' ? 'text-clay' : 'text-soft'}>
              {' '}
              · {MAIL[mail.state]} {when(desk.practice, mail.at)}
              {mail.reason ? ` (${mail.reason})` : ''}
            </span>
          </li>
        ))}
      </ul>
    </Card>
  )
}
