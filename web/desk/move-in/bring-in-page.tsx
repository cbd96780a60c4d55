import { useState } from 'react'
import { Link } from 'react-router'
import { useDesk } from '../data/live.ts'
import { PageHead } from '../parts/page-head.tsx'
import { BroughtBefore } from './brought-before.tsx'
import { FileCard } from './file-card.tsx'
import { TryBringing } from './try-bringing.tsx'
import { useSessionsFile } from './use-sessions-file.ts'

/** Sessions and balances from another place: read, tried, brought in together, and taken out again together. */
export function BringInPage() {
  const desk = useDesk()
  const { read, problem, open, close } = useSessionsFile(desk.practice.profile.zone)
  const [done, setDone] = useState('')
  return (
    <>
      <PageHead
        title="Bring sessions in"
        line="Sessions to come, and how people stand, from a table (CSV, or a workbook’s first sheet) or a calendar (.ics). Nothing is written before you have seen what would come of it, and nobody is told but whom you choose."
      >
        <Link className="press" to="/people/move-in">
          Move people in
        </Link>
      </PageHead>
      <div className="mt-5 grid gap-5 lg:grid-cols-[1fr_320px]">
        <div className="grid h-fit gap-4">
          <FileCard
            needs="A table needs headings in its first line: who comes, their mail address, and when. A line without a day can say what somebody has left, or owes."
            accept=".csv,.tsv,.txt,.xlsx,.ics,text/csv,text/calendar"
            opened={read !== undefined}
            problem={problem}
            done={done}
            onFile={(file) => {
              setDone('')
              open(file)
            }}
          />
          {read && (
            <TryBringing
              key={`${read.name} ${read.n}`}
              desk={desk}
              read={read}
              close={(said) => {
                setDone(said)
                close()
              }}
            />
          )}
        </div>
        <BroughtBefore desk={desk} />
      </div>
    </>
  )
}
