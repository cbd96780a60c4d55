import { type Booking, isHeld, stateAt, wordNeeded } from '@acolhida/core/booking'
import { deskReading, nearestFor, questionsAsked } from '@acolhida/core/booking/judged'
import { type Practice, serviceOf } from '@acolhida/core/practice'
import type { Outcome } from '@acolhida/core/questions'
import { moment } from '@acolhida/core/time'
import { useMemo, useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { NearestChange } from '../parts/nearest-change.tsx'
import { homeZone, OUTCOME } from '../parts/words.ts'
import { decideFor } from '../sync/acts.ts'
import { Card } from './card.tsx'

/** Why a request came to the practitioner: what the rules said, what would have made it fit, and their own judgement. */
export function Reasons({ practice, booking }: { practice: Practice; booking: Booking }) {
  const service = serviceOf(practice, booking.asked.service)
  const word =
    service && wordNeeded(service, booking.asked.asking.standing, booking.asked.reading, booking.marks)
  const { reasons, outcome, points, tags } = deskReading(practice, booking)
  const { overruled } = booking
  const byHand = booking.asked.proof === 'hand'
  const judges = useAt((now) => {
    const state = stateAt(booking, now)
    return (isHeld(state) && state.is !== 'unproved') || state.is === 'booked'
  })
  const shown = overruled?.outcome ?? outcome
  return (
    <Card title="Why it came to you" aside={<span className={`tag tag-${shown}`}>{OUTCOME[shown]}</span>}>
      {overruled && (
        <p className="note mt-2 bg-tile-soft text-[14px] text-tile-ink">
          Your own judgement, {moment(overruled.at, homeZone(practice))}: “{overruled.text}”. The rules said{' '}
          {OUTCOME[outcome].toLowerCase()}.
        </p>
      )}
      <ol className="mt-2 grid list-decimal gap-2 pl-[18px]">
        {reasons.map((reason) => (
          <li key={`${reason.rule} ${reason.name}`}>
            {reason.note || reason.name}
            {reason.rule && <div className="text-[14px] text-soft">Your rule “{reason.name}”</div>}
          </li>
        ))}
        {word && !byHand && <li>{word}</li>}
        {byHand && <li>You booked them in by hand.</li>}
        {!byHand && reasons.length === 0 && !word && <li>Nothing spoke against it; it went straight in.</li>}
      </ol>
      {(points !== 0 || tags.length > 0) && (
        <p className="mt-2 text-[14px] text-soft">
          {points !== 0 && `${points} points. `}
          {tags.length > 0 && `Tagged ${tags.map((tag) => `“${tag}”`).join(', ')}.`}
        </p>
      )}
      <Nearest practice={practice} booking={booking} />
      {judges && <Overrule booking={booking} from={shown} />}
    </Card>
  )
}

/** The fewest answers that would have to be others. Nobody but the practitioner sees this. */
function Nearest({ practice, booking }: { practice: Practice; booking: Booking }) {
  const nearest = useMemo(() => nearestFor(practice, booking), [practice, booking])
  const questions = questionsAsked(practice, booking)
  return <NearestChange differences={nearest} questions={questions} />
}

/** The practitioner judges otherwise than the rules, with a reason that stays in the record. */
function Overrule({ booking, from }: { booking: Booking; from: Outcome }) {
  const [open, setOpen] = useState(false)
  const [outcome, setOutcome] = useState<Outcome>(from === 'fits' ? 'look' : 'fits')
  const [text, setText] = useState('')
  const [missing, setMissing] = useState(false)
  const act = useAct()
  if (!open)
    return (
      <button type="button" className="way mt-3 text-[14px]" onClick={() => setOpen(true)}>
        I see it differently
      </button>
    )
  return (
    <form
      className="mt-3 grid gap-2 border-t border-line pt-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        setMissing(!text.trim())
        if (!text.trim()) return
        act.run(
          () => decideFor(booking, { do: 'overrule', outcome, text: text.trim() }),
          () => {
            setOpen(false)
            setText('')
          },
        )
      }}
    >
      <label className="ask">
        In my judgement
        <select
          className="field mt-1"
          value={outcome}
          onChange={(event) => setOutcome(event.target.value as Outcome)}
        >
          {(Object.keys(OUTCOME) as Outcome[])
            .filter((outcome) => outcome !== from)
            .map((outcome) => (
              <option key={outcome} value={outcome}>
                {OUTCOME[outcome]}
              </option>
            ))}
        </select>
      </label>
      <label className="ask">
        because
        <textarea
          className="field mt-1"
          rows={2}
          maxLength={2_000}
          value={text}
          aria-invalid={missing ? true : undefined}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {missing && (
        <p role="alert" className="text-[14px] font-semibold text-clay">
          Please write why; it stays with the booking.
        </p>
      )}
      <ProblemNote of={act} />
      <span className="flex gap-2">
        <button type="submit" className="press press-go">
          Keep my judgement
        </button>
        <button type="button" className="press press-quiet" onClick={() => setOpen(false)}>
          Leave it
        </button>
      </span>
    </form>
  )
}
