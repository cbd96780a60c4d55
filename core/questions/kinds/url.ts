import { written } from './written.ts'

/** A web address. */
export const urlKind = written({
  name: 'A web address',
  example: (n) => `https://example.org/page${n || ''}`,
  problem: (text) =>
    /^https?:\/\/[^\s/.]+(\.[^\s/.]+)+(\/\S*)?$/i.test(text)
      ? undefined
      : 'Please give a web address that begins with https://',
  item: { type: 'url' },
  element: (value) => ({ as: 'Uri', value }),
})
