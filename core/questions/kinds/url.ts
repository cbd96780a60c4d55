import { written } from './written.ts'

/** A web address. */
export const urlKind = written({
  name: 'A web address',
  example: (n) => `https://example.org/page${n || ''}`,
  problem: (text) =>
    /^(https?:\/\/)?[^\s/.:@]+(\.[^\s/.:@]+)+(:\d+)?(\/\S*)?$/i.test(text) ? undefined : { code: 'no-web' },
  item: { type: 'url' },
  element: (value) => ({ as: 'Uri', value }),
})
