export * from './apply.ts'
export * from './approval.ts'
export * from './call-off.ts'
export * from './code-uses.ts'
export {
  type Circumstances,
  type ClientDoes,
  type Command,
  type Decision,
  type DeskDoes,
  MOST_OFFERS,
  type Refusal,
  type TillTells,
} from './command.ts'
export * from './counting.ts'
export * from './deadlines.ts'
export * from './decide.ts'
export type { BookingEvent, EarlierEvent, StoredEvent } from './happening.ts'
export * from './hurt.ts'
export { invoiceInForce, invoicesInForce, takenBack } from './invoicing.ts'
export * from './lacking.ts'
export * from './mine.ts'
export * from './others.ts'
export * from './plan.ts'
export * from './readiness.ts'
export * from './record.ts'
export * from './sealing.ts'
export * from './state.ts'
export * from './takes.ts'
export { cardShape, tillSource } from './till-events.ts'
export * from './tilling.ts'
export * from './told.ts'
export * from './upcast.ts'
export * from './where.ts'
export * from './would-cost.ts'
