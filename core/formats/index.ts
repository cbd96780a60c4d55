export * from './backup.ts'
export * from './files.ts'
