import type { Language } from '../time/index.ts'
import type { Clause, Piece, ShownTerms, TermsField, TermsText, TermsVersion, TextBlock } from './types.ts'

/** What a version's fields are filled with for one reader. */
export type FieldValues = Readonly<Partial<Record<TermsField, string>>>

const lines = (block: TextBlock): Piece[][] => ('p' in block ? [block.p] : block.list)

/** What a version says in a language: where it is not there in it, as first written. */
export const textIn = (version: TermsVersion, language: Language | undefined): TermsText =>
  (language === undefined ? undefined : version.also?.[language]) ?? version

/** The fields that a version uses, each once. */
export function fieldsIn({ text, clauses = [] }: Pick<TermsVersion, 'text' | 'clauses'>): TermsField[] {
  const found = clauses.flatMap((clause) =>
    clause.text.flatMap((block) =>
      lines(block).flatMap((line) => line.flatMap((piece) => ('field' in piece ? [piece.field] : []))),
    ),
  )
  const plain = (['practitioner', 'service'] as const).filter((field) => text.includes(`{${field}}`))
  return [...new Set<TermsField>([...found, ...plain])]
}

/** The text as it is shown to one person, with `{practitioner}` and `{service}` filled in. */
export const shownText = (text: string, fields: Record<string, string>): string =>
  text.replace(/\{(\w+)\}/g, (whole, key: string) => fields[key] ?? whole)

/** Pieces with their fields as plain words. */
const filledLine = (line: readonly Piece[], values: FieldValues): Piece[] =>
  line.map((piece) => ('field' in piece ? { text: values[piece.field] ?? `{${piece.field}}` } : piece))

const filledBlock = (block: TextBlock, values: FieldValues): TextBlock =>
  'p' in block
    ? { p: filledLine(block.p, values) }
    : { ...block, list: block.list.map((line) => filledLine(line, values)) }

/** A version as one person reads it: what their agreement's `shown` is the fingerprint of. */
export function shownTerms(of: TermsText, values: FieldValues): ShownTerms {
  const { title, text, clauses, document } = of
  if (!clauses) return shownText(text, values as Record<string, string>)
  return {
    title,
    clauses: clauses.map((clause) => ({
      title: clause.title,
      short: clause.short,
      text: clause.text.map((block) => filledBlock(block, values)),
    })),
    ...(document ? { document } : {}),
  }
}

const lineText = (line: readonly Piece[]): string =>
  line
    .map((piece) =>
      'field' in piece ? `{${piece.field}}` : piece.href ? `${piece.text} (${piece.href})` : piece.text,
    )
    .join('')

/** Blocks as plain text, for mails and files: lists with a dash or their number, links behind their words. */
export const blocksText = (blocks: readonly TextBlock[]): string =>
  blocks
    .map((block) =>
      'p' in block
        ? lineText(block.p)
        : block.list.map((line, i) => `${block.ordered ? `${i + 1}.` : '–'} ${lineText(line)}`).join('\n'),
    )
    .join('\n\n')

/** What was shown, as plain text. */
export const shownAsText = (shown: ShownTerms): string =>
  typeof shown === 'string'
    ? shown
    : [
        ...shown.clauses.map(({ title, text }) => `${title}\n${blocksText(text)}`),
        ...(shown.document ? [shown.document] : []),
      ].join('\n\n')

/** A plain text as clauses to be written on with: one, called as the text. */
export const asClauses = ({ title, text, clauses }: TermsText): Clause[] =>
  clauses ?? [
    {
      id: 'clause-1',
      title,
      short: '',
      text: text
        .split(/\n{2,}/)
        .filter((part) => part.trim())
        .map((part): TextBlock => ({ p: withFields(part) })),
    },
  ]

/** Words with `{practitioner}` and `{service}` as fields. */
function withFields(text: string): Piece[] {
  return text.split(/(\{(?:practitioner|service)\})/).flatMap((part): Piece[] => {
    if (part === '') return []
    const field = /^\{(practitioner|service)\}$/.exec(part)?.[1] as TermsField | undefined
    return [field ? { field } : { text: part }]
  })
}

/** Why a clause can't be published, or nothing. */
export function clauseFault({ title, text }: Clause): string | undefined {
  if (!title.trim()) return 'A clause needs a title.'
  const says = text.some((block) =>
    lines(block).some((line) => line.some((piece) => 'field' in piece || piece.text.trim() !== '')),
  )
  return says ? undefined : `“${title}” says nothing yet.`
}
