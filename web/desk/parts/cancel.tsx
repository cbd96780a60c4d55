import { type Booking, costOf } from '@acolhida/core/booking'
import { money } from '@acolhida/core/money'
import { placeOf, zoneOf } from '@acolhida/core/practice'
import { moment } from '@acolhida/core/time'
import { useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { decideFor } from '../sync/acts.ts'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { givesNow, givesWords } from './gives.ts'
import { type GoesWith, goingWith, WordOrSilence } from './word.tsx'
import { currencyOf, serviceName } from './words.ts'

/** Cancels a session for somebody: what it costs whom is said before, and a word goes with it. */
export function CancelSession({ desk, booking, close }: { desk: Desk; booking: Booking; close: () => void }) {
  const { practice } = desk
  const act = useAct()
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const { name } = booking.asked.person
  const where = zoneOf(practice, placeOf(practice, booking.place))
  const theirs = useAt((now) => costOf(booking, where, now))
  const gives = useAt((now) => givesNow(practice, booking, now))
  const price = money(booking.price, currencyOf(booking.asked.currency))
  return (
    <Dialog title={`Cancel ${serviceName(practice, booking.service)} with ${name}`} close={close}>
      <p className="text-soft">
        {moment(booking.start, where)} becomes free again. {name}{' '}
        {said.silent ? 'is not told' : 'gets a mail'}, and owes nothing: it is you who cancels.
        {theirs > 0 &&
          booking.price > 0 &&
          ` If ${name} cancelled now, ${theirs} % of ${price} would be due.`}
        {givesWords(booking, gives)}
      </p>
      <WordOrSilence said={said} onChange={setSaid} />

      <button
        type="button"
        className="press press-no mt-3"
        onClick={() =>
          act.run(() => decideFor(booking, { do: 'cancel', by: 'practitioner', ...goingWith(said) }), close)
        }
      >
        Cancel it, free for {name}
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
