import { dateAt, instant, longDate, zone } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { type ReactNode, useState } from 'react'
import { undoChange } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ProblemNote, useAct } from './act.tsx'
import { DoorLink } from './door-link.tsx'
import { PageHead } from './page-head.tsx'

/** A page on which the practice is changed: everything is kept as it is typed, and can be undone. */
export function SettingsPage({
  title,
  line,
  children,
}: {
  title: string
  line: string
  children: ReactNode
}) {
  return (
    <>
      <div className="mb-5">
        <PageHead title={title} line={line}>
          <Undo />
          <DoorLink />
        </PageHead>
      </div>
      {children}
    </>
  )
}

function Undo() {
  const last = useLiveQuery(() => db.changes.orderBy('order').last())
  const [undone, setUndone] = useState('')
  const act = useAct()
  return (
    <div className="flex items-center gap-2">
      <span role="status" className="text-[14px] text-soft">
        {undone}
      </span>
      <button
        type="button"
        className="press"
        disabled={!last}
        title={last ? `Changed ${longDate(dateAt(zone('UTC'), instant(last.at)))}` : undefined}
        onClick={() =>
          act.run(async () => {
            const what = await undoChange(db)
            if (what) setUndone(`Undone: ${what}.`)
          })
        }
      >
        {last ? `Undo: ${last.what}` : 'Nothing to undo'}
      </button>
      <ProblemNote of={act} className="" />
    </div>
  )
}
