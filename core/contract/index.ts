export * from './endpoints.ts'
export * from './types.ts'
