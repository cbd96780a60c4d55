export * from './enquiry-letters.ts'
export * from './letters.ts'
