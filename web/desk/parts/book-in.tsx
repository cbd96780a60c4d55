import { placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import { BadData, enterBody, letIn } from '@acolhida/core/schemas'
import { dateTimeAt, type Instant, MINUTE, shift } from '@acolhida/core/time'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/database.ts'
import type { Desk } from '../data/live.ts'
import { withAway } from '../hours/time-away.tsx'
import { enterBooking } from '../sync/acts.ts'
import { Dialog } from './dialog.tsx'
import { StartChoice, useWeighed } from './start-choice.tsx'
import { homeZone } from './words.ts'

/** Books somebody in by hand, without questions. */
export function BookIn({
  desk,
  service: id,
  at,
  close,
}: {
  desk: Desk
  service: string
  at: Instant
  close: () => void
}) {
  const service = serviceOf(desk.practice, id) ?? desk.practice.services[0]!
  const place = service.places[0]!
  const [chosen, setChosen] = useState({
    service: service.id,
    place,
    at: dateTimeAt(zoneOf(desk.practice, placeOf(desk.practice, place)), at) as string,
    minutes: service.minutes,
  })
  const [person, setPerson] = useState({ name: '', email: '' })
  const [problem, setProblem] = useState<string>()
  const weighed = useWeighed(desk, chosen)
  const keepForMyself = (): void => {
    const { start } = weighed
    if (start === undefined) return
    const home = homeZone(desk.practice)
    const away = {
      id: `own-${start}`,
      from: dateTimeAt(home, start),
      to: dateTimeAt(home, shift(start, chosen.minutes * MINUTE)),
      note: person.name.trim() || 'kept for myself',
    }
    changePractice(db, 'time kept for yourself', (p) => withAway(p, [away]))
      .then(close)
      .catch((error: unknown) => setProblem(String(error)))
  }
  const book = (): void => {
    if (weighed.start === undefined) return
    const body = {
      service: chosen.service,
      place: chosen.place,
      start: weighed.start,
      minutes: chosen.minutes,
      person: { ...person, zone: desk.practice.profile.zone },
      clash: weighed.clash,
    }
    try {
      const { id: _, ...clean } = letIn<Parameters<typeof enterBooking>[0] & { id: string }>(
        enterBody,
        { ...body, id: 'x'.repeat(20) },
        'The booking',
      )
      enterBooking(clean)
      close()
    } catch (error) {
      setProblem(
        error instanceof BadData ? error.faults.map((fault) => fault.message).join('. ') : String(error),
      )
    }
  }
  return (
    <Dialog title="Book somebody in" close={close}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          book()
        }}
      >
        <div className="mb-3 grid grid-cols-2 gap-3">
          <label className="ask">
            Name
            <input
              className="field mt-1"
              list="known-people"
              value={person.name}
              onChange={(event) => {
                const known = desk.people.find((one) => one.name === event.target.value)
                setPerson({ name: event.target.value, email: known?.emails[0] ?? person.email })
              }}
            />
          </label>
          <label className="ask">
            Mail address
            <input
              className="field mt-1"
              type="email"
              value={person.email}
              onChange={(event) => setPerson({ ...person, email: event.target.value })}
            />
          </label>
          <datalist id="known-people">
            {desk.people.map((one) => (
              <option key={one.id} value={one.name} />
            ))}
          </datalist>
        </div>
        <StartChoice desk={desk} chosen={chosen} weighed={weighed} onChange={setChosen} />
        {problem && (
          <p role="alert" className="mt-2 text-[14px] font-semibold text-clay">
            {problem}
          </p>
        )}
        <button
          type="submit"
          className="press press-go mt-3"
          disabled={weighed.blocked || weighed.start === undefined || !person.name.trim()}
        >
          {weighed.clash && !weighed.blocked
            ? 'Book in all the same, as a clash'
            : `Book ${person.name.trim() || 'somebody'} in`}
        </button>
        <button
          type="button"
          className="press ml-2"
          disabled={weighed.start === undefined}
          onClick={keepForMyself}
        >
          Keep this time for myself
        </button>
      </form>
    </Dialog>
  )
}
