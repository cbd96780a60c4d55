import type { Contact } from '@acolhida/core/booking'
import { isEnded, stateAt } from '@acolhida/core/booking'
import { courseLetter, DOOR_TOKEN, YOURS_TOKEN } from '@acolhida/core/messages'
import { type Practice, preparationOf } from '@acolhida/core/practice'
import { beginCourse, stationOf } from '@acolhida/core/preparing'
import { useState } from 'react'
import { Link } from 'react-router'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import type { BookingRow } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { Switch } from '../parts/switch.tsx'
import { serviceName, when } from '../parts/words.ts'
import { doWithCourse } from '../sync/acts.ts'
import type { GivenTo } from './use-courses.ts'
import { preparationLine } from './words.ts'

/** Gives one person something to do: what, for which session, with which word; as they will read it, before it goes. */
export function Give({
  practice,
  person,
  bookings,
  before,
  close,
}: {
  practice: Practice
  person: Contact
  bookings: readonly BookingRow[]
  /** What they were given already. */
  before: readonly GivenTo[]
  close: () => void
}) {
  const now = relayNow()
  const coming = bookings.filter(
    (booking) => booking.status === 'booked' && booking.start > now && !isEnded(stateAt(booking, now)),
  )
  const [chosen, setChosen] = useState<readonly string[]>([])
  const [booking, setBooking] = useState(coming[0]?.id ?? '')
  const [text, setText] = useState('')
  const [silent, setSilent] = useState(false)
  const [wrong, setWrong] = useState(false)
  const act = useAct()
  const all = practice.preparations ?? []
  const had = new Set(before.flatMap(({ row }) => row.course.given.stations.map((one) => one.preparation)))
  const found = chosen.flatMap((id) => preparationOf(practice, id) ?? [])
  const letter = courseLetter(
    practice,
    beginCourse('look', {
      ...{ type: 'given', at: now, person },
      stations: found.map((one) => stationOf(practice, one, one.id)),
      ...(booking ? { booking } : {}),
      ...(text.trim() ? { text: text.trim() } : {}),
    }),
    coming.find(({ id }) => id === booking),
    { step: 'to-prepare', anchor: 1 },
    now,
  )
  const give = (): Promise<void> =>
    doWithCourse(newKey(), {
      ...{ do: 'give', person, preparations: [...chosen] },
      ...(booking ? { booking } : {}),
      ...(text.trim() ? { text: text.trim() } : {}),
      ...(silent ? { silent } : {}),
    })
  return (
    <Dialog title={`Something for ${person.name}`} close={close} wide>
      {all.length === 0 ? (
        <p>
          There is nothing to give yet.{' '}
          <Link className="way" to="/preparations">
            Write what clients prepare
          </Link>
        </p>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault()
            if (chosen.length === 0) setWrong(true)
            else act.run(give, close)
          }}
        >
          <fieldset className="grid gap-1">
            <legend className="ask">What they get</legend>
            {all.map((one) => (
              <label key={one.id} className="flex min-h-[32px] cursor-pointer items-start gap-3">
                <input
                  type="checkbox"
                  className="checkbox checkbox-primary checkbox-sm mt-1"
                  checked={chosen.includes(one.id)}
                  onChange={(event) => {
                    const on = event.target.checked
                    setWrong(false)
                    setChosen(
                      all.map(({ id }) => id).filter((id) => (id === one.id ? on : chosen.includes(id))),
                    )
                  }}
                />
                <span>
                  {one.name}
                  <span className="block text-[13px] text-soft">
                    {preparationLine(one)}
                    {had.has(one.id) ? ' · they were given it before' : ''}
                  </span>
                </span>
              </label>
            ))}
          </fieldset>
          {wrong && (
            <p role="alert" className="mt-1 font-semibold text-clay">
              Please choose what they get.
            </p>
          )}
          <div className="mt-3 grid gap-3">
            {coming.length > 0 && (
              <PlainChoice
                label="For which session"
                value={booking}
                options={[
                  ...coming.map((one) => ({
                    value: one.id,
                    name: `${serviceName(practice, one.service)}, ${when(practice, one.start)}`,
                  })),
                  { value: '', name: 'For none' },
                ]}
                onChange={setBooking}
              />
            )}
            <PlainField
              label="A word that goes with it, if you like"
              rows={3}
              value={text}
              onChange={setText}
            />
            <Switch label="Write nothing; I tell them myself" on={silent} onChange={setSilent} />
          </div>
          {letter && !silent && (
            <details className="mt-3" open>
              <summary className="cursor-pointer font-semibold">As {person.name} will read it</summary>
              <p className="mt-1 font-semibold wrap-anywhere">{letter.subject}</p>
              <p className="mt-1 rounded-lg bg-shade p-3 text-[14px] whitespace-pre-line wrap-anywhere">
                {letter.text.replaceAll(YOURS_TOKEN, 'https://…').replaceAll(DOOR_TOKEN, 'https://…')}
              </p>
            </details>
          )}
          <ProblemNote of={act} />
          <button type="submit" className="press press-go mt-4" disabled={act.busy}>
            Give it to {person.name}
          </button>
        </form>
      )}
    </Dialog>
  )
}
