import { type AnswerValue, kindOf, type Question } from '@acolhida/core/questions'
import { LockKeyhole } from 'lucide-react'
import { fieldOf } from './fields.tsx'
import { say } from './say.ts'

interface Asked {
  question: Question
  value: AnswerValue | undefined
  problem?: string | undefined
  onAnswer: (value: AnswerValue | undefined) => void
}

/** One question with its field, its help and what is wrong with the answer, in words. */
export function QuestionField(asked: Asked) {
  const { question, problem } = asked
  const id = `question-${question.id}`
  const limits = (kindOf(question).limits?.(question) ?? [])
    .map(({ code, data }) => say(code, data))
    .join(', ')
  const describedBy =
    [limits ? `${id}-limits` : '', question.help ? `${id}-help` : '', problem ? `${id}-problem` : '']
      .filter(Boolean)
      .join(' ') || undefined
  const { Field, Read, several } = fieldOf(question)
  if (Read) return <Read question={question} />
  const body = (
    <Field
      question={question}
      value={asked.value}
      onAnswer={asked.onAnswer}
      id={id}
      common={{
        id: `${id}-field`,
        className: 'field',
        'aria-invalid': problem ? true : undefined,
        'aria-describedby': describedBy,
        'aria-required': question.required || undefined,
      }}
    />
  )
  const head = (
    <>
      {question.text}
      {question.private && (
        <LockKeyhole size={13} aria-label={say('private')} className="ml-2 inline align-[-1px] text-soft" />
      )}
      {!question.required && (
        <>
          {' '}
          <span className="ml-1 text-[13px] font-normal text-soft">{say('optional')}</span>
        </>
      )}
    </>
  )
  const rest = (
    <>
      {question.private && <p className="mt-0.5 text-[13px] text-soft">{say('private.why')}</p>}
      {limits && (
        <p id={`${id}-limits`} className="mt-0.5 text-[13px] text-soft">
          {limits}
        </p>
      )}
      {question.help && (
        <p id={`${id}-help`} className="mt-0.5 text-[14px] text-soft">
          {question.help}
        </p>
      )}
      <div className="mt-2">{body}</div>
      {problem && (
        <p id={`${id}-problem`} className="mt-2 text-[14px] font-semibold text-clay">
          {problem}
        </p>
      )}
    </>
  )
  return several ? (
    <fieldset id={id} className={`sheet p-4 ${problem ? 'border-clay' : ''}`} aria-describedby={describedBy}>
      <legend className="ask float-left w-full">{head}</legend>
      <div className="clear-both">{rest}</div>
    </fieldset>
  ) : (
    <div id={id} className={`sheet p-4 ${problem ? 'border-clay' : ''}`}>
      <label className="ask" htmlFor={`${id}-field`}>
        {head}
      </label>
      {rest}
    </div>
  )
}
