export * from './letters.ts'
