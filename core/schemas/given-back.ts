import { fingerprintShape } from '../shape/plain.ts'
import { list, maybe, object, pattern, unique } from '../shape/shape.ts'
import { bookingRecord, enquiryAsked } from './files.ts'
import { freedEvent, lineEvent } from './waiting.ts'

const name = pattern(/^[^\p{Cc}]{1,80}$/u, 80)

/** What a desk gives back to its relay: records, as backups have them. */
export const givenBack = object({
  bookings: unique(bookingRecord, 1_000),
  lines: unique(object({ id: name, events: list(lineEvent, 10_000, 1) }), 1_000),
  freed: unique(object({ id: name, events: list(freedEvent, 10_000, 1) }), 1_000),
  enquiries: unique(object(enquiryAsked), 1_000),
  chain: maybe(fingerprintShape),
})
