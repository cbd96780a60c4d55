import type { Questionnaire as FhirQuestionnaire } from 'fhir/r4'
import { fromFhir, type ReadFhir } from '../formats/fhir/index.ts'
import type { Questionnaire } from '../questions/index.ts'
import { byHand } from '../shape/shape.ts'
import { BadData } from './bad-data.ts'
import { questionnaire } from './questionnaire.ts'
import { letIn } from './read.ts'

/** The types of items of HL7 FHIR R4 (value set item-type). */
const TYPES = [
  ...['group', 'display', 'question', 'boolean', 'decimal', 'integer', 'date', 'dateTime', 'time', 'string'],
  ...['text', 'url', 'choice', 'open-choice', 'attachment', 'reference', 'quantity'],
]

/**
 * As much of the standard's structure as is read; what else a file holds is let by and not looked at. Its type is given
 * by hand: the standard's is far wider than what is looked at.
 */
export const fhirQuestionnaire = byHand<FhirQuestionnaire>(({ joi }) => {
  const extension = joi.array().items(joi.object({ url: joi.string().required() }).unknown())
  const enableWhen = joi
    .object({
      question: joi.string().required(),
      operator: joi.string().valid('exists', '=', '!=', '>', '<', '>=', '<=').required(),
    })
    .pattern(/^answer/, joi.any())
    .unknown()
  const item = joi
    .object({
      linkId: joi.string().max(255).required(),
      text: joi.string().max(5_000),
      type: joi
        .string()
        .valid(...TYPES)
        .required(),
      enableWhen: joi.array().items(enableWhen).max(100),
      // With several conditions the standard asks for it (que-12); R4 files in the world leave it out, which means "all".
      enableBehavior: joi.string().valid('all', 'any'),
      required: joi.boolean(),
      repeats: joi.boolean(),
      answerOption: joi.array().items(joi.object().unknown()).max(500),
      extension,
      item: joi.array().items(joi.link('#questionnaireItem')).max(1_000),
    })
    .unknown()
    .id('questionnaireItem')
  return joi
    .object({
      resourceType: joi.string().valid('Questionnaire').required(),
      title: joi.string().max(500),
      name: joi.string().max(500),
      version: joi.string().max(100),
      extension,
      item: joi.array().items(item).max(1_000),
    })
    .unknown()
})

/**
 * Reads the text of a FHIR file into a questionnaire that is whole.
 * @throws BadData with the place and the reason
 */
export function readFhirQuestionnaire(
  text: string,
  what: string,
  id: string,
): ReadFhir & { questionnaire: Questionnaire } {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (error) {
    throw new BadData(what, [{ path: '', message: `is not JSON: ${(error as Error).message}` }])
  }
  const fhir = letIn(fhirQuestionnaire, value, what)
  const { questionnaire: read, unread } = fromFhir(fhir)
  return { questionnaire: letIn(questionnaire, { ...read, id }, what), unread }
}
