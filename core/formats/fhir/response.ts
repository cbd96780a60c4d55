import type { QuestionnaireResponse, QuestionnaireResponseItem } from 'fhir/r4'
import {
  type Answers,
  type AnswerValue,
  type Asking,
  asked,
  isSealed,
  kindOf,
  newcomer,
  type Question,
  type Questionnaire,
} from '../../questions/index.ts'
import { valueIn } from '../../questions/kinds/kind.ts'
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
  const filled = items.filter((item) => item.item === undefined || item.item.length > 0)
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
  const { fhir } = kindOf(question)
  const head = { linkId: question.id, text: question.text }
  if (fhir.respond) return { ...head, ...fhir.respond(question, value) }
  const values = Array.isArray(value) ? value : [value]
  return {
    ...head,
    answer: values.flatMap((value) => {
      const element = fhir.element?.(question, value)
      return element ? [{ [`value${element.as}`]: element.value }] : []
    }),
  }
}

/** The answers a `QuestionnaireResponse` holds, by the questions of ours; what belongs to none is left out. */
export function fromFhirResponse(questions: readonly Question[], response: QuestionnaireResponse): Answers {
  const answers: Answers = {}
  const visit = (items: readonly QuestionnaireResponseItem[]): void => {
    for (const item of items) {
      const question = questions.find((question) => question.id === item.linkId)
      const own = question && kindOf(question).fhir
      if (question && own?.respond) {
        const value = own.answered?.(item)
        if (value !== undefined) answers[question.id] = value
        continue
      }
      const values = (item.answer ?? []).flatMap((answer) => valueIn(answer) ?? [])
      if (question && values.length > 0) answers[question.id] = own?.answered?.(item) ?? values[0]!
      visit(item.item ?? [])
      for (const answer of item.answer ?? []) visit(answer.item ?? [])
    }
  }
  visit(response.item ?? [])
  return answers
}
