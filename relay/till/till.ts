import type { ForTill, TillSays } from '@acolhida/core/house'
import type { Instant } from '@acolhida/core/time'

/** What the till is asked for, and where the client is sent back to: coming back proves nothing. */
export interface TillWants extends ForTill {
  back: string
}

/** Money to be taken from a card that the till keeps. */
export interface Charge extends Pick<TillWants, 'payment' | 'booking' | 'amount' | 'currency' | 'title'> {
  /** The till's own key to the card. */
  card: string
}

/** What the till tells of a payment; `open` while it has not ended, `unknown` where it was never asked for there. */
export type TillStands = TillSays | 'open' | 'unknown'

/** The till does not answer, or not as it should. Nothing is known of what it was asked for. */
export class TillAway extends Error {}
/** A message that is not the till's, or not a fresh one. */
export class NotSigned extends Error {}

/**
 * What the relay needs of whoever takes cards. A provider is one file that does this; everything asked of it can be asked
 * again, by the same name, any number of times, and happens once.
 */
export interface Till {
  /** Whether money is meant. */
  readonly live: boolean
  /** Asks for a payment or a card. @returns the address of the page that the client is sent to. @throws TillAway */
  ask(wanted: TillWants): Promise<{ page: string }>
  /** How a payment stands. @throws TillAway */
  look(payment: string): Promise<TillStands>
  /** Takes money from a card that is kept. @returns what came of it. @throws TillAway */
  charge(charge: Charge): Promise<TillStands>
  /** Gives back what came by a payment, or part of it; `name` names this giving. @throws TillAway */
  giveBack(of: { payment: string; name: string; amount: number }): Promise<void>
  /**
   * Reads a message of the till's.
   * @param raw the body as it came, before anything is made of it
   * @throws NotSigned
   */
  read(
    request: {
      method: string
      path: string
      headers: Readonly<Record<string, string | string[] | undefined>>
    },
    raw: Uint8Array,
    now: Instant,
  ): Promise<TillSays>
}
