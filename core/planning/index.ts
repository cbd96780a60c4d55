export * from './moved-on.ts'
export * from './plan.ts'
export * from './rhythm.ts'
