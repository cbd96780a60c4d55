import { comesAndAsks, isEnded, stateAt } from '@acolhida/core/booking'
import { standingFrom } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import { dateWords, formatInstant, type Instant } from '@acolhida/core/time'
import { lazy, type ReactNode, Suspense, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { type Desk, useDesk } from '../data/live.ts'
import type { BookingRow, PersonRow } from '../data/rows.ts'
import { PageHead } from '../parts/page-head.tsx'
import { asUri } from '../parts/uri.ts'
import { bookingLine, serviceName, standingWords, when } from '../parts/words.ts'
import { EndSessions } from '../planning/end-sessions.tsx'
import { MoveSessions } from '../planning/move-sessions.tsx'
import { ToPrepareOf } from '../preparing/theirs.tsx'
import { Card } from '../request/card.tsx'
import { LinesOf } from '../waiting/lines-of.tsx'
import { PutInLine } from '../waiting/put-in-line.tsx'
import { AboutPerson } from './about-person.tsx'
import { AllOfTheirsCards, type TheirsAtHand, useAllOfTheirs } from './all-of-theirs.tsx'
import { cameWords, clockWords } from './came-words.ts'
import { Counts } from './counts.tsx'
import { FollowUps } from './follow-ups.tsx'
import { ForgetDialog } from './forget-dialog.tsx'
import { PrivateNote } from './private-note.tsx'
import { Replies } from './replies.tsx'
import { SaveThem } from './save-them.tsx'
import { usePerson } from './use-person.ts'
import { wentWords } from './went-words.ts'

// Lines are drawn by a library of their own, loaded where somebody has been asked twice.
const AnswersOverTime = lazy(async () => ({ default: (await import('./over-time.tsx')).AnswersOverTime }))

/** Somebody, and everything there is with them. */
export function PersonPage() {
  const desk = useDesk()
  const { id = '' } = useParams()
  const found = usePerson(id)
  const [about, setAbout] = useState(false)
  const [waits, setWaits] = useState(false)
  const [forgets, setForgets] = useState(false)
  const go = useNavigate()
  const now = useMinute()
  const all = useAllOfTheirs(found?.person)
  if (!found) return <p className="text-soft">One moment …</p>
  const { person, bookings, asked } = found
  if (!person) {
    return (
      <PageHead
        title="Nobody"
        heading="There is nobody here"
        line="They may have been joined with somebody else."
      >
        <Link className="press" to="/people">
          See everybody
        </Link>
      </PageHead>
    )
  }
  const known = standingFrom(person.knownFrom, now) === 'known'
  const went = wentWords(bookings, now)
  return (
    <>
      <PageHead
        title={person.name}
        line={[
          person.pronouns ?? '',
          person.stage ?? '',
          known ? 'Known' : 'New',
          person.blocked ? 'may not book' : '',
          went,
        ]
          .filter(Boolean)
          .join(' · ')}
      >
        {person.emails.length > 0 && (
          <Link className="press" to={`/people/${person.id}/plan`}>
            Plan ahead
          </Link>
        )}
        <button type="button" className="press" onClick={() => setWaits(true)}>
          Put them in line…
        </button>
        <button type="button" className="press" onClick={() => setAbout(true)}>
          Change what I keep about them
        </button>
        <button type="button" className="press press-no" onClick={() => setForgets(true)}>
          Forget them…
        </button>
      </PageHead>
      <div className="mt-5 grid gap-5 lg:grid-cols-[1fr_380px]">
        <div className="grid h-fit gap-4">
          <Bookings desk={desk} bookings={bookings} />
          {asked.length > 0 && (
            <BookingList
              practice={desk.practice}
              title="Asked for by others"
              nothing=""
              of={asked.toSorted((a, b) => b.start - a.start).slice(0, SHOWN)}
              whose
            />
          )}
          <Suspense>
            <AnswersOverTime practice={desk.practice} bookings={bookings} />
          </Suspense>
          {all && <AllOfTheirsCards practice={desk.practice} all={all} />}
        </div>
        <div className="grid h-fit gap-4">
          <Kept desk={desk} person={person} all={all} />
          <Counts practice={desk.practice} person={person} bookings={bookings} />
          <ToPrepareOf practice={desk.practice} person={person} bookings={bookings} />
          <FollowUps desk={desk} person={person} />
          <LinesOf practice={desk.practice} person={person} />
          <PrivateNote key={person.id} person={person} />
          <Replies desk={desk} person={person} />
        </div>
      </div>
      {waits && (
        <PutInLine
          desk={desk}
          about={{
            name: person.name,
            email: person.emails[0] ?? '',
            ...(person.phone ? { phone: person.phone } : {}),
          }}
          close={() => setWaits(false)}
        />
      )}
      {forgets && (
        <ForgetDialog
          practice={desk.practice}
          person={person}
          close={() => setForgets(false)}
          then={() => go('/people')}
        />
      )}
      {about && <AboutPerson desk={desk} person={person} close={() => setAbout(false)} />}
    </>
  )
}

/** How many bookings are listed before one asks for the rest. */
const SHOWN = 20

function Bookings({ desk, bookings }: { desk: Desk; bookings: readonly BookingRow[] }) {
  const { practice } = desk
  const now = useMinute()
  const [all, setAll] = useState(false)
  const inOrder = [...bookings].sort((a, b) => b.start - a.start)
  const coming = inOrder.filter((booking) => booking.start > now && !isGone(booking, now))
  const past = inOrder.filter((booking) => !coming.includes(booking))
  const booked = coming.filter(({ status }) => status === 'booked').reverse()
  const [does, setDoes] = useState<'move' | 'end'>()
  const shown = all ? past : past.slice(0, SHOWN)
  return (
    <div className="grid h-fit gap-4">
      <BookingList
        practice={practice}
        title="To come"
        nothing="Nothing is booked or asked for."
        of={coming.reverse()}
      >
        {booked.length > 1 && (
          <>
            <button type="button" className="press press-quiet mt-1" onClick={() => setDoes('move')}>
              Move sessions from one on…
            </button>
            <button type="button" className="press press-quiet mt-1" onClick={() => setDoes('end')}>
              End sessions from one on…
            </button>
          </>
        )}
      </BookingList>
      {does === 'move' && <MoveSessions desk={desk} coming={booked} close={() => setDoes(undefined)} />}
      {does === 'end' && <EndSessions practice={practice} coming={booked} close={() => setDoes(undefined)} />}
      <BookingList practice={practice} title="Before" nothing="Nothing yet." of={shown} />
      {shown.length < past.length && (
        <button type="button" className="press justify-self-start" onClick={() => setAll(true)}>
          Show all {past.length}
        </button>
      )}
    </div>
  )
}

function BookingList({
  practice,
  title,
  nothing,
  of,
  whose = false,
  children,
}: {
  practice: Practice
  title: string
  nothing: string
  of: BookingRow[]
  /** Whether it is told who comes, and who asked. */
  whose?: boolean
  children?: ReactNode
}) {
  const now = useMinute()
  return (
    <section className="sheet px-[18px] py-4">
      <h2>{title}</h2>
      {of.length === 0 && <p className="mt-1.5 text-soft">{nothing}</p>}
      <ul className="mt-1.5 divide-y divide-line">
        {of.map((booking) => (
          <li key={booking.id} className="grid gap-x-4 py-2 sm:grid-cols-[150px_1fr_auto]">
            <time className="figures" dateTime={formatInstant(booking.start)}>
              {when(practice, booking.start)}
            </time>
            <span className="min-w-0">
              <Link
                className="font-semibold underline-offset-3 hover:underline"
                to={`/arrivals/${booking.id}`}
              >
                {serviceName(practice, booking.service)}
              </Link>
              <span className="block text-[14px] text-soft">
                {whose && `${comesAndAsks(booking)} · `}
                {bookingLine(practice, booking)}
              </span>
            </span>
            <span className="text-[14px] text-soft">{standingWords(booking, now)}</span>
          </li>
        ))}
      </ul>
      {children}
    </section>
  )
}

/** Whether it takes no time any more. */
const isGone = (booking: BookingRow, now: Instant): boolean => isEnded(stateAt(booking, now))

/** What the practitioner keeps about somebody. */
function Kept({
  desk: { practice },
  person,
  all,
}: {
  desk: Desk
  person: PersonRow
  all: TheirsAtHand | undefined
}) {
  const { emails, phone, allTags, note, invited, approval, birthday, stages = [] } = person
  return (
    <Card title="Kept about them">
      <ul className="mt-2 grid gap-1 text-[14px] wrap-anywhere">
        {emails.map((email) => (
          <li key={email}>
            <a className="way" href={`mailto:${asUri(email)}`}>
              {email}
            </a>
          </li>
        ))}
        {phone && (
          <li>
            <a className="way" href={`tel:${phone.replaceAll(/[^\d+]/g, '')}`}>
              {phone}
            </a>
          </li>
        )}
        {birthday && <li>Born on {dateWords(birthday)}</li>}
        {all &&
          [...clockWords(all.everything), ...cameWords(practice, person, all.everything)].map((words) => (
            <li key={words}>{words}</li>
          ))}
        {approval && (
          <li className="font-semibold">
            {approval === 'ask' ? 'Every request of theirs waits for my word' : 'What fits goes straight in'}
          </li>
        )}
        {invited.length > 0 && (
          <li>Invited to {invited.map((service) => serviceName(practice, service)).join(', ')}</li>
        )}
        {allTags.length > 0 && <li>{allTags.map((tag) => `“${tag}”`).join(' ')}</li>}
        {note && <li className="mt-1 whitespace-pre-line">{note}</li>}
      </ul>
      {stages.length > 0 && (
        <ol
          className="mt-3 grid gap-1 border-t border-line pt-2 text-[14px]"
          aria-label="How far you have come"
        >
          {stages.map(({ at, stage }) => (
            <li key={at} className="grid grid-cols-[120px_1fr] gap-2">
              <time className="figures text-soft" dateTime={formatInstant(at)}>
                {when(practice, at)}
              </time>
              <span className="wrap-anywhere">{stage || 'no word any more'}</span>
            </li>
          ))}
        </ol>
      )}
      <SaveThem practice={practice} person={person} />
    </Card>
  )
}
