export * from './account-number.ts'
export * from './invoice.ts'
export * from './ledger.ts'
export * from './transfer.ts'
