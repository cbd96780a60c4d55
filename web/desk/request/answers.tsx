import type { Attempt, Booking } from '@acolhida/core/booking'
import { askingIn, deskReading, questionsAsked } from '@acolhida/core/booking/judged'
import type { Practice } from '@acolhida/core/practice'
import {
  type Answers,
  type Attached,
  answerWords,
  asked,
  asksSomething,
  isAttached,
  type Question,
  sizeInWords,
} from '@acolhida/core/questions'
import { dateAt, lengthOf, shortDate, timeAt } from '@acolhida/core/time'
import { LockKeyhole } from 'lucide-react'
import { db } from '../data/db.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { saveFile } from '../parts/file.tsx'
import { homeZone, OUTCOME } from '../parts/words.ts'
import { Card } from './card.tsx'

/** What was answered, with the answers that mattered marked; what the same person answered before stands beside. */
export function AnswersCard({
  practice,
  booking,
  others,
}: {
  practice: Practice
  booking: Booking
  /** What the same person asked besides. */
  others: readonly Booking[]
}) {
  const { questionnaire, answers, attempts, at, sealed } = booking.asked
  const all = questionsAsked(practice, booking)
  const shown = asked(all, answers, askingIn(booking)).questions.filter(asksSomething)
  const reading = deskReading(practice, booking)
  const mattered = new Map(
    reading.reasons.flatMap((reason) => reason.questions.map((id) => [id, reason.outcome] as const)),
  )
  const earlier = others.filter((other) => other.asked.at < at).sort((a, b) => b.asked.at - a.asked.at)
  const before = (id: string): { answer: Answers[string]; at: Booking } | undefined => {
    const last = earlier.find((other) => id in other.asked.answers)
    const answer = last?.asked.answers[id]
    return last && answer !== undefined && JSON.stringify(answer) !== JSON.stringify(answers[id])
      ? { answer, at: last }
      : undefined
  }
  const first = Math.min(at, ...attempts.map((attempt) => attempt.at))
  const aside = [
    questionnaire ? `Questions v${questionnaire.version}` : '',
    first < at ? `first answered ${lengthOf(at - first)} before` : '',
    booking.mailProved ? 'mail address proved' : 'mail address not proved yet',
  ]
  return (
    <Card title="Answers" aside={aside.filter(Boolean).join(' · ')}>
      {shown.length === 0 && !sealed && <p className="mt-2 text-soft">Nothing was asked.</p>}
      {sealed && (
        <p className="mt-2 text-soft">
          A part of this is sealed, and this desk has not the key to open it: that was with the desk before. A
          backup of that desk brings it back.
        </p>
      )}
      <dl>
        {shown.map((question) => {
          const outcome = mattered.get(question.id)
          const was = before(question.id)
          const answer = answers[question.id]
          return (
            <div key={question.id} className="border-t border-line py-2.5 first:mt-1.5 first:border-0">
              <dt className="text-[14px] text-soft">
                {question.text}
                {question.private && (
                  <LockKeyhole
                    size={12}
                    aria-label="private"
                    className="ml-1.5 inline align-[-1px] text-soft"
                  />
                )}
              </dt>
              <dd className="flex items-start justify-between gap-4">
                <span dir="auto" className="max-w-[520px] whitespace-pre-line wrap-anywhere">
                  {isAttached(answer) ? <FileAnswer file={answer} /> : answerWords(question, answer)}
                  {was && (
                    <span className="block text-[13px] text-soft">
                      on {shortDate(dateAt(homeZone(practice), was.at.asked.at))}:{' '}
                      {answerWords(question, was.answer)}
                    </span>
                  )}
                </span>
                {outcome && outcome !== 'fits' && (
                  <span className={`tag tag-${outcome}`}>{OUTCOME[outcome].toLowerCase()}</span>
                )}
              </dd>
            </div>
          )
        })}
      </dl>
      {attempts.map((attempt) => (
        <Earlier key={attempt.at} attempt={attempt} questions={all} answers={answers} practice={practice} />
      ))}
    </Card>
  )
}

const TYPES = { picture: 'image/*', pdf: 'application/pdf', sound: 'audio/*', text: 'text/plain' } as const

/** A file that was given: kept in this browser, saved where one wants it. */
export function FileAnswer({ file }: { file: Attached }) {
  const save = async (): Promise<void> => {
    const kept = await db.files.get(file.file)
    if (!kept) throw new Error('The relay has not handed this file over yet.')
    saveFile(file.name, TYPES[kept.type], kept.data)
  }
  const act = useAct()
  return (
    <>
      <button type="button" className="way text-left" onClick={() => act.run(save)}>
        Save {file.name} ({sizeInWords(file.size)})
      </button>
      <ProblemNote of={act} />
    </>
  )
}

/** What was answered before, where it differed. */
function Earlier({
  attempt,
  questions,
  answers,
  practice,
}: {
  attempt: Attempt
  questions: Question[]
  answers: Answers
  practice: Practice
}) {
  const differing = questions.filter(
    (question) => JSON.stringify(attempt.answers[question.id]) !== JSON.stringify(answers[question.id]),
  )
  return (
    <section className="note mt-3 bg-sun-soft text-sun-ink">
      <h3>
        Before that, at {timeAt(homeZone(practice), attempt.at)}: {OUTCOME[attempt.outcome].toLowerCase()}
      </h3>
      <dl className="mt-1 text-[14px]">
        {differing.map((question) => (
          <div key={question.id} className="mt-1">
            <dt>{question.text}</dt>
            <dd className="font-semibold">{answerWords(question, attempt.answers[question.id])}</dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
