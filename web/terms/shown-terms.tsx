import type { Piece, ShownTerms, TextBlock } from '@acolhida/core/terms'
import { createElement, Fragment, type ReactNode } from 'react'

function pieceOnPage(piece: Piece): ReactNode {
  if ('field' in piece) return `{${piece.field}}`
  const words = piece.bold ? createElement('strong', null, piece.text) : piece.text
  return piece.href ? (
    <a className="way" href={piece.href} target="_blank" rel="noopener noreferrer">
      {words}
    </a>
  ) : (
    words
  )
}

/** Parts that stand in one order and never in another need no names. */
const inOrder = (parts: readonly ReactNode[]): ReactNode => createElement(Fragment, null, ...parts)

const line = (pieces: readonly Piece[]): ReactNode => inOrder(pieces.map(pieceOnPage))

function blockOnPage(block: TextBlock): ReactNode {
  if ('p' in block) return createElement('p', { className: 'mt-1.5 whitespace-pre-line' }, line(block.p))
  const className = `mt-1.5 pl-6 ${block.ordered ? 'list-decimal' : 'list-disc'}`
  const items = block.list.map((one) => createElement('li', null, line(one)))
  return createElement(block.ordered ? 'ol' : 'ul', { className }, ...items)
}

/** A text that was written in the editor, as somebody reads it. */
export const BlocksText = ({ blocks }: { blocks: readonly TextBlock[] }) => (
  <>{inOrder(blocks.map(blockOnPage))}</>
)

/** Terms as somebody reads them: a plain text, or clause by clause with each in short. */
export function ShownTermsText({ shown, more }: { shown: ShownTerms; more: string }) {
  if (typeof shown === 'string') return <p className="whitespace-pre-line">{shown}</p>
  return (
    <>
      {shown.clauses.map(({ title, short, text }) => (
        <section key={title} className="mt-3 first:mt-0">
          <h3>{title}</h3>
          {short && <p className="mt-0.5 font-semibold text-leaf">{short}</p>}
          {inOrder(text.map(blockOnPage))}
        </section>
      ))}
      {shown.document && (
        <p className="mt-3">
          <a className="way" href={shown.document} target="_blank" rel="noopener noreferrer">
            {more}
          </a>
        </p>
      )}
    </>
  )
}
