import type { Booking, Harm } from '@acolhida/core/booking'

/** A change of the practice takes something from what is booked; it has not been done. */
export class WouldHurt extends Error {
  constructor(
    readonly hurt: readonly { booking: Booking; harm: Harm }[],
    /** From now on the very same change, with the very same consequences, is done. */
    readonly agree: () => void,
  ) {
    super('This takes something from what is booked, and has not been done.')
    this.name = 'WouldHurt'
  }
}
