export * from './decimal.ts'
export * from './rounding.ts'
export * from './words.ts'
