import { withoutUnseen } from '@acolhida/core/people'
import {
  documentSize,
  LARGEST_DOCUMENT,
  MOST_DOCUMENTS,
  type Practice,
  type Preparation,
} from '@acolhida/core/practice'
import { kindOfFile, sizeInWords } from '@acolhida/core/questions'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { FileButton } from '../parts/file.tsx'

type Letter = Extract<Preparation, { is: 'read' }>

/** A PDF as it travels with the practice. @throws Error with a sentence where it is none, or too large */
async function pdfOf(file: File, others: number): Promise<NonNullable<Letter['document']>> {
  const most = sizeInWords(LARGEST_DOCUMENT)
  if (file.size > LARGEST_DOCUMENT)
    throw new Error(`“${file.name}” has ${sizeInWords(file.size)}; ${most} are the most of one letter.`)
  if (others + file.size > MOST_DOCUMENTS)
    throw new Error(`All PDFs of your letters together may have ${sizeInWords(MOST_DOCUMENTS)}.`)
  const bytes = new Uint8Array(await file.arrayBuffer())
  if (kindOfFile(bytes) !== 'pdf') throw new Error(`“${file.name}” is no PDF.`)
  let text = ''
  // In pieces: all at once are more arguments than a call takes.
  for (let at = 0; at < bytes.length; at += 8_192)
    text += String.fromCharCode(...bytes.subarray(at, at + 8_192))
  const name = withoutUnseen(file.name.replace(/\.pdf$/i, ''), ' ')
    .trim()
    .slice(0, 120)
  return { name: name || 'Letter', data: `data:application/pdf;base64,${btoa(text)}` }
}

/** How large the PDFs of all other letters are, in bytes. */
const othersOf = ({ preparations = [] }: Practice, id: string): number =>
  preparations.reduce(
    (sum, other) =>
      other.is === 'read' && other.document && other.id !== id ? sum + documentSize(other.document) : sum,
    0,
  )

/** A PDF that belongs to a letter: chosen, told, taken away. */
export function LetterPdf({
  practice,
  one: { id, document },
  change,
}: {
  practice: Practice
  one: Letter
  change: (p: Practice, to: (of: Preparation) => Preparation) => Practice
}) {
  const keep = (next: Letter['document']) =>
    changePractice(db, 'a letter', (p) =>
      change(p, (of) => {
        if (of.is !== 'read') return of
        const { document: _, ...rest } = of
        return next ? { ...rest, document: next } : rest
      }),
    )
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3">
      <FileButton
        accept=".pdf,application/pdf"
        onFile={async (file) => keep(await pdfOf(file, othersOf(practice, id)))}
      >
        {document ? 'Another PDF' : 'A PDF with it, or instead…'}
      </FileButton>
      {document && (
        <>
          <span className="text-[14px] wrap-anywhere">
            {document.name}, {sizeInWords(documentSize(document))}
          </span>
          <ActButton className="press press-no" onAct={() => keep(undefined)}>
            Take it away
          </ActButton>
        </>
      )}
    </div>
  )
}
