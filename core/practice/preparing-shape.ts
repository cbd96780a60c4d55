import { id, isoDuration, pageAddress } from '../shape/plain.ts'
import {
  exactly,
  line,
  list,
  maybe,
  object,
  one,
  oneOf,
  pattern,
  type Schema,
  tagged,
  text,
  whole,
  yes,
} from '../shape/shape.ts'
import { type Piece, TERMS_FIELDS, type TextBlock } from '../terms/types.ts'
import { DUE_FROM, LARGEST_DOCUMENT, type Preparation } from './preparation.ts'

/** Where a link in a text may lead: a page, or a mail. */
export const linkTo = pattern(/^(https?:\/\/|mailto:)\S{3,500}$/, 510)
const piece: Schema<Piece> = oneOf(
  [{ field: true }, object({ field: one(...TERMS_FIELDS) })],
  [{}, object({ text: text(5_000), bold: maybe(yes), href: maybe(linkTo) })],
)
const pieces = list(piece, 500)
/** A paragraph or a list of a text that was written in the editor. */
export const textBlock: Schema<TextBlock> = oneOf(
  [{ list: true }, object({ list: list(pieces, 200), ordered: maybe(yes) })],
  [{}, object({ p: pieces })],
)

/** By when something is to be done. */
export const preparationDueShape = object({ from: one(...DUE_FROM), by: isoDuration })

/** A PDF begins with `%PDF-` (ISO 32000-1, 7.5.2), in base64 so. */
const document = object({
  name: line(120),
  data: pattern(
    /^data:application\/pdf;base64,JVBERi0[A-Za-z0-9+/]*={0,2}$/,
    Math.ceil(LARGEST_DOCUMENT / 3) * 4 + 100,
    '{{#label}} is no PDF',
  ),
})

const common = {
  id,
  name: line(120),
  minutes: maybe(whole(1, 600)),
  due: preparationDueShape,
  once: maybe(yes),
}
/** What a client reads, signs, fills, brings or ticks. */
export const preparationShape = exactly<Preparation, TextBlock | Piece>()(
  tagged('is', {
    read: { ...common, text: list(textBlock, 500), document: maybe(document) },
    sign: { ...common, terms: id },
    answer: { ...common, questionnaire: id },
    bring: { ...common, text: text(2_000) },
    tick: { ...common, text: text(2_000), address: maybe(pageAddress) },
  }),
)
