import type { AnswerValue, Question } from '@acolhida/core/questions'
import { LockKeyhole } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { AddressField, FileField, ItemsField, PhoneField } from './more-fields.tsx'

interface Asked {
  question: Question
  value: AnswerValue | undefined
  problem?: string | undefined
  onAnswer: (value: AnswerValue | undefined) => void
}

const BOX = 'flex min-h-[44px] cursor-pointer items-center gap-3 rounded-lg px-2 hover:bg-leaf-soft/50'

/** One question with its field, its help and what is wrong with the answer, in words. */
export function QuestionField(asked: Asked) {
  const { question, problem } = asked
  const id = `question-${question.id}`
  const describedBy =
    [question.help ? `${id}-help` : '', problem ? `${id}-problem` : ''].filter(Boolean).join(' ') || undefined
  if (question.kind === 'section' || question.kind === 'passage') return <Read question={question} />
  const several = ['one', 'several', 'yesno', 'scale', 'items', 'address'].includes(question.kind)
  const body = <Field {...asked} id={id} describedBy={describedBy} />
  const head = (
    <>
      {question.text}
      {question.private && (
        <LockKeyhole size={13} aria-label="private" className="ml-2 inline align-[-1px] text-soft" />
      )}
      {!question.required && <span className="ml-2 text-[13px] font-normal text-soft">if you like</span>}
    </>
  )
  const rest = (
    <>
      {question.private && (
        <p className="mt-0.5 text-[13px] text-soft">
          For my eyes alone: sealed before it leaves this page, and in no mail.
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

function Field({
  question,
  value,
  problem,
  onAnswer,
  id,
  describedBy,
}: Asked & { id: string; describedBy: string | undefined }) {
  const common = {
    id: `${id}-field`,
    className: 'field',
    'aria-invalid': problem ? true : undefined,
    'aria-describedby': describedBy,
    'aria-required': question.required || undefined,
  } as const
  const written = typeof value === 'string' ? value : ''
  const onText = (text: string): void => onAnswer(text === '' ? undefined : text)
  switch (question.kind) {
    case 'section':
    case 'passage':
      return null
    case 'short':
      return (
        <input
          {...common}
          dir="auto"
          value={written}
          maxLength={500}
          onChange={(e) => onText(e.target.value)}
        />
      )
    case 'url':
      return (
        <input
          {...common}
          type="url"
          inputMode="url"
          placeholder="https://"
          value={written}
          onChange={(e) => onText(e.target.value)}
        />
      )
    case 'time':
      return (
        <input
          {...common}
          className="field max-w-40"
          type="time"
          value={written}
          onChange={(e) => onText(e.target.value)}
        />
      )
    case 'email':
      return (
        <input
          {...common}
          type="email"
          inputMode="email"
          autoComplete="email"
          value={written}
          onChange={(e) => onText(e.target.value)}
        />
      )
    case 'phone':
      return <PhoneField value={written} onAnswer={onAnswer} common={common} />
    case 'address':
      return <AddressField value={written} onAnswer={onAnswer} common={common} />
    case 'items':
      return <ItemsField question={question} value={value} onAnswer={onAnswer} />
    case 'file':
      return <FileField question={question} value={value} onAnswer={onAnswer} common={common} />
    case 'date':
      return <input {...common} type="date" value={written} onChange={(e) => onText(e.target.value)} />
    case 'long':
      return <textarea {...common} dir="auto" value={written} onChange={(e) => onText(e.target.value)} />
    case 'number':
      return <NumberField {...common} value={value} onAnswer={onAnswer} unit={question.unit} />
    case 'one':
      return (
        <Choices>
          {question.choices.map((choice) => (
            <label key={choice.id} className={BOX}>
              <input
                type="radio"
                className="radio radio-primary"
                name={id}
                checked={value === choice.id}
                onChange={() => onAnswer(choice.id)}
              />
              {choice.text}
            </label>
          ))}
        </Choices>
      )
    case 'yesno':
      return (
        <Choices inline>
          {[true, false].map((answer) => (
            <label key={String(answer)} className={BOX}>
              <input
                type="radio"
                className="radio radio-primary"
                name={id}
                checked={value === answer}
                onChange={() => onAnswer(answer)}
              />
              {answer ? 'Yes' : 'No'}
            </label>
          ))}
        </Choices>
      )
    case 'several': {
      const chosen = Array.isArray(value) ? value : []
      const toggle = (choice: string): void => {
        const next = question.choices
          .map((one) => one.id)
          .filter((one) => (one === choice ? !chosen.includes(one) : chosen.includes(one)))
        onAnswer(next.length > 0 ? next : undefined)
      }
      return (
        <Choices>
          {question.choices.map((choice) => (
            <label key={choice.id} className={BOX}>
              <input
                type="checkbox"
                className="checkbox checkbox-primary"
                checked={chosen.includes(choice.id)}
                onChange={() => toggle(choice.id)}
              />
              {choice.text}
            </label>
          ))}
        </Choices>
      )
    }
    case 'scale': {
      const steps = Array.from({ length: question.most - question.least + 1 }, (_, i) => question.least + i)
      return (
        <div>
          <div className="flex flex-wrap gap-1.5">
            {steps.map((step) => (
              <label
                key={step}
                className={`figures flex h-11 min-w-11 cursor-pointer items-center justify-center rounded-lg border font-semibold has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-sun ${
                  value === step
                    ? 'border-leaf bg-leaf text-primary-content'
                    : 'border-line bg-card hover:bg-leaf-soft/50'
                }`}
              >
                <input
                  type="radio"
                  className="sr-only"
                  name={id}
                  checked={value === step}
                  onChange={() => onAnswer(step)}
                />
                {step}
              </label>
            ))}
          </div>
          <div className="mt-1 flex justify-between text-[13px] text-soft">
            <span>
              {question.least}: {question.leastName}
            </span>
            <span>
              {question.most}: {question.mostName}
            </span>
          </div>
        </div>
      )
    }
  }
}

/** Something that is read and not answered. */
const Read = ({ question }: { question: Question }) =>
  question.kind === 'section' ? (
    <div>
      <h2>{question.text}</h2>
      {question.help && <p className="mt-1 text-soft">{question.help}</p>}
    </div>
  ) : (
    <section className="sheet p-4" aria-label={question.text}>
      <p className="ask">{question.text}</p>
      {question.help && <p className="mt-1 whitespace-pre-line">{question.help}</p>}
    </section>
  )

const Choices = ({ children, inline = false }: { children: ReactNode; inline?: boolean }) => (
  <div className={inline ? 'flex gap-4' : 'grid gap-0.5'}>{children}</div>
)

/** Keeps what was typed until it is a number, so that nothing typed is lost. */
function NumberField({
  value,
  onAnswer,
  unit,
  ...common
}: {
  value: AnswerValue | undefined
  onAnswer: (value: AnswerValue | undefined) => void
  unit?: string | undefined
  id: string
  className: string
}) {
  const [typed, setTyped] = useState(value === undefined ? '' : String(value))
  return (
    <div className="flex items-center gap-2">
      <input
        {...common}
        className="field max-w-36"
        inputMode="decimal"
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value)
          const text = e.target.value.trim().replace(',', '.')
          onAnswer(text === '' ? undefined : Number.isFinite(Number(text)) ? Number(text) : e.target.value)
        }}
      />
      {unit && <span className="text-soft">{unit}</span>}
    </div>
  )
}
