import { plainText, written } from './written.ts'

/** A few words. */
export const shortKind = written({
  name: 'A few words',
  example: (n) => `some words ${'again '.repeat(n)}`.trim(),
  problem: plainText(500),
  item: { type: 'string' },
})
