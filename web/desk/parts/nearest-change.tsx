import { answerWords, type Question } from '@acolhida/core/questions'
import type { Difference } from '@acolhida/core/questions/nearest'

/** What would have to be answered otherwise to fit; nothing where nothing would do, or it fits. */
export function NearestChange({
  differences,
  questions,
}: {
  differences: readonly Difference[] | undefined
  questions: readonly Question[]
}) {
  if (!differences || differences.length === 0) return null
  return (
    <div className="note mt-3 bg-leaf-soft/60 text-[14px]">
      {differences.length === 1
        ? 'It would fit with one other answer:'
        : `It would fit with ${differences.length} other answers:`}
      <ul className="mt-0.5 list-disc pl-5">
        {differences.map((difference) => {
          const question = questions.find((other) => other.id === difference.question)
          return (
            question && (
              <li key={difference.question}>
                {question.text} <b>{toWords(question, difference)}</b>
              </li>
            )
          )
        })}
      </ul>
    </div>
  )
}

const toWords = (question: Question, { to, beyond }: Difference): string =>
  to === undefined ? 'left open' : `${answerWords(question, to)}${beyond ? ` or ${beyond}` : ''}`
