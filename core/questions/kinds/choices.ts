import type { QuestionnaireItemAnswerOption } from 'fhir/r4'
import { line, maybe, number, object, id as ownId, unique } from '../../shape/shape.ts'
import type { Choice } from '../base.ts'
import { type Element, FHIR, type Listed } from './kind.ts'

/** The shape of choices. */
export const choices = unique(
  object({ id: ownId, text: line(300), points: maybe(number(-1_000, 1_000)) }),
  100,
  1,
)

/** Choices to begin with. */
const FIRST = [
  { id: 'first', text: 'First' },
  { id: 'second', text: 'Second' },
]

/** The choices of a new question, from what the kind before had listed. */
export const begun = (listed: Listed): { id: string; text: string }[] =>
  (listed.length > 0 ? listed : FIRST).map(({ id, text }) => ({ id, text }))

/** What a choice is called; its name where it is gone. */
export const choiceName = (list: readonly Choice[], id: unknown): string =>
  list.find((choice) => choice.id === id)?.text ?? String(id)

/** The options of a choice, with what they are worth as ordinal values. */
export const codingsOf = (list: readonly Choice[]): QuestionnaireItemAnswerOption[] =>
  list.map(({ id, text, points }) => ({
    valueCoding: {
      ...(points === undefined ? {} : { extension: [{ url: FHIR.ordinal, valueDecimal: points }] }),
      code: id,
      display: text,
    },
  }))

export const codingOf = (list: readonly Choice[], id: unknown): Element => {
  const choice = list.find((choice) => choice.id === id)
  return { as: 'Coding', value: { code: String(id), ...(choice ? { display: choice.text } : {}) } }
}

/** The choices of an item that is read; nothing where they stand in another file. */
export function readChoices(
  type: string,
  found: Choice[],
  say: (what: string) => void,
): Choice[] | undefined {
  if (type === 'open-choice') say('only its choices can be answered, not other words.')
  if (found.length > 0) return found
  say('its choices stand in another file; it is asked in words.')
  return undefined
}
