import type { Practice } from '@acolhida/core/practice'
import { useState } from 'react'
import type { BookingRow } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { PlainChoice } from '../parts/plain-field.tsx'
import { type GoesWith, goingWith, WordOrSilence } from '../parts/word.tsx'
import { counted, serviceName, when } from '../parts/words.ts'
import { cancelSeries } from '../sync/acts.ts'

/** Ends what is booked with somebody from one session on. */
export function EndSessions({
  practice,
  coming,
  close,
}: {
  practice: Practice
  /** What is booked and still to come, in order. */
  coming: readonly BookingRow[]
  close: () => void
}) {
  const [from, setFrom] = useState(coming[0]!.id)
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const act = useAct()
  const at = Math.max(
    0,
    coming.findIndex(({ id }) => id === from),
  )
  const ending = coming.slice(at)
  const { name } = coming[0]!.asked.person
  const end = (): Promise<void> => {
    const { text, silent } = goingWith(said)
    return cancelSeries(ending, silent ? { silent } : text.trim() ? { text: text.trim() } : {})
  }
  return (
    <Dialog title={`End sessions with ${name}`} close={close}>
      <PlainChoice
        label="From this one on"
        value={from}
        options={coming.map(({ id, start, service }) => ({
          value: id,
          name: `${when(practice, start)}, ${serviceName(practice, service)}`,
        }))}
        onChange={setFrom}
      />
      <p className="mt-3 text-soft">
        {counted(ending.length, 'session is', 'sessions are')} cancelled, and their times become free again.{' '}
        {name} {said.silent ? 'is not told' : 'is told which'}, and owes nothing: it is you who cancels.
      </p>
      <WordOrSilence said={said} onChange={setSaid} />
      <button
        type="button"
        className="press press-no mt-3"
        disabled={act.busy}
        onClick={() => act.run(end, close)}
      >
        Cancel {counted(ending.length, 'session', 'sessions')}
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
