import type { DoorService } from '@acolhida/core/contract'
import {
  type AnswerProblem,
  type Answers,
  type AnswerValue,
  type Attached,
  answerWords,
  asked,
  partsOf,
  problemsIn,
  type Question,
} from '@acolhida/core/questions'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useSearchParams } from 'react-router'
import { FileTaker } from '../../questions/file-taker.tsx'
import { focusOn } from '../../questions/focus-on.ts'
import { QuestionField } from '../../questions/question-field.tsx'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { Extras } from '../parts/extras.tsx'
import { Notice } from '../parts/notice.tsx'
import { say } from '../parts/say.ts'
import { useAsking, useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { fillIn, fillingOf, isQuoted, useVisit, wantedOf } from '../visit/visit.ts'
import { NotAMatch } from './not-a-match.tsx'
import { Quoted } from './quoted.tsx'
import type { DoorStep } from './steps.ts'

/**
 * What must be known first, a part at a time; which part, the address says, so that the browser's own way back leads to
 * the part before. Which question comes next is decided here, at once; what follows from the answers, by the relay.
 */
export function Questions({ service, go }: { service: DoorService; go: (step: DoorStep) => void }) {
  const slug = useSlug()
  const queries = useQueryClient()
  const visit = useVisit()
  const filling = fillingOf(visit, service.id)
  const asking = useAsking(service.id)
  const [search, setSearch] = useSearchParams()
  const questions = service.questionnaire?.questions ?? []
  const { questions: shown } = asked(questions, filling.answers, asking)
  const known = new Set(filling.known ?? [])
  const before = shown.filter((question) => known.has(question.id) && question.id in filling.answers)
  const parts = partsOf(shown.filter((question) => !before.includes(question)))
  const said = search.get('part')
  const at = Math.min(said === null ? (filling.part ?? 0) : Number(said) || 0, Math.max(0, parts.length - 1))
  const part = parts[at]
  const last = at >= parts.length - 1
  const [problems, setProblems] = useState<AnswerProblem[]>([])

  /** To a part, as a step of its own in the browser's way back; led there, in place of where one was. */
  const showPart = (next: number, led = false): void => {
    fillIn(service.id, led ? { is: 'led', part: next } : { is: 'turned', part: next })
    setSearch({ step: 'questions', part: String(next) }, { replace: led })
  }
  const takeProblems = (found: AnswerProblem[]): void => {
    setProblems(found)
    const [first] = found
    if (!first) return
    const there = parts.findIndex((part) => part.questions.some(({ id }) => id === first.question))
    if (there < 0) fillIn(service.id, { is: 'asked-anew' })
    else if (there !== at) showPart(there, true)
    requestAnimationFrame(() => focusOn(first.question))
  }
  const refused = (error: Error): void => {
    if (!(error instanceof RelayError)) return
    // What the relay misses and this page does not know of yet is asked for anew.
    if (error.code === 'answers') void queries.invalidateQueries({ queryKey: ['door'] })
    const asked = error.problem.problems?.every(({ question }) =>
      parts.some((part) => part.questions.some(({ id }) => id === question)),
    )
    if (asked) takeProblems(error.problem.problems ?? [])
    else fillIn(service.id, { is: 'refused', problem: error.problem, key: newKey() })
  }
  const reading = useMutation({
    mutationFn: () => doorRelay.read(slug, wantedOf(visit, service)),
    onSuccess: (read) => {
      fillIn(service.id, { is: 'read', read })
      if (read.open) go('time')
    },
    onError: refused,
  })
  // Whoever can't be helped hears it before they have told more.
  const parting = useMutation({
    mutationFn: (upTo: string) => doorRelay.part(slug, { ...wantedOf(visit, service), upTo }),
    onSuccess: (said) => {
      fillIn(service.id, { is: 'parted', said })
      if (!said.closed) turnTo(at + 1)
    },
    onError: refused,
  })

  // Led back to a question that is new, or that decided: once this page has it, the eye is led there, too.
  const look = shown.some((question) => question.id === filling.look) ? filling.look : undefined
  const lookAt = parts.findIndex((part) => part.questions.some(({ id }) => id === look))
  // biome-ignore lint/correctness/useExhaustiveDependencies: led once for each question that is looked for
  useEffect(() => {
    if (look === undefined || lookAt < 0) return
    if (lookAt !== at) showPart(lookAt, true)
    requestAnimationFrame(() => focusOn(look))
  }, [look, lookAt, at, service.id])

  const answer = (id: string, value: AnswerValue | undefined): void => {
    fillIn(service.id, { is: 'answered', service, question: id, value })
    setProblems((before) => before.filter((problem) => problem.question !== id))
  }
  const takeFile = async (question: Question, file: File): Promise<Attached> =>
    doorRelay.file(
      slug,
      {
        visit: visit.id,
        service: service.id,
        question: question.id,
        name: file.name,
        ...(visit.with ? { with: visit.with } : {}),
      },
      file,
    )
  const turnTo = (next: number): void => {
    showPart(next)
    const first = parts[next]?.questions[0]?.id
    requestAnimationFrame(() => {
      window.scrollTo({ top: 0 })
      if (first === undefined) document.getElementById('part')?.focus({ preventScroll: true })
      else focusOn(first)
    })
  }
  const goOn = (): void => {
    const found = problemsIn(questions, filling.answers, asking)
    const here = last
      ? found
      : found.filter((problem) => part?.questions.some(({ id }) => id === problem.question))
    if (here.length > 0) takeProblems(here)
    else if (last) reading.mutate()
    else parting.mutate(part?.questions.at(-1)?.id ?? '')
  }

  if (isQuoted(visit, service.id)) return <Quoted service={service} go={go} />
  const closed = filling.closed ?? (filling.read && !filling.read.open ? filling.read.closed : undefined)
  if (closed) {
    return (
      <NotAMatch
        service={service}
        closed={closed}
        back={() => fillIn(service.id, { is: 'reconsidered', question: closed.question })}
      />
    )
  }
  const busy = reading.isPending || parting.isPending
  const error = reading.error ?? parting.error
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        goOn()
      }}
    >
      <h1 id="part" tabIndex={-1} className="outline-none">
        {part?.section?.text ?? say(questions.length > 0 ? 'questions.first' : 'questions.extras')}
      </h1>
      {parts.length > 1 && <Progress at={at} of={parts.length} />}
      <p className="mt-2 mb-5 whitespace-pre-line text-soft">
        {part?.section?.help ?? say('questions.kept')}
      </p>
      {filling.tells && filling.tells.length > 0 && (
        <div className="mb-4 grid gap-2">
          {filling.tells.map((text) => (
            <p key={text} className="note tag-info whitespace-pre-line">
              {text}
            </p>
          ))}
        </div>
      )}
      {filling.note && (
        <div className="mb-4">
          <Notice tone="info">{filling.note}</Notice>
        </div>
      )}
      {before.length > 0 && at === 0 && (
        <Before
          questions={before}
          answers={filling.answers}
          change={() => fillIn(service.id, { is: 'asked-anew' })}
        />
      )}
      <FileTaker value={takeFile}>
        <div className="grid gap-3">
          {part?.questions.map((question) => (
            <QuestionField
              key={question.id}
              question={question}
              value={filling.answers[question.id]}
              problem={problems.find((problem) => problem.question === question.id)?.message}
              onAnswer={(value) => answer(question.id, value)}
            />
          ))}
        </div>
      </FileTaker>
      {last && service.extras.length > 0 && <Extras service={service} />}
      {error && problems.length === 0 && (
        <div className="mt-4">
          <Notice>{error.message}</Notice>
        </div>
      )}
      <p className="mt-4 font-semibold text-clay empty:hidden" role="status">
        {problems.length > 0 ? say('questions.look-again', { many: problems.length }) : ''}
      </p>
      <div className="mt-5 flex flex-wrap gap-3">
        {at > 0 && (
          <button type="button" className="press" onClick={() => turnTo(at - 1)}>
            {say('questions.back')}
          </button>
        )}
        <button type="submit" className="press press-go w-full sm:w-auto" disabled={busy}>
          {say(busy ? 'moment' : last ? 'questions.times' : 'questions.on')}
        </button>
      </div>
    </form>
  )
}

const Progress = ({ at, of }: { at: number; of: number }) => (
  <p className="mt-2 flex items-center gap-3 text-[14px] text-soft">
    <span>{say('questions.part', { at: at + 1, of })}</span>
    <span className="flex grow gap-1" aria-hidden="true">
      {Array.from({ length: of }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a part has no name but its place
        <span key={i} className={`h-1.5 max-w-16 grow rounded-full ${i <= at ? 'bg-leaf' : 'bg-line'}`} />
      ))}
    </span>
  </p>
)

/** What was answered an earlier time and has perhaps not changed. */
const Before = ({
  questions,
  answers,
  change,
}: {
  questions: readonly Question[]
  answers: Answers
  change: () => void
}) => (
  <section className="sheet mb-3 p-4" aria-label={say('questions.before')}>
    <div className="flex items-baseline justify-between gap-3">
      <h2>{say('questions.before')}</h2>
      <button type="button" className="way min-h-[44px]" onClick={change}>
        {say('questions.changed')}
      </button>
    </div>
    <dl>
      {questions.map((question) => (
        <div key={question.id} className="mt-2">
          <dt className="text-[14px] text-soft">{question.text}</dt>
          <dd className="whitespace-pre-line wrap-anywhere">{answerWords(question, answers[question.id])}</dd>
        </div>
      ))}
    </dl>
  </section>
)
