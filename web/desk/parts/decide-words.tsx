import type { Booking } from '@acolhida/core/booking'
import { useState } from 'react'
import type { Desk } from '../data/live.ts'
import { decideFor } from '../sync/acts.ts'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { TurnDownWords } from './turn-down.tsx'
import { type GoesWith, goingWith, WordOrSilence } from './word.tsx'
import { serviceName, when } from './words.ts'

/** Asks something back before the word. */
export function AskSomething({ desk, booking, close }: { desk: Desk; booking: Booking; close: () => void }) {
  const act = useAct()
  const [text, setText] = useState('')
  const { name } = booking.asked.person
  const { until } = booking
  return (
    <Dialog title={`Ask ${name} something`} close={close}>
      <p className="text-soft">
        {booking.extended
          ? `The time stays kept until ${when(desk.practice, until)}.`
          : 'The time is kept longer for it, once: as long as if they had asked now.'}{' '}
        {name} gets this by mail, and answers on the page of the request.
      </p>
      <label className="ask mt-3 block">
        What you would like to know
        <textarea
          className="field mt-1 min-h-24"
          maxLength={5_000}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button
        type="button"
        className="press press-go mt-3"
        onClick={() =>
          act.run(() => {
            if (!text.trim()) throw new Error('Please write what you would like to know.')
            return decideFor(booking, { do: 'ask', text: text.trim() })
          }, close)
        }
      >
        Ask this
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}

/** A word that goes with the confirmation. */
export function WelcomeWith({ booking, close }: { booking: Booking; close: () => void }) {
  const act = useAct()
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  return (
    <Dialog title={`Welcome ${booking.asked.person.name}`} close={close}>
      <p className="text-soft">
        {said.silent
          ? 'The time is theirs; you tell them yourself.'
          : 'A word goes with the confirmation, before everything else.'}
      </p>
      <WordOrSilence said={said} onChange={setSaid} />
      <button
        type="button"
        className="press press-go mt-3"
        onClick={() => act.run(() => decideFor(booking, { do: 'welcome', ...goingWith(said) }), close)}
      >
        Welcome them
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}

/** Turns one down, in words that can be changed. */
export function TurnDown({ desk, booking, close }: { desk: Desk; booking: Booking; close: () => void }) {
  const { name } = booking.asked.person
  const service = serviceName(desk.practice, booking.service)
  return (
    <TurnDownWords
      whom={name}
      readers={name}
      says={`The time becomes free again. ${name} gets these words by mail:`}
      begin={`Thank you for asking and for telling me about yourself. I am sorry: ${service} with me is not what I can offer you just now. I wish you well.`}
      send={(said) => decideFor(booking, { do: 'decline', ...said })}
      close={close}
    />
  )
}
