import { readiness } from '@acolhida/core/booking'
import type { DeskEnquiry } from '@acolhida/core/formats'
import { questionnaireOf, serviceOf } from '@acolhida/core/practice'
import { answerWords } from '@acolhida/core/questions'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { ReadinessTile } from '../../drawings/tile.tsx'
import { useNow } from '../../relay-client/clock.ts'
import { db } from '../data/database.ts'
import { type Desk, useDesk } from '../data/live.ts'
import { OUTCOME, STATUS, serviceName, when } from '../parts/words.ts'

const SHOWN = 40

/** Everybody who has come: requests and what became of them, and messages. */
export function Arrivals() {
  const desk = useDesk()
  const now = useNow()
  const [most, setMost] = useState(SHOWN)
  const enquiries = useLiveQuery(() => db.enquiries.orderBy('at').reverse().toArray()) ?? []
  const arrivals = [...desk.bookings].sort((a, b) => b.asked.at - a.asked.at)
  return (
    <>
      <title>Arrivals · Acolhida</title>
      <h1>Arrivals</h1>
      <p className="mt-1 text-[14px] text-soft">Requests and messages, the newest first</p>
      <div className="mt-6 grid gap-6 lg:grid-cols-[1fr_380px]">
        <section>
          <h2 className="mb-2.5">Requests</h2>
          {arrivals.length === 0 && <p className="sheet p-5">Requests from your door will be listed here.</p>}
          {arrivals.length > 0 && (
            <ul className="sheet divide-y divide-line px-4">
              {arrivals.slice(0, most).map((booking) => {
                const lapsed = booking.status === 'requested' && now > booking.until
                const { person, reading, service } = booking.asked
                return (
                  <li key={booking.id}>
                    <Link
                      to={`/arrivals/${booking.id}`}
                      className="flex flex-wrap items-center gap-x-3 gap-y-1 py-2.5 hover:bg-leaf-soft/30"
                    >
                      <ReadinessTile readiness={readiness(booking)} size={30} />
                      <b>{person.name}</b>
                      <span className="text-[14px] text-soft">{serviceName(desk.practice, service)}</span>
                      <span className={`tag tag-${reading.outcome}`}>{OUTCOME[reading.outcome]}</span>
                      <span className="figures ml-auto text-[14px] text-soft">
                        {when(desk.practice, booking.start)} ·{' '}
                        {lapsed
                          ? STATUS.lapsed
                          : booking.offers.length > 0
                            ? 'Other times offered'
                            : STATUS[booking.status]}
                      </span>
                    </Link>
                  </li>
                )
              })}
            </ul>
          )}
          {arrivals.length > most && (
            <button type="button" className="press mt-3" onClick={() => setMost(most + SHOWN)}>
              Show earlier ones
            </button>
          )}
        </section>
        <section>
          <h2 className="mb-2.5">Messages</h2>
          {enquiries.length === 0 && (
            <p className="sheet p-5">Messages instead of a booking will lie here.</p>
          )}
          <ul className="grid gap-3">
            {enquiries.map((enquiry) => (
              <EnquiryCard key={enquiry.id} desk={desk} enquiry={enquiry} />
            ))}
          </ul>
        </section>
      </div>
    </>
  )
}

function EnquiryCard({ desk, enquiry }: { desk: Desk; enquiry: DeskEnquiry }) {
  const service = enquiry.service ? serviceOf(desk.practice, enquiry.service) : undefined
  const questions = (service && questionnaireOf(desk.practice, service)?.questions) ?? []
  const answered = questions.filter((question) => question.id in enquiry.answers)
  const move = (state: DeskEnquiry['state']): Promise<number> => db.enquiries.update(enquiry.id, { state })
  const subject = encodeURIComponent(service ? `About ${service.name}` : 'Your message')
  return (
    <li className="sheet p-4">
      <div className="flex items-baseline justify-between gap-3">
        <h3>{enquiry.name}</h3>
        <span className={`tag ${enquiry.state === 'open' ? 'tag-look' : 'tag-info'}`}>{enquiry.state}</span>
      </div>
      <p className="text-[14px] text-soft">
        {when(desk.practice, enquiry.at)}
        {service ? ` · about ${service.name}` : ''}
      </p>
      <p className="mt-2 whitespace-pre-line wrap-anywhere">{enquiry.message}</p>
      {answered.length > 0 && (
        <details className="mt-2 text-[14px]">
          <summary className="cursor-pointer font-semibold">What was answered before</summary>
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
      <div className="mt-3 flex flex-wrap gap-2">
        <a
          className="press"
          href={`mailto:${encodeURIComponent(enquiry.email)}?subject=${subject}`}
          onClick={() => enquiry.state === 'open' && move('answered')}
        >
          Answer by mail
        </a>
        {enquiry.state !== 'ended' && (
          <button type="button" className="press press-quiet" onClick={() => move('ended')}>
            Close it
          </button>
        )}
        {enquiry.state === 'ended' && (
          <button type="button" className="press press-quiet" onClick={() => move('open')}>
            Open it again
          </button>
        )}
      </div>
    </li>
  )
}
