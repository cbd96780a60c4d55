import { Plus } from 'lucide-react'
import { useState } from 'react'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { DateField } from '../parts/date-field.tsx'

/** Two dates and what is made of them; emptied once that is done. */
export function AddDays({
  first,
  last,
  does,
  onAdd,
}: {
  /** What the two dates are called, */
  first: string
  last: string
  /** and what is done with them. */
  does: string
  /** @throws Error with a sentence when they can't be used */
  onAdd: (from: string, to: string) => Promise<void>
}) {
  const [from, setFrom] = useState('')
  const [to, setTo] = useState('')
  const act = useAct()
  const add = async (): Promise<void> => {
    await onAdd(from, to)
    setFrom('')
    setTo('')
  }
  return (
    <>
      <form
        className="mt-3 flex flex-wrap items-end gap-3 border-t border-line pt-3"
        onSubmit={(event) => {
          event.preventDefault()
          act.run(add)
        }}
      >
        <DateField label={first} value={from} onChange={setFrom} />
        <DateField label={last} value={to} onChange={setTo} />
        <button type="submit" className="press">
          <Plus size={16} aria-hidden="true" /> {does}
        </button>
      </form>
      <ProblemNote of={act} />
    </>
  )
}
