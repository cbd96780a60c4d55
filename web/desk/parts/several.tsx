import type { Booking } from '@acolhida/core/booking'
import { lazy, Suspense, useState } from 'react'
import { decideForAll } from '../sync/together.ts'
import { ProblemNote, useAct } from './act.tsx'
import { counted } from './words.ts'

// What is written comes when it is asked for.
const TurnDownWords = lazy(async () => ({ default: (await import('./turn-down.tsx')).TurnDownWords }))

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
        <Suspense>
          <TurnDownWords
            whom={people}
            readers="they"
            says="Their times become free again. Each gets these words by mail:"
            begin="Thank you for asking. I am sorry: I can’t offer you this time just now. I wish you well."
            send={(said) => decideForAll(theirs, { do: 'decline', ...said }).then(done)}
            close={() => setDeclining(false)}
          />
        </Suspense>
      )}
    </div>
  )
}
