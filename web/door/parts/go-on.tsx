import { dateAt, type Instant, shortDate, timeAt, zone } from '@acolhida/core/time'
import { useVisit } from '../visit/visit.ts'

/** On to the terms with the time that is kept. */
export function GoOn({ start, go }: { start: Instant; go: (step: 'terms') => void }) {
  const where = zone(useVisit().zone)
  return (
    <button type="button" className="press press-go w-full" onClick={() => go('terms')}>
      Go on with {shortDate(dateAt(where, start))}, {timeAt(where, start)}
    </button>
  )
}
