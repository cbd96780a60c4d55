import type { Instant } from '../time/index.ts'
import type { EnterBody } from './desk-types.ts'

/** Sessions booked in by hand at once, whole or not at all: each is as the others but for its start. */
export interface SeriesBody
  extends Pick<
    EnterBody,
    | 'service'
    | 'place'
    | 'minutes'
    | 'person'
    | 'travel'
    | 'address'
    | 'extras'
    | 'code'
    | 'text'
    | 'silent'
    | 'shown'
  > {
  /** `session`: of the path, which of its sessions this is; its service and length are that's. */
  sessions: { id: string; start: Instant; session?: string }[]
  /** The path that they are sessions of. */
  course?: string
}

/** Sessions moved by the practitioner at once, whole or not at all; each as it was seen, and to where. */
export interface MoveSeriesBody {
  bookings: { booking: string; seen: string; start: Instant }[]
  text?: string
  silent?: boolean
}

/** Sessions cancelled by the practitioner at once, whole or not at all; each as it was seen. */
export interface EndSeriesBody {
  bookings: { booking: string; seen: string }[]
  text?: string
  silent?: boolean
}
