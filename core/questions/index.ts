export * from './answers.ts'
export * from './conditions.ts'
export * from './reading.ts'
export * from './types.ts'
