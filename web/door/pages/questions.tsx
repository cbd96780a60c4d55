import type { DoorService } from '@acolhida/core/door'
import { money } from '@acolhida/core/money'
import { type AnswerProblem, type AnswerValue, asked, newcomer, problemsIn } from '@acolhida/core/questions'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { QuestionField } from '../../questions/question-field.tsx'
import { RelayError } from '../../relay-client/client.ts'
import { Notice } from '../parts/notice.tsx'
import { useDoor, useSlug } from '../visit/follow.ts'
import { relay } from '../visit/relay.ts'
import { changeDraft, draftOf, useVisit, wantedOf } from '../visit/visit.ts'
import type { Step } from './flow.tsx'

/** What must be known first. Which question comes next is decided here, at once; what follows from the answers, by the relay. */
export function Questions({ service, go }: { service: DoorService; go: (step: Step) => void }) {
  const slug = useSlug()
  const visit = useVisit()
  const draft = draftOf(visit, service.id)
  const questions = service.questionnaire?.questions ?? []
  const { questions: shown } = asked(questions, draft.answers, newcomer)
  const [problems, setProblems] = useState<AnswerProblem[]>([])

  const reading = useMutation({
    mutationFn: () => relay.read(slug, wantedOf(visit, service.id)),
    onSuccess: (read) => {
      changeDraft(service.id, { reading: read })
      if (read.open) go('time')
    },
    onError: (error) => {
      if (error instanceof RelayError) setProblems(error.problem.problems ?? [])
    },
  })

  const answer = (id: string, value: AnswerValue | undefined): void => {
    changeDraft(service.id, ({ answers }) => {
      const { [id]: _, ...rest } = answers
      return { answers: value === undefined ? rest : { ...rest, [id]: value }, reading: undefined as never }
    })
    setProblems((before) => before.filter((problem) => problem.question !== id))
  }

  const goOn = (): void => {
    const found = problemsIn(questions, draft.answers, newcomer)
    setProblems(found)
    const [first] = found
    if (first)
      document
        .getElementById(`question-${first.question}`)
        ?.querySelector<HTMLElement>('input, textarea')
        ?.focus()
    else reading.mutate()
  }

  if (draft.reading && !draft.reading.open) {
    return (
      <NotAMatch service={service} back={() => changeDraft(service.id, { reading: undefined as never })} />
    )
  }
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        goOn()
      }}
    >
      <h1>First, a few questions</h1>
      <p className="mt-2 mb-5 text-soft">
        {questions.length > 0 || service.extras.length > 0
          ? 'Your answers are kept on this device until you send them.'
          : 'There is nothing to answer for this one.'}
      </p>
      <div className="grid gap-3">
        {shown.map((question) => (
          <QuestionField
            key={question.id}
            question={question}
            value={draft.answers[question.id]}
            problem={problems.find((one) => one.question === question.id)?.message}
            onAnswer={(value) => answer(question.id, value)}
          />
        ))}
      </div>
      {service.extras.length > 0 && <Extras service={service} />}
      {reading.error && problems.length === 0 && (
        <div className="mt-4">
          <Notice>{reading.error.message}</Notice>
        </div>
      )}
      {problems.length > 0 && (
        <p className="mt-4 font-semibold text-clay" role="status">
          {problems.length === 1 ? 'One answer needs' : `${problems.length} answers need`} another look.
        </p>
      )}
      <button type="submit" className="press press-go mt-5 w-full sm:w-auto" disabled={reading.isPending}>
        {reading.isPending ? 'One moment …' : 'Go on to the times'}
      </button>
    </form>
  )
}

/** What can be added, each with what it comes to. */
function Extras({ service }: { service: DoorService }) {
  const { currency } = useDoor()
  const { extras = [] } = draftOf(useVisit(), service.id)
  return (
    <fieldset className="sheet mt-3 p-4 sm:p-5">
      <legend className="sr-only">What you can add</legend>
      <p className="ask" aria-hidden="true">
        What you can add <span className="ml-2 text-[13px] font-normal text-soft">if you like</span>
      </p>
      {service.extras.map((extra) => (
        <label
          key={extra.id}
          className="flex min-h-[44px] cursor-pointer items-center gap-3 rounded-lg px-2 hover:bg-leaf-soft/50"
        >
          <input
            type="checkbox"
            className="checkbox checkbox-primary"
            checked={extras.includes(extra.id)}
            onChange={(event) =>
              changeDraft(service.id, {
                extras: event.target.checked
                  ? [...extras, extra.id]
                  : extras.filter((one) => one !== extra.id),
                reading: undefined as never,
                kept: undefined as never,
              })
            }
          />
          <span className="flex-1">{extra.name}</span>
          <span className="figures text-[14px] text-soft">
            {[
              extra.minutes > 0 ? `+ ${extra.minutes} min` : '',
              extra.price > 0 ? `+ ${money(extra.price, currency)}` : '',
            ]
              .filter(Boolean)
              .join(' · ')}
          </span>
        </label>
      ))}
    </fieldset>
  )
}

/** A kind no: why in general, and what else one can do. */
function NotAMatch({ service, back }: { service: DoorService; back: () => void }) {
  const slug = useSlug()
  const draft = draftOf(useVisit(), service.id)
  const closed = draft.reading?.closed
  return (
    <section aria-live="polite">
      <h1>{closed ? `${service.name} is not the right thing just now` : 'Let us talk first'}</h1>
      <p className="sheet mt-4 p-5 text-[16px] whitespace-pre-line">
        {closed?.message ??
          'This is more than I book without talking first. Please write me a message; I answer soon.'}
      </p>
      <h2 className="mt-6 mb-2">What you can do instead</h2>
      <ul className="grid gap-2">
        {closed?.services.map((other) => (
          <li key={other.id}>
            <Link className="press w-full sm:w-auto" to={`/${slug}/${other.id}`}>
              See {other.name}
            </Link>
          </li>
        ))}
        {(closed?.enquiry ?? true) && (
          <li>
            <Link className="press w-full sm:w-auto" to={`/${slug}/write?about=${service.id}`}>
              Write a message
            </Link>
          </li>
        )}
        <li>
          <button type="button" className="way mt-2 min-h-[44px]" onClick={back}>
            I would like to answer differently
          </button>
        </li>
      </ul>
    </section>
  )
}
