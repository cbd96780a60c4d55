export * from './due.ts'
export * from './subject.ts'
