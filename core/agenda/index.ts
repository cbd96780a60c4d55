export * from './due.ts'
export type { Sealing } from './sealing.ts'
export * from './subject.ts'
