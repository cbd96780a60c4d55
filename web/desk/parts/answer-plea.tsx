import { type Booking, stateAt } from '@acolhida/core/booking'
import { useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { decideFor } from '../sync/acts.ts'
import { ActButton, ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { type GoesWith, goingWith, WordOrSilence } from './word.tsx'

/** The exception that a client asks for, and its answer: one press, or a no with a word. */
export function AnswerPlea({ desk, booking }: { desk: Desk; booking: Booking }) {
  const [saying, setSaying] = useState(false)
  const booked = useAt((now) => stateAt(booking, now).is === 'booked')
  const { plea } = booking
  const { name } = booking.asked.person
  if (!plea || !booked) return null
  const said = desk.intentions.some(
    (intention) => intention.booking === booking.id && intention.command.do === 'except',
  )
  return (
    <div className="note mt-2 bg-sun-soft text-sun-ink">
      <p>
        They ask for an exception: <span dir="auto">“{plea.text}”</span>
      </p>
      {plea.answer && (
        <p className="mt-1 font-semibold">
          {plea.answer.granted ? 'You made it.' : 'You made none.'}
          {plea.answer.text && ` “${plea.answer.text}”`}
        </p>
      )}
      {!plea.answer && said && <p className="mt-1 font-semibold">Answered; it has not gone out yet.</p>}
      {!plea.answer && !said && (
        <>
          <p className="mt-1 text-[14px]">
            A yes lets them cancel free of charge, or move it once, until it begins.
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            <ActButton onAct={() => decideFor(booking, { do: 'except', granted: true, text: '' })}>
              Make the exception<span className="sr-only"> for {name}</span>
            </ActButton>
            <button type="button" className="press press-quiet" onClick={() => setSaying(true)}>
              Say no…<span className="sr-only"> to {name}</span>
            </button>
          </div>
        </>
      )}
      {saying && <SayNo booking={booking} close={() => setSaying(false)} />}
    </div>
  )
}

function SayNo({ booking, close }: { booking: Booking; close: () => void }) {
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const act = useAct()
  return (
    <Dialog title={`No exception for ${booking.asked.person.name}`} close={close}>
      <p className="text-soft">
        The rules of the day they asked stay. {said.silent ? 'They are not told.' : 'They are told by mail.'}
      </p>
      <WordOrSilence said={said} onChange={setSaid} />
      <button
        type="button"
        className="press press-go mt-3"
        onClick={() =>
          act.run(
            () =>
              decideFor(booking, {
                do: 'except',
                granted: false,
                ...goingWith({ ...said, text: said.text.trim() }),
              }),
            close,
          )
        }
      >
        {said.silent ? 'Say no, and send nothing' : 'Say no, and send this'}
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
