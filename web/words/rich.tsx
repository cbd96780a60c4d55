import { type Book, bookInForce, type SaidValues } from '@acolhida/core/words'
import { createElement, Fragment, type ReactNode } from 'react'

/** What can stand in a sentence on a page: words, numbers, and parts of the page. */
export type RichValues = Readonly<Record<string, string | number | ReactNode>>

const BOLD = (parts: ReactNode[]): ReactNode => <strong className="text-ink">{parts}</strong>

/**
 * Says sentences of a catalogue on a page, in the tongue in force: plain, or with parts of the page in them; `<b>` is
 * bold.
 */
export function wordsOn<K extends string>(book: Book) {
  const rich = (key: K, values: RichValues = {}): ReactNode => {
    const parts: unknown = bookInForce(book)
      .message(key)
      .format<ReactNode>({ ...values, b: BOLD })
    if (!Array.isArray(parts)) return parts as ReactNode
    // A sentence always has the same parts in the same order.
    return createElement(Fragment, null, ...(parts as ReactNode[]))
  }
  return { say: (key: K, values?: SaidValues) => bookInForce(book).text(key, values), rich }
}
