export * from './account-number.ts'
export * from './ledger.ts'
export * from './transfer.ts'
