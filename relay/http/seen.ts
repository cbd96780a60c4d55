import { Refused } from '@acolhida/core/request'

/** Control characters but for tabs and ends of lines, and halves of characters: nobody types them. */
const UNSEEN = /(?![\t\n\r])[\p{Cc}\p{Cs}]/u

/**
 * Makes sure that nothing in a client's body is made of characters that nobody can have typed: they stand for addresses
 * inside, and blank whatever shows them.
 * @throws Refused naming the place
 */
export function checkSeen(value: unknown): void {
  // Not by calling itself: a body may be nested thousands deep.
  const waiting: { at: string; value: unknown }[] = [{ at: '', value }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { at, value: one } = next
    if (typeof one === 'string') {
      if (UNSEEN.test(one)) throw new Refused(400, 'malformed.unseen', { where: at })
    } else if (one !== null && typeof one === 'object') {
      for (const [key, inner] of Object.entries(one)) {
        if (UNSEEN.test(key)) throw new Refused(400, 'malformed.unseen', { where: at })
        waiting.push({ at: at.length < 200 ? `${at}${at ? '.' : ''}${key}` : at, value: inner })
      }
    }
  }
}
