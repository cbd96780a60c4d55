export * from './enquiry-letters.ts'
export type { Letter, Step } from './letter.ts'
export * from './letters.ts'
