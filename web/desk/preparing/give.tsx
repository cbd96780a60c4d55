import type { Contact } from '@acolhida/core/booking'
import { isEnded, stateAt } from '@acolhida/core/booking'
import { courseLetter } from '@acolhida/core/messages'
import { type Practice, preparationOf } from '@acolhida/core/practice'
import { beginCourse, stationOf } from '@acolhida/core/preparing'
import { useState } from 'react'
import { Link } from 'react-router'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import type { BookingRow } from '../data/rows.ts'
import { Dialog } from '../parts/dialog.tsx'
import { FormDialog } from '../parts/form-dialog.tsx'
import { PlainChoice } from '../parts/plain-field.tsx'
import { serviceName, when } from '../parts/words.ts'
import { doWithCourse } from '../sync/acts.ts'
import { TellThem, useTelling } from './telling.tsx'
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
  const telling = useTelling()
  const all = practice.preparations ?? []
  const had = new Set(before.flatMap(({ row }) => row.course.given.stations.map((one) => one.preparation)))
  const found = chosen.flatMap((id) => preparationOf(practice, id) ?? [])
  const letter = courseLetter(
    practice,
    beginCourse('look', {
      ...{ type: 'given', at: now, person },
      stations: found.map((one) => stationOf(practice, one, one.id)),
      ...(booking ? { booking } : {}),
      ...telling.said,
    }),
    coming.find(({ id }) => id === booking),
    { step: 'to-prepare', anchor: 1 },
    now,
  )
  if (all.length === 0)
    return (
      <Dialog title={`Something for ${person.name}`} close={close}>
        <p>
          There is nothing to give yet.{' '}
          <Link className="way" to="/preparations">
            Write what clients prepare
          </Link>
        </p>
      </Dialog>
    )
  const give = (): Promise<void> => {
    if (chosen.length === 0) throw new Error('Please choose what they get.')
    return doWithCourse(newKey(), {
      ...{ do: 'give', person, preparations: [...chosen] },
      ...(booking ? { booking } : {}),
      ...telling.said,
      ...telling.quiet,
    })
  }
  return (
    <FormDialog
      title={`Something for ${person.name}`}
      go={`Give it to ${person.name}`}
      does={give}
      close={close}
      wide
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
                setChosen(all.map(({ id }) => id).filter((id) => (id === one.id ? on : chosen.includes(id))))
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
      {coming.length > 0 && (
        <div className="mt-3">
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
        </div>
      )}
      <TellThem telling={telling} name={person.name} letter={letter} open />
    </FormDialog>
  )
}
