/** The number of words in a text. */
export const wordsIn = (text: string): number => text.trim().split(/\s+/).filter(Boolean).length

/** The number of sentences in a text; what is written without a full stop is one. */
export function sentencesIn(text: string): number {
  let sentences = 0
  let from = 0
  const part = (to: number): void => {
    if (/[\p{L}\p{N}]/u.test(text.slice(from, to))) sentences++
  }
  for (const { 0: mark, index } of text.matchAll(/[.!?…。！？؟।]+|\n+/gu)) {
    const end = index + mark.length
    // "3.5" and "e.g.this" go on; a line that ends is an end.
    if (mark[0] !== '\n' && end < text.length && !/[\s”’»"')]/.test(text[end] ?? '')) continue
    part(index)
    from = end
  }
  part(text.length)
  return sentences
}

/** Whether a text holds HTML: a tag, not merely a "<" as in "less than". */
export function holdsHtml(text: string): boolean {
  // The first beginning of a tag is enough: what ends a later one ends it, too. So the text is read once.
  const begins = text.search(/<\/?[a-z]/i)
  return text.includes('<!--') || (begins >= 0 && text.includes('>', begins))
}
