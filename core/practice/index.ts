export * from './begin.ts'
export * from './check.ts'
export * from './find.ts'
export * from './types.ts'
