import { written } from './written.ts'

/** A phone number. How long numbers are in each country is looked at in the form; here only that it can be one (ITU-T E.164). */
export const phoneKind = written({
  name: 'A phone number',
  example: (n) => `+351 239 555 ${String(100 + n).padStart(4, '0')}`,
  problem: (text) =>
    /^\+?[0-9()\-.\s/]{5,40}$/.test(text) && /^\d{5,15}$/.test(text.replaceAll(/\D/g, ''))
      ? undefined
      : { code: 'no-phone' },
  item: { type: 'string', named: true },
})
