import {
  depthsOf,
  effectKind,
  type Question,
  type Questionnaire,
  questionsIn,
  ruleLooksAt,
} from '@acolhida/core/questions'
import type { PathCheck } from '@acolhida/core/questions/paths'

/** Height of a row, how far a follow-up is set in, and where the marks stand, in px. */
const ROW = 34
const STEP = 16
const LEFT = 12

const FILL = { leaf: 'fill-leaf', sun: 'fill-sun', clay: 'fill-clay', tile: 'fill-tile' } as const

const LEGEND = [
  ['fill-leaf', 'length, price'],
  ['fill-sun', 'look first'],
  ['fill-clay', 'not a match'],
  ['fill-tile', 'points, tags, other ways'],
] as const

const percent = (share: number): string =>
  share > 0 && share < 0.005
    ? '< 1 %'
    : share > 0.995 && share < 1
      ? '> 99 %'
      : `${Math.round(share * 100)} %`

/**
 * The question map: each question as a stone, larger the more ways lead over it, joined to those it opens; beside it
 * marks for what its answers decide.
 */
export function QuestionMap({
  questionnaire,
  check,
  onJump,
}: {
  questionnaire: Questionnaire
  check: PathCheck
  onJump: (id: string) => void
}) {
  const { questions, rules } = questionnaire
  const opens = (question: Question): string[] =>
    question.when ? [...new Set(questionsIn(question.when))] : []
  const depths = depthsOf(questions, opens)
  const x = (i: number): number => LEFT + Math.min(depths[i]!, 5) * STEP
  const y = (i: number): number => i * ROW + ROW / 2
  const decides = (id: string) => {
    const all = rules
      .filter((rule) => ruleLooksAt(rule).includes(id))
      .map(({ effect }) => {
        const { colour, word } = effectKind(effect).mark
        return { look: FILL[colour], word }
      })
    return [...new Map(all.map((way) => [way.word, way])).values()]
  }
  return (
    <div className="relative mt-3">
      <svg
        className="pointer-events-none absolute inset-0"
        width="100%"
        height={questions.length * ROW}
        aria-hidden="true"
      >
        {questions.map((question, i) =>
          opens(question).map((id) => {
            const from = questions.findIndex((question) => question.id === id)
            if (from < 0 || from >= i) return null
            return (
              <path
                key={`${id} ${question.id}`}
                d={`M ${x(from)} ${y(from)} C ${x(from)} ${y(from) + ROW * 0.7}, ${x(i)} ${y(i) - ROW * 0.9}, ${x(i)} ${y(i)}`}
                className="fill-none stroke-line"
                strokeWidth={2}
              />
            )
          }),
        )}
        {questions.map((question, i) => {
          const share = check.asked[i] ?? 0
          const size = question.kind === 'section' ? 4 : 3 + 4 * Math.sqrt(share)
          return (
            <rect
              key={question.id}
              x={x(i) - size}
              y={y(i) - size}
              width={2 * size}
              height={2 * size}
              rx={2}
              transform={`rotate(45 ${x(i)} ${y(i)})`}
              className={
                share === 0
                  ? 'fill-card stroke-clay'
                  : question.private
                    ? 'fill-card stroke-leaf'
                    : 'fill-leaf stroke-leaf'
              }
              strokeWidth={1.5}
              strokeDasharray={share === 0 ? '3 2' : undefined}
            />
          )
        })}
      </svg>
      <ol>
        {questions.map((question, i) => {
          const marks = decides(question.id)
          return (
            <li
              key={question.id}
              className="flex items-center gap-2"
              style={{ height: ROW, paddingLeft: x(i) + 18 }}
            >
              <button
                type="button"
                className="min-w-0 grow cursor-pointer truncate text-left text-[14px] hover:underline hover:whitespace-normal focus-visible:whitespace-normal"
                onClick={() => onJump(question.id)}
              >
                {question.text}
              </button>
              <span className="sr-only">{marks.map((mark) => mark.word).join(', ')}</span>
              {marks.map((mark) => (
                <svg key={mark.word} width="9" height="9" aria-hidden="true" className="shrink-0">
                  <title>{mark.word}</title>
                  <circle cx="4.5" cy="4.5" r="4" className={mark.look} />
                </svg>
              ))}
              <span className="figures w-11 shrink-0 text-right text-[13px] text-soft">
                {percent(check.asked[i] ?? 0)}
              </span>
            </li>
          )
        })}
      </ol>
      <p className="mt-1 flex flex-wrap gap-x-3 text-[13px] text-soft" aria-hidden="true">
        {LEGEND.map(([look, word]) => (
          <span key={word} className="flex items-center gap-1.5">
            <svg width="9" height="9">
              <title>{word}</title>
              <circle cx="4.5" cy="4.5" r="4" className={look} />
            </svg>
            {word}
          </span>
        ))}
      </p>
    </div>
  )
}
