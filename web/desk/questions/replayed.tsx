import { askingIn, choicesIn } from '@acolhida/core/booking/judged'
import { serviceOf } from '@acolhida/core/practice'
import { draftOf, replayAnswers } from '@acolhida/core/questions'
import { Link } from 'react-router'
import { useDesk } from '../data/live.ts'
import { OUTCOME } from '../parts/words.ts'

/** Whose outcome, length or price the new version would change, of all who have answered before. */
export function Replayed({ id }: { id: string }) {
  const { practice, bookings } = useDesk()
  const questionnaire = practice.questionnaires.find((one) => one.id === id)!
  const given = bookings.flatMap((booking) => {
    const { asked } = booking
    const service = serviceOf(practice, asked.service)
    if (asked.questionnaire?.id !== id || !service) return []
    return [
      {
        id: booking.id,
        service,
        answers: asked.answers,
        asking: askingIn(booking),
        choices: choicesIn(practice, booking),
      },
    ]
  })
  const changed = replayAnswers(questionnaire, draftOf(questionnaire), given)
  const nameOf = (booking: string): string =>
    bookings.find((one) => one.id === booking)?.asked.person.name ?? booking
  if (given.length === 0) return null
  return (
    <section className="sheet p-4 text-[14px]" aria-label="Earlier answers">
      <h2>Earlier answers</h2>
      <p className="mt-1">
        {changed.length === 0
          ? `Read again, the ${given.length === 1 ? 'answers' : `answers of ${given.length} people`} come to the same.`
          : `For ${changed.length} of ${given.length} it would have been otherwise:`}
      </p>
      <ul className="mt-1 grid gap-1">
        {changed.map((one) => (
          <li key={one.id}>
            <Link className="way" to={`/arrivals/${one.id}`}>
              {nameOf(one.id)}
            </Link>
            : {one.outcome && `${OUTCOME[one.outcome.from]} → ${OUTCOME[one.outcome.to]} `}
            {one.minutes && `${one.minutes.from} → ${one.minutes.to} min `}
            {one.price && 'another price'}
          </li>
        ))}
      </ul>
    </section>
  )
}
