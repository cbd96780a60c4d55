import type { Questionnaire as FhirQuestionnaire } from 'fhir/r4'
import { fromFhir, type ReadFhir } from '../formats/fhir/index.ts'
import type { Questionnaire } from '../questions/index.ts'
import { joi as Joi } from './joi.ts'
import { questionnaire } from './questionnaire.ts'
import { BadData, letIn } from './read.ts'
import { byHand } from './schema.ts'

/** The types of items of HL7 FHIR R4 (value set item-type). */
const TYPES = [
  ...['group', 'display', 'question', 'boolean', 'decimal', 'integer', 'date', 'dateTime', 'time', 'string'],
  ...['text', 'url', 'choice', 'open-choice', 'attachment', 'reference', 'quantity'],
]

const extension = Joi.array().items(Joi.object({ url: Joi.string().required() }).unknown())
const enableWhen = Joi.object({
  question: Joi.string().required(),
  operator: Joi.string().valid('exists', '=', '!=', '>', '<', '>=', '<=').required(),
})
  .pattern(/^answer/, Joi.any())
  .unknown()

/** As much of the standard's structure as is read; what else a file holds is let by and not looked at. */
const item = Joi.object({
  linkId: Joi.string().max(255).required(),
  text: Joi.string().max(5_000),
  type: Joi.string()
    .valid(...TYPES)
    .required(),
  enableWhen: Joi.array().items(enableWhen).max(100),
  // With several conditions the standard asks for it (que-12); R4 files in the world leave it out, which means "all".
  enableBehavior: Joi.string().valid('all', 'any'),
  required: Joi.boolean(),
  repeats: Joi.boolean(),
  answerOption: Joi.array().items(Joi.object().unknown()).max(500),
  extension,
  item: Joi.array().items(Joi.link('#questionnaireItem')).max(1_000),
})
  .unknown()
  .id('questionnaireItem')

/** Its type is given by hand: the standard's is far wider than what is looked at. */
export const fhirQuestionnaire = byHand<FhirQuestionnaire>(
  Joi.object({
    resourceType: Joi.string().valid('Questionnaire').required(),
    title: Joi.string().max(500),
    name: Joi.string().max(500),
    version: Joi.string().max(100),
    extension,
    item: Joi.array().items(item).max(1_000),
  }).unknown(),
)

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
