import { MAIL_SHAPE } from '../../people/mail.ts'
import { written } from './written.ts'

/** A mail address. */
export const emailKind = written({
  name: 'A mail address',
  example: (n) => `name${n || ''}@example.org`,
  problem: (text) => (text.length <= 254 && MAIL_SHAPE.test(text.trim()) ? undefined : { code: 'no-mail' }),
  item: { type: 'string', named: true },
})
