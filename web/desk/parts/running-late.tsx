import { type Booking, givesForLate, stateAt } from '@acolhida/core/booking'
import { HOUR } from '@acolhida/core/time'
import { useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import { decideFor } from '../sync/acts.ts'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { givesWords } from './gives.ts'
import { PlainField } from './plain-field.tsx'

/** How long before a session it can be said that one comes late, in ms. */
const BEFORE = 6 * HOUR

/** Tells whoever is next that one comes late. */
export function RunningLate({ booking }: { booking: Booking }) {
  const [open, setOpen] = useState(false)
  const [minutes, setMinutes] = useState('10')
  const act = useAct()
  const soon = useAt((now) => {
    const state = stateAt(booking, now)
    return state.is === 'booked' && !state.over && booking.start - now < BEFORE
  })
  if (!soon) return null
  const { name } = booking.asked.person
  return (
    <>
      {booking.runsLate && (
        <span className="text-[14px]">They know that you come {booking.runsLate.minutes} minutes late.</span>
      )}
      <button type="button" className="press press-quiet" onClick={() => setOpen(true)}>
        Running late…
      </button>
      {open && (
        <Dialog title={`Late for ${name}`} close={() => setOpen(false)}>
          <p className="mb-3 text-soft">
            {name} is told by mail, and reads it on the page of the session.
            {givesWords(booking, givesForLate(booking, Number(minutes)))}
          </p>
          <PlainField
            label="How many minutes late"
            inputMode="numeric"
            value={minutes}
            onChange={setMinutes}
            focused
          />
          <button
            type="button"
            className="press press-go mt-3"
            onClick={() =>
              act.run(
                () => {
                  const late = Number(minutes)
                  if (!Number.isInteger(late) || late < 1 || late > 240)
                    throw new Error('Please write a number of minutes, 1 to 240.')
                  return decideFor(booking, { do: 'run-late', minutes: late })
                },
                () => setOpen(false),
              )
            }
          >
            Tell {name}
          </button>
          <ProblemNote of={act} />
        </Dialog>
      )}
    </>
  )
}
