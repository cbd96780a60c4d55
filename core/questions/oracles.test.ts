import fc from 'fast-check'
import type {
  Questionnaire as FhirQuestionnaire,
  QuestionnaireItem,
  QuestionnaireItemEnableWhen,
} from 'fhir/r4'
import jsonLogic, { type RulesLogic } from 'json-logic-js'
import { describe, expect, it } from 'vitest'
import { toEnableWhen } from '../formats/fhir/conditions.ts'
import { fromFhir, toFhir } from '../formats/fhir/index.ts'
import { conditionOn, everyWay, questionnaireArb } from '../tests/questionnaires.ts'
import {
  type Answers,
  type Condition,
  holds,
  isQuantities,
  newcomer,
  type Questionnaire,
  quantityIn,
} from './index.ts'

/** A condition as json-logic-js has it, comparisons with a missing answer false. */
function toJsonLogic(condition: Condition): RulesLogic {
  if ('all' in condition) return condition.all.length > 0 ? { and: condition.all.map(toJsonLogic) } : true
  if ('any' in condition) return condition.any.length > 0 ? { or: condition.any.map(toJsonLogic) } : false
  if ('not' in condition) return { '!': [toJsonLogic(condition.not)] }
  if ('person' in condition) return { '===': [{ var: 'person' }, condition.person] }
  if (!('question' in condition)) return false
  const { question } = condition
  const there = { '!': [{ missing: [question] }] } as RulesLogic
  if (condition.is === 'answered') return there
  const { is, value } = condition
  const given = { var: question }
  const compared = {
    '=': { '===': [given, value] },
    '≠': { '!==': [given, value] },
    includes: { in: [value, { var: `${question} names` }] },
    '<': { '<': [given, value] },
    '≤': { '<=': [given, value] },
    '>': { '>': [given, value] },
    '≥': { '>=': [given, value] },
  }[is] as RulesLogic
  return { and: [there, compared] }
}

/** Answers as json-logic-js looks at them: items by how many they are, and by the names of those there are. */
function asData(answers: Answers): Record<string, unknown> {
  const data: Record<string, unknown> = { person: 'new' }
  for (const [id, answer] of Object.entries(answers)) {
    data[id] = isQuantities(answer) ? quantityIn(answer) : answer
    if (Array.isArray(answer)) data[`${id} names`] = answer
    if (isQuantities(answer)) data[`${id} names`] = Object.keys(answer).filter((key) => answer[key]! > 0)
  }
  return data
}

/** Whether an item is enabled, by the definitions of the value set questionnaire-enable-operator of R4 (from memory). */
function enabled(item: Pick<QuestionnaireItem, 'enableWhen' | 'enableBehavior'>, answers: Answers): boolean {
  const parts = (item.enableWhen ?? []).map((when) => one(when, answers))
  if (parts.length === 0) return true
  return item.enableBehavior === 'any' ? parts.some(Boolean) : parts.every(Boolean)
}

function one(when: QuestionnaireItemEnableWhen, answers: Answers): boolean {
  const given = answers[when.question]
  const all = given === undefined ? [] : Array.isArray(given) ? given : [given]
  const value = when.answerBoolean ?? when.answerInteger ?? when.answerDecimal ?? when.answerCoding?.code
  switch (when.operator) {
    // "True if whether an answer exists is equal to the enableWhen answer."
    case 'exists':
      return all.length > 0 === when.answerBoolean
    // "True if at least one answer has a value that is equal", "… if no answer has a value that is equal".
    case '=':
      return all.some((answer) => answer === value)
    case '!=':
      return !all.some((answer) => answer === value)
    // "True if at least one answer has a value that is greater than", and so on.
    case '>':
      return all.some((answer) => (answer as number) > (value as number))
    case '<':
      return all.some((answer) => (answer as number) < (value as number))
    case '>=':
      return all.some((answer) => (answer as number) >= (value as number))
    default:
      return all.some((answer) => (answer as number) <= (value as number))
  }
}

/** Some of the ways through a questionnaire, spread over all of them. */
const someWays = (questionnaire: Questionnaire): Answers[] => {
  const ways = everyWay(questionnaire)
  const step = Math.max(1, Math.floor(ways.length / 40))
  return ways.filter((_, i) => i % step === 0)
}

describe('conditions against other evaluators, on random questionnaires', () => {
  it('hold where json-logic-js says so', () => {
    let compared = 0
    fc.assert(
      fc.property(
        questionnaireArb(4).chain((q) => fc.tuple(fc.constant(q), conditionOn(q.questions, 3))),
        ([questionnaire, condition]) => {
          const rule = toJsonLogic(condition)
          for (const answers of someWays(questionnaire)) {
            compared++
            expect(holds(condition, answers, newcomer)).toBe(Boolean(jsonLogic.apply(rule, asData(answers))))
          }
        },
      ),
      { numRuns: 500 },
    )
    expect(compared).toBeGreaterThan(5_000)
  })

  it('hold where `enableWhen` of HL7 FHIR R4 does, for all that the standard can say', () => {
    let compared = 0
    fc.assert(
      fc.property(
        questionnaireArb(4).chain((q) => fc.tuple(fc.constant(q), conditionOn(q.questions, 1))),
        ([questionnaire, condition]) => {
          const said = toEnableWhen(condition, questionnaire.questions)
          if (!said) return
          for (const answers of someWays(questionnaire)) {
            compared++
            expect(enabled(said, answers)).toBe(holds(condition, answers, newcomer))
          }
        },
      ),
      { numRuns: 800 },
    )
    expect(compared).toBeGreaterThan(2_000)
  })

  it('mean the same when another program has rewritten them by the standard alone', () => {
    const stripped = (item: QuestionnaireItem): QuestionnaireItem => {
      const { extension: _, item: inner, ...rest } = item
      return { ...rest, ...(inner ? { item: inner.map(stripped) } : {}) }
    }
    fc.assert(
      fc.property(questionnaireArb(4), (questionnaire) => {
        const plain = questionnaire.questions.filter(
          (question) => question.kind !== 'section' && question.kind !== 'items',
        )
        const sayable = plain.filter((question) => !question.when || toEnableWhen(question.when, plain))
        if (sayable.length < plain.length) return
        const fhir = toFhir({ ...questionnaire, questions: plain })
        const foreign: FhirQuestionnaire = { ...fhir, item: (fhir.item ?? []).map(stripped) }
        const { questionnaire: back } = fromFhir(foreign)
        for (const answers of someWays({ ...questionnaire, questions: plain })) {
          plain.forEach((question, i) => {
            const when = back.questions[i]!.when
            expect(!when || holds(when, answers, newcomer)).toBe(
              !question.when || holds(question.when, answers, newcomer),
            )
          })
        }
      }),
      { numRuns: 300 },
    )
  })
})
