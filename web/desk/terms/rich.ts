import type { Piece, TermsField, TextBlock } from '@acolhida/core/terms'
import type { JSONContent } from '@tiptap/core'

/** What a field is called where it stands in a text. */
export const FIELD_NAMES: Record<TermsField, string> = {
  practitioner: 'my name',
  service: 'the service',
  notice: 'the notice',
  'free-until': 'free until',
  'late-cost': 'what cancelling costs after that',
  moves: 'how often to move',
  grace: 'minutes of grace',
  'my-side': 'my side of it',
}

const pieceOut = (piece: Piece): JSONContent =>
  'field' in piece
    ? { type: 'field', attrs: { name: piece.field } }
    : {
        type: 'text',
        text: piece.text,
        marks: [
          ...(piece.bold ? [{ type: 'bold' }] : []),
          ...(piece.href ? [{ type: 'link', attrs: { href: piece.href } }] : []),
        ],
      }

const paragraph = (pieces: readonly Piece[]): JSONContent => ({
  type: 'paragraph',
  content: pieces.filter((piece) => 'field' in piece || piece.text !== '').map(pieceOut),
})

/** A clause as the editor takes it. */
export const toEditor = (blocks: readonly TextBlock[]): JSONContent => ({
  type: 'doc',
  content: blocks.map((block) =>
    'p' in block
      ? paragraph(block.p)
      : {
          type: block.ordered ? 'orderedList' : 'bulletList',
          content: block.list.map((line) => ({ type: 'listItem', content: [paragraph(line)] })),
        },
  ),
})

function pieceIn({ type, text, attrs, marks = [] }: JSONContent): Piece[] {
  if (type === 'field') return [{ field: attrs?.name as TermsField }]
  if (type === 'hardBreak') return [{ text: '\n' }]
  if (type !== 'text' || !text) return []
  const href = marks.find((mark) => mark.type === 'link')?.attrs?.href as string | undefined
  const bold = marks.some((mark) => mark.type === 'bold')
  return [{ text, ...(bold ? { bold } : {}), ...(href ? { href } : {}) }]
}

const linesIn = (node: JSONContent): Piece[][] =>
  (node.content ?? []).flatMap((child) =>
    child.type === 'paragraph' ? [(child.content ?? []).flatMap(pieceIn)] : linesIn(child),
  )

/** What the editor holds as a clause: paragraphs and lists of one level, and nothing else. */
export const fromEditor = (doc: JSONContent): TextBlock[] =>
  (doc.content ?? []).flatMap((node): TextBlock[] => {
    if (node.type === 'paragraph') {
      const pieces = (node.content ?? []).flatMap(pieceIn)
      return pieces.length > 0 ? [{ p: pieces }] : []
    }
    if (node.type !== 'bulletList' && node.type !== 'orderedList') return []
    const list = linesIn(node).filter((line) => line.length > 0)
    return list.length > 0 ? [{ list, ...(node.type === 'orderedList' ? { ordered: true } : {}) }] : []
  })
