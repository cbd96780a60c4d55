import {
  type AnswerProblem,
  type Answers,
  asked,
  isAttached,
  newcomer,
  partsOf,
  problemsIn,
  type Question,
} from '@acolhida/core/questions'
import { useEffect, useRef, useState } from 'react'
import { FileTaker } from '../../questions/file-taker.tsx'
import { focusOn } from '../../questions/focus-on.ts'
import { QuestionField } from '../../questions/question-field.tsx'
import { Notice } from '../parts/notice.tsx'
import { say } from '../parts/say.ts'
import { howFar, useHalf } from '../visit/half.ts'
import { doorRelay } from '../visit/relay.ts'
import { type OneThing, useDoes } from '../visit/yours.ts'

/** A questionnaire to be answered in one's own time: what is typed is kept, and sealed when it is sent. */
export default function ToAnswer({ questions, ...one }: OneThing & { questions: Question[] }) {
  const { doing, course, station } = one
  const does = useDoes(one)
  const { answers, put, kept, lost, whole } = useHalf({ doing, course, station, questions })
  const [problems, setProblems] = useState<AnswerProblem[]>([])
  const [cannot, setCannot] = useState<string>()
  const sealed = useRef<{ of: string; answers: Answers }>({ of: '', answers: {} })
  const shown = asked(questions, answers, newcomer).questions
  const parts = partsOf(shown)
  const far = howFar(questions, answers)

  /** The answers, each sealed for the desk but for the names of files; what was sealed once stays as it is. */
  const toSend = async (): Promise<Answers> => {
    const own = asked(questions, answers, newcomer).answers
    const { seal: key } = doing.view
    const of = JSON.stringify([own, key?.x])
    if (sealed.current.of === of) return sealed.current.answers
    const { canSeal, sealAnswers } = await import('../../seal/seal.ts')
    if (!key || !canSeal()) throw new Error(say('yours.no-seal'))
    sealed.current = { of, answers: await sealAnswers(own, (id) => !isAttached(own[id]), key) }
    return sealed.current.answers
  }
  const send = async (): Promise<void> => {
    const found = problemsIn(questions, answers, newcomer)
    setProblems(found)
    setCannot(undefined)
    const [first] = found
    if (first) return focusOn(first.question)
    try {
      does.mutate({ do: 'answer', answers: await toSend(), ...far })
    } catch (error) {
      setCannot((error as Error).message)
    }
  }
  const taker = async (question: Question, file: File) =>
    doorRelay.courseFile(
      doing.secret,
      { course: course.course, station: station.id, question: question.id, name: file.name },
      file,
    )
  useEffect(() => {
    if (does.isSuccess) whole()
  }, [does.isSuccess, whole])
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        void send()
      }}
    >
      <p className="text-[14px] text-soft">{say('yours.sealed', { name: doing.view.practitioner })}</p>
      {lost && (
        <div className="mt-2">
          <Notice tone="info">{say('yours.half-lost')}</Notice>
        </div>
      )}
      <FileTaker value={taker}>
        {parts.map((part, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a part has no name but its place
          <div key={i} className="mt-3 grid gap-3">
            {part.section && <h4 className="serif text-[20px]">{part.section.text}</h4>}
            {part.questions.map((question) => (
              <QuestionField
                key={question.id}
                question={question}
                value={answers[question.id]}
                problem={problems.find((problem) => problem.question === question.id)?.message}
                onAnswer={(value) => {
                  put(question.id, value)
                  setProblems((before) => before.filter((problem) => problem.question !== question.id))
                }}
              />
            ))}
          </div>
        ))}
      </FileTaker>
      <p className="mt-3 text-[14px] text-soft" role="status">
        {[say('yours.begun', far), kept && say(`yours.${kept}`)].filter(Boolean).join(' · ')}
      </p>
      <p className="font-semibold text-clay empty:hidden" role="status">
        {problems.length > 0 ? say('questions.look-again', { many: problems.length }) : ''}
      </p>
      {(cannot ?? does.error?.message) && (
        <div className="mt-2">
          <Notice>{cannot ?? does.error?.message}</Notice>
        </div>
      )}
      <button type="submit" className="press press-go mt-3" disabled={does.isPending}>
        {say(does.isPending ? 'moment' : 'yours.send-answers')}
      </button>
    </form>
  )
}
