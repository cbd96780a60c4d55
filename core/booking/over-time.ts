import type { Practice } from '../practice/index.ts'
import type { Instant } from '../time/index.ts'
import { deskReading, questionsAsked } from './judged.ts'
import type { Booking } from './record.ts'

/** One thing that somebody was asked again and again, or what their answers were worth. */
export interface OverTime {
  id: string
  name: string
  points: { at: Instant; booking: string; value: number }[]
  /** The ends of a scale. */
  least?: number
  most?: number
}

/** The name of what answers were worth in points. */
const POINTS = 'points'

/**
 * How somebody's numbers have gone from session to session: each scale and number they were asked more than once, by the
 * question, whichever version asked it; and their points, where some answers have any. In order of the sessions.
 */
export function answersOverTime(practice: Practice, bookings: readonly Booking[]): OverTime[] {
  const found = new Map<string, OverTime>()
  const note = (one: Omit<OverTime, 'points'>, point: OverTime['points'][number]): void => {
    const known = found.get(one.id)
    found.set(one.id, { ...known, ...one, points: [...(known?.points ?? []), point] })
  }
  for (const booking of [...bookings].sort((a, b) => a.start - b.start)) {
    const at = { at: booking.start, booking: booking.id }
    const questions = questionsAsked(practice, booking)
    for (const question of questions) {
      const value = booking.asked.answers[question.id]
      if (typeof value !== 'number') continue
      const ends = question.kind === 'scale' ? { least: question.least, most: question.most } : {}
      note({ id: `question ${question.id}`, name: question.text, ...ends }, { ...at, value })
    }
    const scored = questions.some((one) => 'choices' in one && one.choices.some(({ points }) => points))
    if (scored) note({ id: POINTS, name: 'Points' }, { ...at, value: deskReading(practice, booking).points })
  }
  return [...found.values()].filter(({ points }) => points.length > 1)
}
