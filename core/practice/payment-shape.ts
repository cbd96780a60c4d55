import { isoDuration, minor } from '../shape/plain.ts'
import { exactly, id, maybe, number, object, one, tagged, yes } from '../shape/shape.ts'
import type { PaymentLine } from './types.ts'

/** One line of how a price is paid. */
export const paymentLine = exactly<PaymentLine>()(
  object({
    id,
    much: tagged('kind', { sum: { amount: minor }, share: { percent: number(0, 100) }, rest: {} }),
    due: tagged('kind', {
      asking: {},
      word: {},
      before: { by: isoDuration },
      'on-the-day': {},
      after: { by: isoDuration },
    }),
    first: maybe(yes),
    standing: maybe(one('new', 'known')),
  }),
)
