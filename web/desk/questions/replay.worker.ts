import { askingIn, choicesIn } from '@acolhida/core/booking/judged'
import { type Practice, serviceOf } from '@acolhida/core/practice'
import { type Changed, draftOf, replayAnswers } from '@acolhida/core/questions'

export interface ReplayWish {
  practice: Practice
  questionnaire: string
}
export type ReplayTold = { given: number; changed: (Changed & { name: string })[] } | { problem: string }

/** Reads all earlier answers again by a draft, off the main thread. It is stopped by ending the worker. */
self.addEventListener('message', async ({ data }: MessageEvent<ReplayWish>) => {
  const tell = (told: ReplayTold): void => self.postMessage(told)
  try {
    // Which database it is must be asked; what is said to this worker meanwhile must not be missed.
    const { db } = await import('../data/db.ts')
    const { practice, questionnaire: id } = data
    const questionnaire = practice.questionnaires.find((questionnaire) => questionnaire.id === id)!
    const bookings = await db.bookings.where('questionnaire').equals(id).toArray()
    const given = bookings.flatMap((booking) => {
      const { asked } = booking
      const service = serviceOf(practice, asked.service)
      if (!service) return []
      const choices = choicesIn(practice, booking)
      return [{ id: booking.id, service, answers: asked.answers, asking: askingIn(booking), choices }]
    })
    const names = new Map(bookings.map((booking) => [booking.id, booking.asked.person.name]))
    const changed = replayAnswers(questionnaire, draftOf(questionnaire), given)
    tell({
      given: given.length,
      changed: changed.map((given) => ({ ...given, name: names.get(given.id)! })),
    })
  } catch (error) {
    tell({ problem: (error as Error).message })
  }
})
