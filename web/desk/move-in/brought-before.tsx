import { useLiveQuery } from 'dexie-react-hooks'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { counted } from '../parts/words.ts'
import { BeforeCard } from './before-card.tsx'
import { broughtIn, takeBroughtOut } from './brought.ts'

/** What was brought in before and is still as it came, with the way to take it out again. */
export function BroughtBefore({ desk }: { desk: Desk }) {
  const batches = useLiveQuery(() => broughtIn(db, relayNow()), [])
  return (
    <BeforeCard
      {...{ desk, batches, title: 'Brought in before', nothing: 'Nothing that is still as it came.' }}
      words={({ bookings, courses, file }) => {
        const balances = courses.length > 0 ? `, ${counted(courses.length, 'balance', 'balances')}` : ''
        return `${counted(bookings.length, 'session', 'sessions')}${balances} from ${file || 'a file'}, to come and as they came`
      }}
      takeOut={(batch) => takeBroughtOut(db, batch)}
    />
  )
}
