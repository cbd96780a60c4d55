/** The number of this contract: an older page is told to load itself anew. */
export const CONTRACT = 4

export const KB = 1_024

/** Who may call: whoever comes, who holds a private link, the paired desk; the practitioner by a word link, or by their paired phone. */
export type Caller = 'anybody' | 'link' | 'desk' | 'word' | 'day'

/** One thing that can be asked of the relay. `B` is its body, `A` its answer. */
export interface Endpoint<B, A> {
  method: 'GET' | 'POST' | 'PUT'
  /** As Express writes it. */
  path: string
  who: Caller
  /** The largest body, in bytes; no body where it is 0. */
  largest: number
  /** The status of a good answer. */
  status: 200 | 201
  /** Carries an Idempotency-Key, and happens once. */
  once: boolean
  /** At most so many a minute from one address, where that is fewer than the relay's own limit. */
  rate?: number
  /** What it may be refused with, besides what anything may be. */
  codes: readonly string[]
  /** In words, for the documents. */
  says: string
  /** Never there: what goes in and out, for the compiler. */
  readonly goes?: { in: B; out: A }
}

/*@__NO_SIDE_EFFECTS__*/
export const endpoint = <B, A>(
  of: Pick<Endpoint<B, A>, 'method' | 'path' | 'says'> & Partial<Endpoint<B, A>>,
): Endpoint<B, A> => ({ who: 'anybody', largest: 0, status: 200, once: false, codes: [], ...of })

/** What anything may be refused with. */
export const ANYTIME = ['malformed', 'too-large', 'too-many', 'older-page', 'failed'] as const

export const DOOR = ['no-door', 'unknown-door', 'closed-door', 'trial-over'] as const
export const WISH = [
  ...DOOR,
  ...(['unknown-service', 'service-off', 'answers', 'code', 'quote-used', 'quote-over'] as const),
] as const
export const PLACED = [...WISH, 'unknown-place', 'travel', 'closed', 'enquiry-instead'] as const
export const LINK = ['unknown-link', 'no-key', 'key-reused'] as const
export const MINE = [...LINK, 'asks-decides'] as const
export const ANSWERS = 128 * KB
export const DECIDING = [
  'changed',
  'not-proved',
  'not-waiting',
  'not-booked',
  'not-open',
  'too-many-offers',
  'nothing-to-take-back',
] as const
