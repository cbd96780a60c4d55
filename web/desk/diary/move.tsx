import type { Booking } from '@acolhida/core/booking'
import { placeOf, zoneOf } from '@acolhida/core/practice'
import { dateTimeAt, type Instant, moment } from '@acolhida/core/time'
import { useState } from 'react'
import type { Desk } from '../data/live.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { type GoesWith, goingWith, WordOrSilence } from '../parts/word.tsx'
import { decideFor } from '../sync/acts.ts'
import { useDaysOnPath } from './on-path.ts'
import { StartChoice, useWeighed } from './start-choice.tsx'
import type { Chosen } from './weigh.ts'

/** Moves a booking to another time, place or length; what follows is shown before. */
export function Move({
  desk,
  booking,
  to,
  close,
}: {
  desk: Desk
  booking: Booking
  to?: Instant | undefined
  close: () => void
}) {
  const zoneAt = (place: string) => zoneOf(desk.practice, placeOf(desk.practice, place))
  const [chosen, setChosen] = useState<Chosen>({
    service: booking.service,
    place: booking.place,
    at: dateTimeAt(zoneAt(booking.place), to ?? booking.start),
    minutes: booking.minutes,
    travel: booking.asked.travel,
  })
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const act = useAct()
  const weighed = useWeighed(desk, chosen, booking.id, useDaysOnPath(desk.practice, booking, chosen.place))
  const same =
    weighed.start === booking.start &&
    chosen.service === booking.service &&
    chosen.place === booking.place &&
    chosen.minutes === booking.minutes
  const name = booking.asked.person.name
  return (
    <Dialog title={`Move ${name}`} close={close}>
      <p className="mb-3 text-soft">
        Now {moment(booking.start, zoneAt(booking.place))}.{' '}
        {said.silent ? `${name} is not told` : `${name} gets a mail with the new time`}; the price and the
        rules of the day of asking go with it.
      </p>
      <StartChoice desk={desk} chosen={chosen} weighed={weighed} onChange={setChosen} />
      <WordOrSilence said={said} onChange={setSaid} />

      <button
        type="button"
        className="press press-go mt-3"
        disabled={weighed.blocked || same || weighed.start === undefined}
        onClick={() => {
          const { start } = weighed
          if (start === undefined) return
          const command = {
            do: 'move' as const,
            start,
            place: chosen.place,
            minutes: chosen.minutes,
            ...goingWith(said),
            clash: weighed.clash,
            ...(chosen.service === booking.service ? {} : { service: chosen.service }),
          }
          act.run(() => decideFor(booking, command), close)
        }}
      >
        {weighed.clash && !weighed.blocked
          ? 'Move it all the same, as a clash'
          : weighed.start === undefined
            ? 'Move it'
            : `Move to ${moment(weighed.start, zoneAt(chosen.place))}`}
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
