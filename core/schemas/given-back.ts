import { fingerprintShape } from '../shape/plain.ts'
import { maybe, object, unique, whole } from '../shape/shape.ts'
import { bookingRecord, courseRecord, enquiryAsked, freedRecord, lineRecord } from './files.ts'

/** What a desk gives back to its relay: records, as backups have them. */
export const givenBack = object({
  bookings: unique(bookingRecord, 1_000),
  lines: unique(lineRecord, 1_000),
  freed: unique(freedRecord, 1_000),
  courses: unique(courseRecord, 1_000),
  enquiries: unique(object(enquiryAsked), 1_000),
  chain: maybe(fingerprintShape),
  numbered: maybe(whole(1, 1_000_000_000)),
})
