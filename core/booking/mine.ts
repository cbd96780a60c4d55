import type { HouseRules, MySide } from '../practice/types.ts'
import { before, type Instant, type Zone } from '../time/index.ts'
import type { Booking } from './record.ts'

/** The practitioner's own side of the rules, for one session. */
export type MineAt = Omit<MySide, 'within'> & {
  /** Until when cancelling gives the client nothing, that moment included. */
  until: Instant
}

/** What the practitioner promises for a session that starts then; nothing where the rules promise nothing. */
export function mineAt({ mine }: HouseRules, start: Instant, zone: Zone): MineAt | undefined {
  if (!mine) return undefined
  const { within, ...gives } = mine
  return { ...gives, until: before(start, within, zone) }
}

type Promised = Pick<Booking, 'start'> & { asked: { houseRules: HouseRules } }

/** The share of the price, in percent, that the client gets where the practitioner cancels at `now`. */
export function givesForCancelling({ asked, start }: Promised, zone: Zone, now: Instant): number {
  const mine = mineAt(asked.houseRules, start, zone)
  return mine && now > mine.until ? mine.cancelled : 0
}

/** The share of the price, in percent, that the client gets where the practitioner comes so many minutes late. */
export function givesForLate({ asked }: Pick<Promised, 'asked'>, minutes: number): number {
  const { mine } = asked.houseRules
  return mine && minutes > mine.grace ? mine.late : 0
}

/**
 * What the practitioner's own side gives as a booking stands, in percent of the price, and since when: for coming late
 * to a session that is held; for a time given up late, once it is clear that no other is taken for it.
 */
export function givenIn({ status, gives, runsLate, ended, latest }: Booking): { share: number; at: Instant } {
  switch (status) {
    case 'booked':
    case 'attended':
      return { share: runsLate?.gives ?? 0, at: runsLate?.due ?? latest }
    case 'requested':
    case 'missed':
      return { share: 0, at: latest }
    default:
      return { share: gives ?? 0, at: ended ?? latest }
  }
}
