import { comesAndAsks, hasBegun, isHeld, isPlaced, stateAt } from '@acolhida/core/booking'
import type { Entry } from '@acolhida/core/openings'
import { placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import { instantOf, moment } from '@acolhida/core/time'
import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import { relayNow, useAt } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import type { Taken } from '../data/taken.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { type GoesWith, goingWith, WordOrSilence } from '../parts/word.tsx'
import { standingWords } from '../parts/words.ts'
import { withService } from '../service/with-service.ts'
import { callOffFor } from '../sync/together.ts'

const WriteTo = lazy(async () => ({ default: (await import('../messages/write-to.tsx')).WriteTo }))

/** Who comes to a group session; and the way to call it off. */
export function GroupSession({
  desk,
  taken,
  entry,
  close,
}: {
  desk: Desk
  taken: Taken
  entry: Entry
  close: () => void
}) {
  const { practice } = desk
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const [writing, setWriting] = useState(false)
  const act = useAct()
  // A session that begins is nothing to be called off any more.
  const begun = useAt((now) => hasBegun(entry, now))
  const service = serviceOf(practice, entry.service ?? '')
  const where = zoneOf(practice, placeOf(practice, entry.place ?? ''))
  if (!service || !entry.place) return null
  const session = { service: service.id, place: entry.place, start: entry.start }
  const now = relayNow()
  const here = taken.rows
    .filter(
      (row) => row.service === session.service && row.start === session.start && row.place === session.place,
    )
    .map((booking) => ({ booking, state: stateAt(booking, now) }))
    .filter(({ state }) => isHeld(state) || isPlaced(state))
  const date = service.groupDates.find(
    (groupDate) => groupDate.place === session.place && instantOf(where, groupDate.start) === session.start,
  )
  const callOff = (): Promise<void> =>
    callOffFor(
      here.map(({ booking }) => booking),
      goingWith(said),
      date && {
        what: `${service.name} on ${moment(entry.start, where)} called off`,
        change: (p) =>
          withService(p, service.id, ({ groupDates, ...rest }) => ({
            ...rest,
            groupDates: groupDates.filter((other) => other.id !== date.id),
          })),
      },
    )
  return (
    <Dialog title={`${service.name}, ${moment(entry.start, where)}`} close={close}>
      <p className="text-soft">
        {here.length} of {service.seats} seats are taken.
        {service.least && ` At least ${service.least.people} must come.`}
      </p>
      <ul className="mt-3 grid gap-1.5">
        {here.map(({ booking }) => (
          <li key={booking.id} className="flex items-center justify-between gap-3">
            <Link className="way" to={`/arrivals/${booking.id}`}>
              {comesAndAsks(booking)}
            </Link>
            <span className="text-[14px] text-soft">{standingWords(booking, now)}</span>
          </li>
        ))}
      </ul>
      {here.length > 0 && (
        <button type="button" className="press mt-3" onClick={() => setWriting(true)}>
          Write to {here.length === 1 ? 'them' : 'all of them'} …
        </button>
      )}
      {writing && (
        <Suspense>
          <WriteTo
            practice={practice}
            bookings={here.map(({ booking }) => booking)}
            close={() => setWriting(false)}
          />
        </Suspense>
      )}
      {!begun && (
        <div className="mt-4 border-t border-line pt-3">
          <WordOrSilence label="A word to everybody" said={said} onChange={setSaid} />
          <button type="button" className="press press-no mt-2" onClick={() => act.run(callOff, close)}>
            {here.length > 0
              ? said.silent
                ? 'Call this session off and send nothing'
                : `Call this session off and write to ${here.length === 1 ? 'one person' : `${here.length} people`}`
              : 'Call this session off'}
          </button>
          <ProblemNote of={act} />
        </div>
      )}
    </Dialog>
  )
}
