import { expect, it } from 'vitest'
import { samplePractice } from '../tests/sample.ts'
import { DAY, instant } from '../time/index.ts'
import { answersOverTime } from './over-time.ts'
import type { Booking } from './record.ts'

const practice = samplePractice({
  questionnaires: [
    {
      ...{ id: 'q', name: 'Q', version: 2, rules: [], bands: [] },
      questions: [
        {
          id: 'strain',
          kind: 'scale',
          text: 'Strain?',
          required: false,
          least: 1,
          most: 7,
          leastName: '',
          mostName: '',
        },
        { id: 'hours', kind: 'number', text: 'Hours?', required: false },
        {
          id: 'mood',
          kind: 'one',
          text: 'Mood?',
          required: false,
          choices: [{ id: 'low', text: 'Low', points: 3 }],
        },
        { id: 'said', kind: 'short', text: 'What?', required: false },
      ],
      past: [
        {
          version: 1,
          questions: [
            {
              id: 'strain',
              kind: 'scale',
              text: 'Strain then?',
              required: false,
              least: 0,
              most: 5,
              leastName: '',
              mostName: '',
            },
          ],
        },
      ],
    },
  ],
})
const booking = (day: number, version: number, answers: object, points = 0): Booking =>
  ({
    ...{ id: `b${day}`, start: instant(day * DAY), service: 's', status: 'attended' },
    asked: { service: 's', questionnaire: { id: 'q', version }, answers, reading: { points, reasons: [] } },
  }) as unknown as Booking

it('numbers go from session to session, by the question, whichever version asked it', () => {
  const series = answersOverTime(practice, [
    booking(9, 2, { strain: 3, hours: 2, mood: 'low', said: 'much' }, 3),
    booking(1, 1, { strain: 5 }),
    booking(5, 2, { strain: 4, said: '7' }, 0),
  ])
  expect(series).toEqual([
    {
      ...{ id: 'question strain', name: 'Strain?', least: 1, most: 7 },
      points: [
        { at: DAY, booking: 'b1', value: 5 },
        { at: 5 * DAY, booking: 'b5', value: 4 },
        { at: 9 * DAY, booking: 'b9', value: 3 },
      ],
    },
    {
      ...{ id: 'points', name: 'Points' },
      points: [
        { at: 5 * DAY, booking: 'b5', value: 0 },
        { at: 9 * DAY, booking: 'b9', value: 3 },
      ],
    },
  ])
})

it('what was asked once draws no line, and texts and sealed answers none', () => {
  expect(answersOverTime(practice, [])).toEqual([])
  expect(
    answersOverTime(practice, [
      booking(1, 2, { hours: 2, said: '1', strain: { sealed: 'x' } }),
      booking(2, 2, { said: '2' }),
    ]).map(({ id }) => id),
  ).toEqual(['points'])
})
