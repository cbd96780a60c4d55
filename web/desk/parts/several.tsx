import type { Booking } from '@acolhida/core/booking'
import { useState } from 'react'
import { decideForAll } from '../sync/acts.ts'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { counted } from './words.ts'

/** Says the same to several who wait. */
export function SeveralAtOnce({
  waiting,
  chosen,
  done,
}: {
  waiting: readonly Booking[]
  chosen: ReadonlySet<string>
  done: () => void
}) {
  const [declining, setDeclining] = useState(false)
  const [text, setText] = useState(
    'Thank you for asking. I am sorry: I can’t offer you this time just now. I wish you well.',
  )
  const act = useAct()
  const theirs = waiting.filter(({ id }) => chosen.has(id))
  const people = counted(theirs.length, 'person', 'people')
  return (
    <div className="note mb-3 flex flex-wrap items-center gap-3 bg-tile-soft text-tile-ink">
      <span role="status">{theirs.length === 0 ? 'Choose whom you answer.' : `${people} chosen.`}</span>
      <button
        type="button"
        className="press press-go"
        disabled={theirs.length === 0 || act.busy}
        onClick={() => act.run(() => decideForAll(theirs, { do: 'welcome' }), done)}
      >
        Welcome {theirs.length > 0 && theirs.length}
      </button>
      <button
        type="button"
        className="press press-no"
        disabled={theirs.length === 0}
        onClick={() => setDeclining(true)}
      >
        Turn {theirs.length > 0 && theirs.length} down…
      </button>
      <ProblemNote of={act} className="" />
      {declining && (
        <Dialog title={`Turn ${people} down`} close={() => setDeclining(false)}>
          <p className="text-soft">Their times become free again. Each gets these words by mail:</p>
          <label className="sr-only" htmlFor="several-text">
            What they will read
          </label>
          <textarea
            id="several-text"
            className="field mt-2 min-h-28"
            maxLength={5_000}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <button
            type="button"
            className="press press-go mt-3"
            onClick={() => act.run(() => decideForAll(theirs, { do: 'decline', text }), done)}
          >
            Turn down and send this
          </button>
        </Dialog>
      )}
    </div>
  )
}
