import type { WouldCost } from '@acolhida/core/booking'
import type { Practice } from '@acolhida/core/practice'
import { addDays, dateAt, dayNumber, type Instant } from '@acolhida/core/time'
import { useEffect, useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import { counted, homeZone } from '../parts/words.ts'
import type { CostTold, CostWish } from './would-cost.worker.ts'

/** How far back the record is looked at, in days. */
const BACK = 365

/** What the last twelve months' cancellations would have cost by the rules as they stand. */
export function WouldHaveCost({ practice }: { practice: Practice }) {
  const where = homeZone(practice)
  const since = useAt((now) => where.toInstant(dayNumber(addDays(dateAt(where, now), -BACK)), 0)) as Instant
  const [told, setTold] = useState<CostTold>()
  const rules = JSON.stringify(practice.houseRules)
  // biome-ignore lint/correctness/useExhaustiveDependencies: of the practice, the rules alone matter here
  useEffect(() => {
    const worker = new Worker(new URL('./would-cost.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', ({ data }: MessageEvent<CostTold>) => {
      setTold(data)
      worker.terminate()
    })
    worker.postMessage({ practice, since } satisfies CostWish)
    return () => worker.terminate()
  }, [rules, since])
  if (!told) return null
  return (
    <p className="text-[14px] text-soft" role="status">
      {'problem' in told ? `The record could not be looked at: ${told.problem}` : costWords(told)}
    </p>
  )
}

/** "In the last twelve months, clients cancelled 41 paid sessions. By these rules, 38 were free …" */
export function costWords({ cancellations, shares, dearer }: WouldCost): string {
  if (cancellations === 0) return 'In the last twelve months, no client has cancelled a paid session.'
  const each = shares.map(({ share, count }) =>
    share === 0
      ? `${count} free of charge`
      : share === 100
        ? `${count} at the whole price`
        : `${count} at ${share} % of the price`,
  )
  const more =
    dearer === 0
      ? 'None would have cost more than it did.'
      : `${dearer} of them would have cost more than ${dearer === 1 ? 'it' : 'they'} did.`
  return `In the last twelve months, clients cancelled ${counted(cancellations, 'paid session', 'paid sessions')}; by these rules: ${each.join(', ')}. ${more}`
}
