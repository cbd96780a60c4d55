import { money } from '@acolhida/core/money'
import { type Practice, questionnaireOf, type Service } from '@acolhida/core/practice'
import {
  type AnswerProblem,
  type Answers,
  type AnswerValue,
  type Attached,
  kindOfFile,
  problemWith,
  type Question,
  type Reading,
} from '@acolhida/core/questions'
import { wrongWords } from '@acolhida/core/words'
import { FileTaker } from '../../questions/file-taker.tsx'
import { QuestionField } from '../../questions/question-field.tsx'
import { newKey } from '../../relay-client/client.ts'
import { db } from '../data/db.ts'
import { Tick } from '../parts/tick.tsx'
import { currencyOf, OUTCOME } from '../parts/words.ts'

/** The same questions and additions as at the door, for somebody on the phone. */
export function AskThem({
  practice,
  service,
  asking,
  asked,
  onAsking,
  answers,
  onAnswers,
  extras,
  onExtras,
  problems,
}: {
  practice: Practice
  service: Service
  asking: boolean
  /** The questions that are asked of this person, by their answers so far. */
  asked: readonly Question[]
  onAsking: (on: boolean) => void
  answers: Answers
  onAnswers: (answers: Answers) => void
  extras: readonly string[]
  onExtras: (extras: string[]) => void
  problems: readonly AnswerProblem[]
}) {
  const questionnaire = questionnaireOf(practice, service)
  const answer = (id: string, value: AnswerValue | undefined): void => {
    const { [id]: _, ...rest } = answers
    onAnswers(value === undefined ? rest : { ...rest, [id]: value })
  }
  return (
    <>
      {(service.extras ?? []).length > 0 && (
        <fieldset className="mt-3">
          <legend className="ask">What is added</legend>
          {service.extras?.map((extra) => (
            <Tick
              key={extra.id}
              label={extra.name}
              on={extras.includes(extra.id)}
              onChange={(on) => onExtras(on ? [...extras, extra.id] : extras.filter((id) => id !== extra.id))}
            />
          ))}
        </fieldset>
      )}
      {questionnaire && (
        <label className="mt-3 flex min-h-[36px] cursor-pointer items-center gap-3 font-semibold">
          <input
            type="checkbox"
            className="toggle toggle-primary"
            checked={asking}
            onChange={(event) => onAsking(event.target.checked)}
          />
          Ask the questions of “{questionnaire.name}”
        </label>
      )}
      {asking && questionnaire && (
        <FileTaker value={keepFile}>
          <div className="mt-2 grid gap-3">
            {asked.map((question) => (
              <QuestionField
                key={question.id}
                question={question}
                value={answers[question.id]}
                problem={problems.find((problem) => problem.question === question.id)?.message}
                onAnswer={(value) => answer(question.id, value)}
              />
            ))}
          </div>
        </FileTaker>
      )}
    </>
  )
}

/** Keeps a file in this browser. @throws Error when it is of a kind that is not asked for */
async function keepFile(question: Question, file: File): Promise<Attached> {
  const data = new Uint8Array(await file.arrayBuffer())
  const type = kindOfFile(data)
  if (!type) throw new Error(`“${file.name}” is of a kind that can’t be kept here.`)
  const attached = { file: newKey(), name: file.name, type, size: data.length }
  const wrong = problemWith(question, attached)
  if (wrong) throw new Error(wrongWords(wrong))
  await db.files.put({ id: attached.file, name: file.name, type, data })
  return attached
}

/** What the answers come to: outcome and reasons for the practitioner, length and price to say aloud. */
export function WhatItComesTo({
  practice,
  reading,
  minutes = reading.quote.minutes,
}: {
  practice: Practice
  reading: Reading
  /** The practitioner's own length. */
  minutes?: number
}) {
  const currency = currencyOf(practice.profile.currency)
  const { outcome, reasons, quote } = reading
  return (
    <section className="sheet mt-3 p-4" aria-label="What it comes to">
      <p className="flex flex-wrap items-baseline gap-3">
        <span className={`tag tag-${outcome}`}>{OUTCOME[outcome]}</span>
        <b>
          {minutes} min · {quote.price === 0 ? 'free of charge' : money(quote.price, currency)}
        </b>
      </p>
      {quote.lines.length > 1 && (
        <ul className="figures mt-2 text-[14px]">
          {quote.lines.map((line) => (
            <li key={line.name} className="flex justify-between gap-4">
              <span>
                {line.quantity > 1 ? `${line.quantity} × ` : ''}
                {line.name}
              </span>
              <span>{money(line.amount, currency)}</span>
            </li>
          ))}
        </ul>
      )}
      {quote.deposit > 0 && (
        <p className="mt-1 text-[14px] text-soft">
          Of that, {money(quote.deposit, currency)} is asked beforehand.
        </p>
      )}
      {reasons.length > 0 && (
        <ul className="mt-2 list-disc pl-5 text-[14px]">
          {reasons.map((reason) => (
            <li key={reason.name}>{reason.note || reason.name}</li>
          ))}
        </ul>
      )}
    </section>
  )
}
