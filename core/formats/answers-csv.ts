import { type Answers, answerWords, asksSomething, type Question } from '../questions/index.ts'
import { csvOf } from './csv.ts'

/** One row: what is told of somebody who answered, by column, and the answers. */
export interface AnswerRow {
  told: Record<string, string>
  answers: Answers
}

/**
 * Answers as a table (RFC 4180): a column for each question, a row for each who answered. Fields that a spreadsheet
 * would take for a formula begin with an apostrophe.
 */
export function answersCsv(questions: readonly Question[], rows: readonly AnswerRow[]): string {
  const shown = questions.filter(asksSomething)
  const told = [...new Set(rows.flatMap((row) => Object.keys(row.told)))]
  const fields = [...told, ...shown.map((question) => question.text)]
  const data = rows.map((row) => [
    ...told.map((key) => row.told[key] ?? ''),
    ...shown.map((question) => {
      const answer = row.answers[question.id]
      return answer === undefined ? '' : answerWords(question, answer)
    }),
  ])
  return csvOf(fields, data)
}
