import { isMail, LONGEST_REPLY, normalMail } from '@acolhida/core/people'
import { type Instant, instant } from '@acolhida/core/time'

/** A mail as a file holds it, before it is put beside somebody. */
export interface ReadMail {
  /** From whom it says it is, in normal form; nobody checks that. */
  from?: string
  /** When it says it was written. */
  at?: Instant
  subject: string
  text: string
  attached: string[]
}

/** A larger file is not read, in bytes. */
export const LARGEST_MAIL = 25_000_000

/** No mail has been written before, in ms: an earlier date is a mistake of whoever wrote it. */
const FIRST_MAIL = Date.UTC(1990, 0, 1)

/** The words of a page that is never shown, a line for each of its lines. */
function wordsOf(html: string): string {
  const page = new DOMParser().parseFromString(html, 'text/html')
  for (const other of page.querySelectorAll('script, style, template')) other.remove()
  for (const end of page.querySelectorAll('br')) end.replaceWith('\n')
  for (const block of page.querySelectorAll('p, div, li, tr, h1, h2, h3, h4, blockquote')) block.append('\n')
  const { textContent } = page.body
  return textContent
    .replaceAll(/[^\S\n]+/g, ' ')
    .replaceAll(/ ?\n[ \n]*/g, (gap) => (gap.split('\n').length > 2 ? '\n\n' : '\n'))
}

/**
 * A mail from a file (RFC 5322 and MIME): from whom, when, and its plain text, made from the HTML where it has none.
 * Nothing in it is opened or fetched.
 * @throws Error with a sentence, when it is none, says nothing, or is too large
 */
export async function readMail(name: string, bytes: Uint8Array<ArrayBuffer>): Promise<ReadMail> {
  if (bytes.length > LARGEST_MAIL)
    throw new Error(`“${name}” is larger than 25 MB. Please copy what matters and put it in as text.`)
  const { default: PostalMime } = await import('postal-mime')
  const found = await PostalMime.parse(bytes, { maxNestingDepth: 50, maxRfc822NestingDepth: 3 }).catch(
    (error: unknown) => {
      throw new Error(`“${name}” can't be read as a mail.`, { cause: error })
    },
  )
  const text = (found.text?.trim() || wordsOf(found.html ?? '')).trim()
  if (!found.from && !found.date && !found.subject)
    throw new Error(`“${name}” is no mail: it says neither from whom it is nor when it was written.`)
  if (!text) throw new Error(`“${name}” holds no words to keep.`)
  const from = normalMail(found.from?.address ?? '')
  const at = Date.parse(found.date ?? '')
  return {
    ...(isMail(from) ? { from } : {}),
    ...(at >= FIRST_MAIL ? { at: instant(at) } : {}),
    subject: (found.subject ?? '').replaceAll(/\s+/g, ' ').trim().slice(0, 300),
    text: text.length > LONGEST_REPLY ? `${text.slice(0, LONGEST_REPLY - 2)} …` : text,
    attached: found.attachments.slice(0, 50).map(({ filename }) => (filename || 'a file').slice(0, 200)),
  }
}
