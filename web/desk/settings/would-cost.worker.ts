import { type WouldCost, wouldHaveCost } from '@acolhida/core/booking'
import { type Practice, placeOf, zoneOf } from '@acolhida/core/practice'
import type { Instant } from '@acolhida/core/time'

export interface CostWish {
  practice: Practice
  since: Instant
}
export type CostTold = WouldCost | { problem: string }

/** What cancellations would have cost by the rules as they stand, off the main thread. */
self.addEventListener('message', async ({ data }: MessageEvent<CostWish>) => {
  const tell = (told: CostTold): void => self.postMessage(told)
  try {
    // Which database it is must be asked; what is said to this worker meanwhile must not be missed.
    const { db } = await import('../data/db.ts')
    const { practice, since } = data
    const cancelled = await db.bookings.where('status').equals('cancelled').toArray()
    tell(
      wouldHaveCost(cancelled, practice.houseRules, since, ({ place }) =>
        zoneOf(practice, placeOf(practice, place)),
      ),
    )
  } catch (error) {
    tell({ problem: (error as Error).message })
  }
})
