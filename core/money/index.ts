export * from './rounding.ts'
export * from './words.ts'
