import { useLiveQuery } from 'dexie-react-hooks'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { counted, when } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { broughtIn, takeBroughtOut } from './brought.ts'

/** What was brought in before and is still as it came, with the way to take it out again. */
export function BroughtBefore({ desk }: { desk: Desk }) {
  const batches = useLiveQuery(() => broughtIn(db, relayNow()), [])
  const act = useAct()
  return (
    <div className="h-fit">
      <Card title="Brought in before">
        {batches?.length === 0 && <p className="mt-2 text-soft">Nothing that is still as it came.</p>}
        <ul className="mt-2 grid gap-3">
          {batches?.map((batch) => (
            <li key={batch.id}>
              <b className="block">{when(desk.practice, batch.at)}</b>
              <span className="block text-[14px] text-soft wrap-anywhere">
                {counted(batch.bookings.length, 'session', 'sessions')}
                {batch.courses.length > 0 && `, ${counted(batch.courses.length, 'balance', 'balances')}`} from{' '}
                {batch.file || 'a file'}, to come and as they came
              </span>
              <button
                type="button"
                className="press press-quiet mt-1"
                disabled={act.busy}
                onClick={() => act.run(() => takeBroughtOut(db, batch))}
              >
                Take them out again
              </button>
            </li>
          ))}
        </ul>
        <ProblemNote of={act} />
      </Card>
    </div>
  )
}
