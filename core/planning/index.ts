export * from './plan.ts'
export * from './rhythm.ts'
