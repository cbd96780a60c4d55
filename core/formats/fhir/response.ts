import type {
  QuestionnaireResponse,
  QuestionnaireResponseItem,
  QuestionnaireResponseItemAnswer,
} from 'fhir/r4'
import {
  type Answers,
  type AnswerValue,
  type Asking,
  asked,
  isAttached,
  isQuantities,
  isSealed,
  newcomer,
  type Question,
  type Questionnaire,
} from '../../questions/index.ts'
import { formatInstant, type Instant } from '../../time/index.ts'

/** Answers with what is told about them. */
export interface GivenAnswers {
  id: string
  at: Instant
  answers: Answers
  asking?: Asking
  /** Who answered, as they wrote it. */
  name?: string
}

/** Answers as HL7 FHIR R4 `QuestionnaireResponse`: the questions that were asked, in their parts. */
export function toFhirResponse(
  questionnaire: Pick<Questionnaire, 'id' | 'version' | 'questions'>,
  given: GivenAnswers,
): QuestionnaireResponse {
  const { questions, answers } = asked(questionnaire.questions, given.answers, given.asking ?? newcomer)
  const items: QuestionnaireResponseItem[] = []
  let inside = items
  for (const question of questions) {
    if (question.kind === 'section') {
      const part: QuestionnaireResponseItem = { linkId: question.id, text: question.text, item: [] }
      items.push(part)
      inside = part.item!
      continue
    }
    const item = itemOf(question, answers[question.id])
    if (item) inside.push(item)
  }
  const filled = items.filter((one) => one.item === undefined || one.item.length > 0)
  return {
    resourceType: 'QuestionnaireResponse',
    id: given.id.replaceAll('_', '-').slice(0, 64),
    questionnaire: `Questionnaire/${questionnaire.id.replaceAll('_', '-')}|${questionnaire.version}`,
    status: 'completed',
    authored: formatInstant(given.at),
    ...(given.name ? { source: { display: given.name } } : {}),
    ...(filled.length > 0 ? { item: filled } : {}),
  }
}

function itemOf(question: Question, value: AnswerValue | undefined): QuestionnaireResponseItem | undefined {
  if (value === undefined || isSealed(value)) return undefined
  const head = { linkId: question.id, text: question.text }
  if (question.kind === 'items' && isQuantities(value)) {
    const item = question.items
      .filter((one) => (value[one.id] ?? 0) > 0)
      .map((one) => ({
        linkId: `${question.id}/${one.id}`,
        text: one.text,
        answer: [{ valueInteger: value[one.id]! }],
      }))
    return { ...head, item }
  }
  const values = Array.isArray(value) ? value : [value]
  return { ...head, answer: values.map((one) => answerOf(question, one)) }
}

function answerOf(
  question: Question,
  value: Exclude<AnswerValue, string[]>,
): QuestionnaireResponseItemAnswer {
  if (isAttached(value)) return { valueAttachment: { title: value.name, size: value.size } }
  if ('choices' in question) {
    const choice = question.choices.find((one) => one.id === value)
    return { valueCoding: { code: String(value), ...(choice ? { display: choice.text } : {}) } }
  }
  if (typeof value === 'boolean') return { valueBoolean: value }
  if (typeof value === 'number')
    return question.kind === 'scale' || (question.kind === 'number' && question.whole)
      ? { valueInteger: value }
      : { valueDecimal: value }
  const text = String(value)
  if (question.kind === 'date') return { valueDate: text }
  if (question.kind === 'time') return { valueTime: `${text}:00` }
  return question.kind === 'url' ? { valueUri: text } : { valueString: text }
}

/** The answers a `QuestionnaireResponse` holds, by the questions of ours; what belongs to none is left out. */
export function fromFhirResponse(questions: readonly Question[], response: QuestionnaireResponse): Answers {
  const answers: Answers = {}
  const visit = (items: readonly QuestionnaireResponseItem[]): void => {
    for (const item of items) {
      const question = questions.find((one) => one.id === item.linkId)
      if (question?.kind === 'items') {
        const quantities = Object.fromEntries(
          (item.item ?? []).map((one) => [one.linkId.split('/').at(-1)!, one.answer?.[0]?.valueInteger ?? 0]),
        )
        answers[question.id] = quantities
        continue
      }
      const values = (item.answer ?? []).flatMap((one) => valueIn(one) ?? [])
      if (question && values.length > 0)
        answers[question.id] = question.kind === 'several' ? values.map(String) : values[0]!
      visit(item.item ?? [])
      for (const answer of item.answer ?? []) visit(answer.item ?? [])
    }
  }
  visit(response.item ?? [])
  return answers
}

const valueIn = (answer: QuestionnaireResponseItemAnswer): string | number | boolean | undefined =>
  answer.valueBoolean ??
  answer.valueInteger ??
  answer.valueDecimal ??
  answer.valueCoding?.code ??
  answer.valueDate ??
  answer.valueTime?.slice(0, 5) ??
  answer.valueUri ??
  answer.valueString
