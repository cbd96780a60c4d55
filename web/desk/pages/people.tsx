import { type Person, standingAt, tagsOf } from '@acolhida/core/people'
import { useState } from 'react'
import { Link } from 'react-router'
import { useNow } from '../../relay-client/clock.ts'
import { join } from '../data/change.ts'
import { db } from '../data/database.ts'
import { bookingsOf, type Desk, useDesk } from '../data/live.ts'
import { Dialog } from '../parts/dialog.tsx'
import { when } from '../parts/words.ts'
import { AboutPerson } from './about-person.tsx'

/** Everybody who has asked, known by their mail address. */
export function People() {
  const desk = useDesk()
  const now = useNow()
  const [search, setSearch] = useState('')
  const [joining, setJoining] = useState<Person>()
  const [about, setAbout] = useState<Person | 'new'>()
  const found = desk.people
    .filter((one) => `${one.name} ${one.emails.join(' ')}`.toLowerCase().includes(search.toLowerCase()))
    .sort((a, b) => a.name.localeCompare(b.name))
  return (
    <>
      <title>People · Acolhida</title>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1>People</h1>
          <p className="mt-1 text-[14px] text-soft">New until a first session took place, then known</p>
        </div>
        <div className="flex gap-2.5">
          <button type="button" className="press" onClick={() => setAbout('new')}>
            Invite somebody
          </button>
          <label htmlFor="people-search" className="sr-only">
            Search by name or mail address
          </label>
          <input
            id="people-search"
            className="field w-64"
            placeholder="Name or mail address"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
      </header>
      {found.length === 0 && (
        <p className="sheet mt-6 p-5">
          {search ? 'Nobody of that name.' : 'People who ask for your time will be listed here.'}
        </p>
      )}
      {found.length > 0 && (
        <ul className="sheet mt-6 max-w-[860px] divide-y divide-line px-4">
          {found.map((person) => {
            const bookings = bookingsOf(desk.bookings, person)
            const standing = standingAt(bookings, now)
            return (
              <li key={person.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2.5">
                <b className="min-w-40">{person.name}</b>
                <span className="text-[14px] text-soft wrap-anywhere">{person.emails.join(', ')}</span>
                <span className={`tag ${standing === 'known' ? 'tag-fits' : 'tag-info'}`}>{standing}</span>
                {person.blocked && <span className="tag tag-closed">may not book</span>}
                {tagsOf(person, bookings).map((tag) => (
                  <span key={tag} className="text-[13px] text-soft">
                    “{tag}”
                  </span>
                ))}
                <span className="ml-auto text-[14px] text-soft">
                  {bookings[0] && (
                    <Link className="way" to={`/arrivals/${bookings[0].id}`}>
                      {when(desk.practice, bookings[0].start)}
                    </Link>
                  )}
                </span>
                <button type="button" className="press press-quiet" onClick={() => setAbout(person)}>
                  About them …
                </button>
                <button type="button" className="press press-quiet" onClick={() => setJoining(person)}>
                  Join with …
                </button>
              </li>
            )
          })}
        </ul>
      )}
      {about && (
        <AboutPerson
          desk={desk}
          person={about === 'new' ? undefined : about}
          close={() => setAbout(undefined)}
        />
      )}
      {joining && <Joining desk={desk} person={joining} close={() => setJoining(undefined)} />}
    </>
  )
}

function Joining({ desk, person, close }: { desk: Desk; person: Person; close: () => void }) {
  const [other, setOther] = useState('')
  const second = desk.people.find((one) => one.id === other)
  return (
    <Dialog title={`Join ${person.name} with somebody`} close={close}>
      <p className="text-soft">
        When one person wrote from two addresses. {person.name} stays; the other’s addresses and bookings come
        along.
      </p>
      <label className="ask mt-3" htmlFor="join-other">
        The same person as
      </label>
      <select
        id="join-other"
        className="field mt-1"
        value={other}
        onChange={(event) => setOther(event.target.value)}
      >
        <option value="">Choose …</option>
        {desk.people
          .filter((one) => one.id !== person.id)
          .map((one) => (
            <option key={one.id} value={one.id}>
              {one.name} · {one.emails.join(', ')}
            </option>
          ))}
      </select>
      <button
        type="button"
        className="press press-go mt-4"
        disabled={!second}
        onClick={() => {
          if (second) join(db, person, second)
          close()
        }}
      >
        Join them
      </button>
    </Dialog>
  )
}
