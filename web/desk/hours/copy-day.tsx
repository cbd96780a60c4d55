import { longWeekdayName } from '@acolhida/core/time'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { type Scope, withDay } from './scope.ts'

/** Copies the hours of one weekday to others. */
export function CopyDay({ scope, order }: { scope: Scope; order: readonly number[] }) {
  const [open, setOpen] = useState(false)
  const [from, setFrom] = useState(order[0] ?? 0)
  const [to, setTo] = useState<number[]>([])
  const copy = (): Promise<void> =>
    changePractice(db, `the hours of ${longWeekdayName(from + 1)} copied`, (p) =>
      scope.change(p, (hours) => to.reduce((next, day) => withDay(next, day, hours.weekly[from]!), hours)),
    )
  const done = (): void => {
    setOpen(false)
    setTo([])
  }
  return (
    <>
      <button type="button" className="way text-[14px]" onClick={() => setOpen(true)}>
        Copy a day to others
      </button>
      {open && (
        <Dialog title="Copy a day to others" close={() => setOpen(false)}>
          <label className="ask" htmlFor="copy-from">
            The hours of
          </label>
          <select
            id="copy-from"
            className="field mt-1"
            value={from}
            onChange={(event) => setFrom(Number(event.target.value))}
          >
            {order.map((day) => (
              <option key={day} value={day}>
                {longWeekdayName(day + 1)}:{' '}
                {scope.hours.weekly[day]!.map((block) => `${block.from} – ${block.to}`).join(', ') ||
                  'a day off'}
              </option>
            ))}
          </select>
          <fieldset className="mt-3">
            <legend className="ask">To</legend>
            {order
              .filter((day) => day !== from)
              .map((day) => (
                <label key={day} className="flex min-h-[32px] cursor-pointer items-center gap-3">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-primary checkbox-sm"
                    checked={to.includes(day)}
                    onChange={(event) =>
                      setTo(event.target.checked ? [...to, day] : to.filter((number) => number !== day))
                    }
                  />
                  {longWeekdayName(day + 1)}
                </label>
              ))}
          </fieldset>
          <ActButton className="press press-go mt-3" disabled={to.length === 0} onAct={copy} then={done}>
            Copy the hours
          </ActButton>
        </Dialog>
      )}
    </>
  )
}
