import { isMail, normalMail } from './mail.ts'
import type { Person } from './person.ts'

/** Digits of a phone number, however it is written. */
const digits = (phone: string): string => phone.replaceAll(/\D/g, '')

/**
 * Somebody with what they have answered about how they are reached taken over; nothing where it says what is known. A
 * number takes the place of the one before it. An address comes to stand first, and those before it stay: what came from
 * them is found by them.
 * @param asked the kind of the question
 */
export function corrected<P extends Pick<Person, 'emails' | 'phone'>>(
  person: P,
  asked: string,
  answer: unknown,
): P | undefined {
  if (typeof answer !== 'string' || answer.trim() === '') return
  const said = answer.trim()
  if (asked === 'phone' && digits(said) !== digits(person.phone ?? '')) return { ...person, phone: said }
  if (asked === 'email' && isMail(said) && !person.emails.includes(normalMail(said)))
    return { ...person, emails: [normalMail(said), ...person.emails] }
  return undefined
}
