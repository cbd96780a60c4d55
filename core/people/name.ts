/** One line in which everything can be seen: no control or format characters, no halves of characters. */
const SEEN = /^[^\p{Cc}\p{Cf}\p{Cs}]*$/u

const UNSEEN = /[\p{Cc}\p{Cf}\p{Cs}]/gu

/** A text without what can't be seen in it. @param instead what stands there then */
export const withoutUnseen = (text: string, instead = ''): string => text.replaceAll(UNSEEN, instead)

/** A text as it is compared: without marks above letters, in small letters. */
export const plainLetters = (text: string): string =>
  text.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase()

/** Endings of domains that nobody is called by, however they are written. */
const ENDINGS = 'com|net|org|info|biz|online|shop|site|store|xyz|top|click|link|app|dev|club|live|vip|pro|io'

/**
 * What mail programs make a link of (common practice, no source): an address with its scheme, `www.`, a domain, a
 * mailbox. “J.R. Silva” and “St.John” are names; “silva.example” is none.
 */
const WEB = new RegExp(`[/@\\\\]|www\\.|[\\p{L}\\p{N}-]{2,}\\.(?:${ENDINGS})(?![\\p{L}\\p{N}])`, 'iu')
const SMALL_DOMAIN = /[\p{L}\p{N}-]{2,}\.\p{Ll}{2,}(?![\p{L}\p{N}.])/u

/** What hinders a text from being somebody's name: something unseen in it, or a web address. */
export function nameProblem(text: string): 'unseen' | 'address' | undefined {
  const plain = text.normalize('NFKC')
  if (!SEEN.test(text)) return 'unseen'
  return WEB.test(plain) || SMALL_DOMAIN.test(plain) ? 'address' : undefined
}

/** The longest name in a mail to an address that nobody has shown to be theirs. */
const SHORT = 24

/** As much of a name as may be written to somebody who may never have typed it: a word, and no sentence. */
export const shortName = (name: string): string => (name.trim().split(/\s+/)[0] ?? '').slice(0, SHORT)
