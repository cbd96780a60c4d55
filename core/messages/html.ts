import { escapeHtml } from '../words/html.ts'

/** Web addresses in a text; what ends a sentence is no part of them. */
const ADDRESS = /https?:\/\/[^\s<>"]+[^\s<>".,;:!?)\]]/g

/** A text with its web addresses as links; all else stays text. */
function linked(text: string): string {
  let said = ''
  let from = 0
  for (const { index, 0: address } of text.matchAll(ADDRESS)) {
    said += `${escapeHtml(text.slice(from, index))}<a href="${escapeHtml(address)}">${escapeHtml(address)}</a>`
    from = index + address.length
  }
  return said + escapeHtml(text.slice(from))
}

/**
 * A letter as simple HTML, from the same text that goes as plain: paragraphs, lines and links, nothing else. Whatever
 * was typed into a field stays text.
 * @param language by its tag, and how it is written, for whoever reads it aloud
 */
export function letterHtml(text: string, language: string, direction: 'ltr' | 'rtl'): string {
  const paragraphs = text
    .split(/\n{2,}/)
    .filter((part) => part.trim())
    .map((part) => `<p>${part.split('\n').map(linked).join('<br>')}</p>`)
  return `<!doctype html><html lang="${escapeHtml(language)}" dir="${direction}"><head><meta charset="utf-8"></head><body>${paragraphs.join('')}</body></html>`
}
