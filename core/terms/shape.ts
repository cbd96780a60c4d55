import { count, epochMs, fingerprintShape, id, languageTag } from '../shape/plain.ts'
import { byHand, exactly, maybe, object, record, text } from '../shape/shape.ts'
import type { Agreement } from './types.ts'

/** One agreement, as records hold it. */
export const agreementShape = exactly<Agreement>()(
  object({
    terms: id,
    version: count,
    fingerprint: fingerprintShape,
    shown: fingerprintShape,
    language: maybe(languageTag),
    fields: maybe(record(id, text(2_000), 50)),
    at: epochMs,
    name: text(200),
    service: id,
    previous: byHand<string>(({ joi }) => joi.string().hex().length(64).allow('')),
  }),
)
