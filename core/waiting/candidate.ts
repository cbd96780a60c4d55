/** Somebody who could have a session in a freed time. All times are whole minutes from where the freed time begins. */
export interface Candidate {
  id: string
  minutes: number
  /** Kept clear before and after. */
  before: number
  after: number
  /** What the session is worth: its price in minor units, or its minutes. A whole number, not below nothing. */
  value: number
  /** For how long they have waited, in whole hours: decides between choices of the same value. */
  waited: number
  /** Where it could begin, ascending. */
  starts: readonly number[]
}
