import type { Duration } from '../time/index.ts'
import type { PaymentLine, Practice, Service, Standing } from './types.ts'

/** How long a time waits for a payment that must come first, unless the practice says otherwise. */
export const PAY_TIME = 'P1D' as Duration

/** How long a time waits for a payment that must come first; nothing where there is no way to pay before one comes. */
export const payTimeOf = ({ answering, transfer, cards }: Practice): Duration | undefined =>
  transfer || cards ? (answering.payTime ?? PAY_TIME) : undefined

/** The lines by which somebody pays for a service. */
export const linesFor = ({ payment = [] }: Service, as: Standing): PaymentLine[] =>
  payment.filter(({ standing }) => !standing || standing === as)
