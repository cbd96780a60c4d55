const MARKS: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
}

/** A text as it can stand in HTML, between tags and in quoted attributes. */
export const escapeHtml = (text: string): string => text.replaceAll(/[&<>"']/g, (mark) => MARKS[mark]!)

/**
 * A value as JSON that can stand in a block of data in HTML: nothing in it ends the block, or begins a comment in it
 * (HTML Living Standard, "Restrictions for contents of script elements").
 */
export const jsonForHtml = (value: unknown): string =>
  JSON.stringify(value).replaceAll(
    /[<>&\u2028\u2029]/g,
    (mark) => `\\u${mark.charCodeAt(0).toString(16).padStart(4, '0')}`,
  )
