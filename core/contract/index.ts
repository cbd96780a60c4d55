export * from './endpoints.ts'
export * from './line-types.ts'
export * from './trouble.ts'
export * from './types.ts'
