export * from './backup.ts'
export * from './files.ts'
export * from './forgotten.ts'
export * from './free-busy.ts'
