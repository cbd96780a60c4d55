export * from './backup.ts'
export * from './files.ts'
export * from './free-busy.ts'
