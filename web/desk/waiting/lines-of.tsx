import type { Practice } from '@acolhida/core/practice'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { PersonRow } from '../data/rows.ts'
import { serviceName, when } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { AboutLine } from './about-line.tsx'
import { inLineNow } from './use-waiting.ts'

/** What somebody waits for. */
export function LinesOf({ practice, person }: { practice: Practice; person: PersonRow }) {
  const now = useMinute()
  const rows = useLiveQuery(
    () => db.lines.where('mail').anyOf(person.emails).toArray(),
    [JSON.stringify(person.emails)],
  )
  const [about, setAbout] = useState<string>()
  const open = inLineNow(rows ?? [], now)
  const shown = open.find(({ id }) => id === about)
  if (open.length === 0) return null
  return (
    <Card title="Waits for a time">
      <ul className="mt-1.5 grid gap-1 text-[14px]">
        {open.map(({ id, service, line }) => (
          <li key={id}>
            <button type="button" className="way" onClick={() => setAbout(id)}>
              {serviceName(practice, service)}
            </button>
            , since {when(practice, line.joined.at)}
          </li>
        ))}
      </ul>
      {shown && <AboutLine practice={practice} row={shown} close={() => setAbout(undefined)} />}
    </Card>
  )
}
