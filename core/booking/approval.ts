import type { Service, Standing } from '../practice/types.ts'
import type { Reading } from '../questions/index.ts'
import type { Mark } from './record.ts'

/** What the practitioner should know of who asks, in the order in which it is said. */
export const MARK_WORDS: Record<Mark, string> = {
  blocked: 'You have blocked this person; they see what anybody sees.',
  'not-invited': 'They came by the service’s own link, and you have not invited them.',
  'ask-always': 'You look at every request of this person.',
  'not-online': 'They may not book online for a time, after what they missed or cancelled late.',
  'pay-first': 'They pay before it is booked for a time, after what they missed or cancelled late.',
  ask: 'You look first for a time, after what they missed or cancelled late.',
}

/**
 * Whether a request needs the practitioner's word, and why. `undefined`: it is booked straight in.
 * @param straight whether everything of this person that fits goes straight in
 */
export function wordNeeded(
  service: Service,
  standing: Standing,
  reading: Reading,
  marks: readonly Mark[] = [],
  straight = false,
): string | undefined {
  // Paying first asks for no word.
  const mark = (Object.keys(MARK_WORDS) as Mark[]).find((one) => one !== 'pay-first' && marks.includes(one))
  if (mark) return MARK_WORDS[mark]
  if (!straight && service.approval[standing] === 'ask') {
    return standing === 'new'
      ? 'You look at every newcomer to this service.'
      : 'You look at every request for this service.'
  }
  if (reading.outcome === 'fits') return undefined
  return 'Your rules ask you to look.'
}
