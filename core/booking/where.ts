import { placeOf, serviceOf } from '../practice/find.ts'
import type { Place, Practice } from '../practice/types.ts'
import { sha256Hex } from '../terms/fingerprint.ts'
import type { Instant } from '../time/index.ts'
import type { Booking } from './record.ts'
import { stateAt } from './state.ts'
import { isTold } from './told.ts'

/** What stands for a room of its own in the address of a place. */
export const ROOM = '{code}'

/** How many characters a room's code has: as hard to guess as 80 bits. */
const CODE = 20

/**
 * The code of a booking's own room: made from the place's secret key and the booking, so that no two clients ever
 * share one. Those in one session of a group meet in one.
 */
function roomOf({ roomKey = '' }: Place, practice: Practice, { id, service, start }: Booking): string {
  const group = (serviceOf(practice, service)?.seats ?? 1) > 1
  return sha256Hex(`${roomKey} ${group ? `${service} ${start}` : id}`).slice(0, CODE)
}

/** Where a booking takes place: at the client's their own address; else the place's, with a room of its own. */
export function whereAt(practice: Practice, booking: Booking): string | undefined {
  const place = placeOf(practice, booking.place)
  if (place?.kind === 'client') return booking.asked.address
  return place?.address?.replaceAll(ROOM, () => roomOf(place, practice, booking))
}

/** As its client may be told it at `now`, by the rule of the place. */
export function addressTold(practice: Practice, booking: Booking, now: Instant): string | undefined {
  const place = placeOf(practice, booking.place)
  if (place?.kind === 'client') return booking.asked.address
  // A room is nobody's before it is booked.
  const told = place && (place.address?.includes(ROOM) && place.told === 'door' ? 'confirmation' : place.told)
  return place && told && isTold({ ...place, told }, stateAt(booking, now), booking.start, now)
    ? whereAt(practice, booking)
    : undefined
}
