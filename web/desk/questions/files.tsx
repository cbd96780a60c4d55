import type { Booking } from '@acolhida/core/booking'
import { askingIn, questionsAsked } from '@acolhida/core/booking/judged'
import { answersCsv } from '@acolhida/core/formats/answers-csv'
import { toFhir, toFhirResponse } from '@acolhida/core/formats/fhir'
import { openAnswers, type Questionnaire } from '@acolhida/core/questions'
import { formatInstant } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { saveFile } from '../parts/file.tsx'
import { Tick } from '../parts/tick.tsx'
import { OUTCOME, serviceName } from '../parts/words.ts'

const FHIR = 'application/fhir+json'
const json = (value: unknown): string => `${JSON.stringify(value, null, 2)}\n`

/** Questions and the answers to them as files that other programs read. Private answers go along only if one says so. */
export function QuestionFiles({ questionnaire }: { questionnaire: Questionnaire }) {
  const { practice } = useDesk()
  const act = useAct()
  const [withPrivate, setWithPrivate] = useState(false)
  const own = () => db.bookings.where('questionnaire').equals(questionnaire.id)
  const count = useLiveQuery(() => own().count(), [questionnaire.id]) ?? 0
  const answersOf = (booking: Booking) =>
    withPrivate
      ? booking.asked.answers
      : openAnswers(questionsAsked(practice, booking), booking.asked.answers)
  const asTable = (given: Booking[]): string =>
    answersCsv(
      questionnaire.questions.filter((question) => withPrivate || !question.private),
      given.map((booking) => ({
        told: {
          Asked: formatInstant(booking.asked.at),
          Name: booking.asked.person.name,
          Mail: booking.asked.person.email,
          Service: serviceName(practice, booking.asked.service),
          Version: String(booking.asked.questionnaire?.version ?? ''),
          Outcome: OUTCOME[booking.asked.reading.outcome],
          Minutes: String(booking.asked.reading.quote.minutes),
        },
        answers: answersOf(booking),
      })),
    )
  const asResponses = (given: Booking[]): string =>
    json({
      resourceType: 'Bundle',
      type: 'collection',
      entry: given.map((booking) => ({
        resource: toFhirResponse(
          {
            id: questionnaire.id,
            version: booking.asked.questionnaire?.version ?? questionnaire.version,
            questions: questionsAsked(practice, booking),
          },
          {
            id: booking.id,
            at: booking.asked.at,
            answers: answersOf(booking),
            asking: askingIn(booking),
            name: booking.asked.person.name,
          },
        ),
      })),
    })
  return (
    <section className="sheet mt-4 grid gap-2.5 p-4" aria-labelledby="question-files">
      <h2 id="question-files">In a file</h2>
      <p className="text-[14px] text-soft">
        The questions at your door in the form of HL7 FHIR; the answers of {count}{' '}
        {count === 1 ? 'person' : 'people'} so, or as a table.
      </p>
      <Tick label="Private answers, too" on={withPrivate} onChange={setWithPrivate} />
      <div className="flex flex-wrap gap-2.5">
        <button
          type="button"
          className="press"
          onClick={() => saveFile(`${questionnaire.id}.json`, FHIR, json(toFhir(questionnaire)))}
        >
          Save the questions
        </button>
        <button
          type="button"
          className="press"
          disabled={count === 0}
          onClick={() =>
            act.run(async () =>
              saveFile(`${questionnaire.id}-answers.csv`, 'text/csv', asTable(await own().toArray())),
            )
          }
        >
          Save the answers as a table
        </button>
        <button
          type="button"
          className="press"
          disabled={count === 0}
          onClick={() =>
            act.run(async () =>
              saveFile(`${questionnaire.id}-answers.json`, FHIR, asResponses(await own().toArray())),
            )
          }
        >
          Save the answers as FHIR
        </button>
      </div>
      <ProblemNote of={act} />
    </section>
  )
}
