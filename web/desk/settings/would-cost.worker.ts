import { type WouldCost, type WouldLead, wouldHaveCost, wouldLead } from '@acolhida/core/booking'
import { byMail } from '@acolhida/core/people'
import { type Practice, placeOf, zoneOf } from '@acolhida/core/practice'
import { type Instant, zone } from '@acolhida/core/time'

export interface CostWish {
  practice: Practice
  since: Instant
}
export type CostTold = { cost: WouldCost; lead: WouldLead | undefined } | { problem: string }

/** What the rules as they stand would have meant for what is in the record, off the main thread. */
self.addEventListener('message', async ({ data }: MessageEvent<CostWish>) => {
  const tell = (told: CostTold): void => self.postMessage(told)
  try {
    // Which database it is must be asked; what is said to this worker meanwhile must not be missed.
    const { db } = await import('../data/db.ts')
    const { practice, since } = data
    const { houseRules, profile } = practice
    const [cancelled, missed] = await Promise.all(
      ['cancelled', 'missed'].map((status) => db.bookings.where('status').equals(status).toArray()),
    )
    const cost = wouldHaveCost(cancelled!, houseRules, since, ({ place }) =>
      zoneOf(practice, placeOf(practice, place)),
    )
    const theirs = byMail([...cancelled!, ...missed!])
    const people = await db.people
      .where('emails')
      .anyOf([...theirs.keys()])
      .distinct()
      .toArray()
    const each = people.map(({ emails }) => emails.flatMap((mail) => theirs.get(mail) ?? []))
    const { counting } = houseRules
    tell({ cost, lead: counting && wouldLead(counting, each, since, zone(profile.zone)) })
  } catch (error) {
    tell({ problem: (error as Error).message })
  }
})
