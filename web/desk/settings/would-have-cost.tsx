import type { WouldCost } from '@acolhida/core/booking'
import type { Practice } from '@acolhida/core/practice'
import { addDays, dateAt, dayNumber, type Instant } from '@acolhida/core/time'
import { useEffect, useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import { counted, homeZone } from '../parts/words.ts'
import { wouldLeadWords } from './counting.ts'
import type { CostTold, CostWish } from './would-cost.worker.ts'

/** How far back the record is looked at, in days. */
const BACK = 365

/** What the rules as they stand would have meant for the last twelve months of the record; nothing until it is known. */
function useWouldHave(practice: Practice): CostTold | undefined {
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
  return told
}

function Told({ children }: { children: string }) {
  return (
    <p className="text-[14px] text-soft" role="status">
      {children}
    </p>
  )
}

const problemIn = (problem: string): string => `The record could not be looked at: ${problem}`

/** What the last twelve months' cancellations would have cost. */
export function WouldHaveCost({ practice }: { practice: Practice }) {
  const told = useWouldHave(practice)
  return told ? <Told>{'problem' in told ? problemIn(told.problem) : costWords(told.cost)}</Told> : null
}

/** What counting would have led to. */
export function WouldHaveLed({ practice }: { practice: Practice }) {
  const told = useWouldHave(practice)
  if (!told) return null
  if ('problem' in told) return <Told>{problemIn(told.problem)}</Told>
  const leads = practice.houseRules.counting?.leads ?? []
  return told.lead && told.lead.met.length === leads.length ? (
    <Told>{wouldLeadWords(told.lead, leads)}</Told>
  ) : null
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
