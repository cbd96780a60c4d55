import { type Answers, type Condition, newcomer, type Question, readAnswers } from '@acolhida/core/questions'
import { checkPaths } from '@acolhida/core/questions/paths'
import jsonLogic, { type RulesLogic } from 'json-logic-js'
import { largeQuestionnaire } from '../core/tests/questionnaires.ts'
import { sampleService } from '../core/tests/sample.ts'
import { sideBySide } from './side-by-side.ts'

/** How many answer sets are read in one go. */
const SETS = 2_000

/** Answers that differ from set to set, without chance. */
function answerSets(questions: readonly Question[]): Answers[] {
  let seed = 20_261_125
  const next = (): number => {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0
    return seed / 2 ** 32
  }
  return Array.from({ length: SETS }, () =>
    Object.fromEntries(
      questions.flatMap((question): [string, Answers[string]][] => {
        if (next() < 0.1) return []
        if (question.kind !== 'several') return [[question.id, next() < 0.7]]
        const chosen = question.choices.map((choice) => choice.id).filter(() => next() < 0.4)
        return chosen.length > 0 ? [[question.id, chosen]] : []
      }),
    ),
  )
}

/** The same condition for json-logic-js; what was not answered compares as false by `===`. */
function rule(condition: Condition): RulesLogic {
  if ('all' in condition) return { and: condition.all.map(rule) }
  if ('not' in condition) return { '!': [rule(condition.not)] }
  if (!('question' in condition) || condition.is !== '=') throw new Error('not in this questionnaire')
  return { '===': [{ var: condition.question }, condition.value] }
}

/** Reading, against json-logic-js evaluating the same conditions; the path check, against reading. */
export async function benchQuestions(): Promise<void> {
  const questionnaire = largeQuestionnaire()
  const service = sampleService({ price: { kind: 'fixed', amount: 5_000 } })
  const sets = answerSets(questionnaire.questions)
  const conditions = [
    ...questionnaire.questions.flatMap((question) => (question.when ? [question.when] : [])),
    ...questionnaire.rules.map((rule) => rule.when),
  ].map(rule)
  let sum = 0
  const check = checkPaths(questionnaire, service)!
  const { reading, logic, proving } = await sideBySide(
    {
      reading: () => {
        for (const answers of sets) sum += readAnswers(service, questionnaire, answers, newcomer).points
      },
      logic: () => {
        for (const answers of sets)
          for (const condition of conditions) if (jsonLogic.apply(condition, answers)) sum++
      },
      proving: () => checkPaths(questionnaire, service),
    },
    10,
    3,
  )
  const perSecond = (us: number): string => Math.round((SETS / us) * 1e6).toLocaleString('en')
  console.log(`\nQuestions: ${questionnaire.questions.length}, with ${questionnaire.rules.length} rules`)
  console.log(`  read:            ${perSecond(reading)} answer sets a second`)
  console.log(
    `  json-logic-js:   ${perSecond(logic)} a second, its conditions alone; ${(logic / reading).toFixed(1)} × the time`,
  )
  console.log(
    `  path check:      ${check.states} states for ${check.ways.toExponential(2)} ways, ${(proving / ((reading / SETS) * 10_000)).toFixed(2)} × the time of 10,000 readings`,
  )
  if (sum === 0) throw new Error('Nothing was read.')
}
