import { withoutUnseen } from './name.ts'

/** The shape of a mail address, for schemas. */
export const MAIL_SHAPE = /^[^\s@<>"(),:;\\[\]]+@[^\s@<>"(),:;\\[\]]+\.[^\s@<>"(),:;\\[\].]+$/

/**
 * The shape of a mail address as it is taken in now: besides, without anything unseen in it (control and format
 * characters, halves of characters), which would let one address look like another.
 */
export const TYPED_MAIL =
  /^[^\s@<>"(),:;\\[\]\p{Cc}\p{Cf}\p{Cs}]+@[^\s@<>"(),:;\\[\]\p{Cc}\p{Cf}\p{Cs}]+\.[^\s@<>"(),:;\\[\].\p{Cc}\p{Cf}\p{Cs}]+$/u

const PLAIN = /^[\x21-\x7e]+$/

/** A domain as the DNS has it (IDNA by UTS #46, as the URL Standard asks of every host); as it is where it is none. */
function domainOf(typed: string): string {
  const url = `http://${typed}`
  if (!URL.canParse(url)) return typed
  const { hostname } = new URL(url)
  // Numbers are read as addresses by the URL Standard, and are none here.
  return /^[\d.]+$/.test(hostname) ? typed : hostname
}

/**
 * A mail address as it is kept and compared: however it was typed, it counts as what it is. Wide letters, ligatures and
 * the like are told as their plain ones (NFKC, Unicode Standard Annex #15), what can't be seen does not count, and the
 * domain is as the DNS has it.
 */
export function normalMail(email: string): string {
  const trimmed = email.trim()
  if (PLAIN.test(trimmed)) return trimmed.toLowerCase()
  const plain = withoutUnseen(trimmed.normalize('NFKC')).toLowerCase()
  const at = plain.lastIndexOf('@')
  return at < 0 ? plain : `${plain.slice(0, at)}@${domainOf(plain.slice(at + 1))}`
}

/** An address as it is counted: what stands behind a plus sign leads to the same box (common practice, no source). */
export function countedMail(email: string): string {
  const normal = normalMail(email)
  const at = normal.lastIndexOf('@')
  const plus = normal.indexOf('+')
  return plus > 0 && plus < at ? normal.slice(0, plus) + normal.slice(at) : normal
}

/** Whether a text has the shape of a mail address; whether it is one shows when the link sent to it is followed. */
export const isMail = (text: string): boolean => text.length <= 254 && TYPED_MAIL.test(text.trim())

/** The shape of a phone number, for schemas. */
export const PHONE_SHAPE = /^[0-9+()\-.\s/]*$/

/** Whether a text can be a phone number as people write them. */
export const isPhone = (text: string): boolean => text.length <= LONGEST_PHONE && PHONE_SHAPE.test(text)

/** Characters of a phone number at most. */
export const LONGEST_PHONE = 40
