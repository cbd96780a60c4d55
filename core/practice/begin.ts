import { duration, time } from '../time/index.ts'
import type { Block, Practice } from './types.ts'

const workday: Block[] = [
  { from: time('09:00'), to: time('13:00') },
  { from: time('14:00'), to: time('18:00') },
]

/**
 * A practice to begin with: ordinary hours, one first conversation with its questions and terms, everything
 * there to be changed. It can be published as it is.
 */
export function beginPractice(about: {
  id: string
  name: string
  email: string
  zone: string
  currency: string
  slug: string
}): Practice {
  const { id, ...profile } = about
  return {
    id,
    profile: {
      ...profile,
      headline: '',
      greeting: 'Welcome. Tell me a little about what brings you, and then choose a time.',
      weekStart: 1,
    },
    places: [{ id: 'video', kind: 'video', name: 'by video', told: 'confirmation' }],
    hours: { weekly: [workday, workday, workday, workday, workday, [], []], changedDays: [] },
    away: [],
    services: [
      {
        id: 'first-conversation',
        name: 'First conversation',
        description: 'We get to know each other and see whether I can help.',
        minutes: 20,
        lengthStep: 5,
        places: ['video'],
        price: { kind: 'free' },
        clearBefore: 10,
        clearAfter: 10,
        clearInsideHours: false,
        starts: { kind: 'every', minutes: 30 },
        notice: duration('PT24H'),
        reach: { kind: 'working-days', days: 10 },
        seats: 1,
        groupAt: 'dates',
        groupDates: [],
        tidy: false,
        bookableBy: 'everyone',
        approval: { new: 'ask', known: 'straight' },
        questionnaire: 'first-questions',
        terms: ['terms'],
        on: true,
        colour: 'leaf',
      },
    ],
    questionnaires: [
      {
        id: 'first-questions',
        name: 'First questions',
        version: 1,
        questions: [
          { id: 'brings', kind: 'long', text: 'What brings you here?', required: true, leastWords: 3 },
          {
            id: 'hope',
            kind: 'short',
            text: 'What would you like to be different afterwards?',
            required: false,
          },
        ],
        rules: [],
        bands: [],
      },
    ],
    terms: [
      {
        id: 'terms',
        versions: [
          {
            number: 1,
            title: 'How we work together',
            text: 'A time is yours once I have confirmed it. You can cancel it free of charge until the moment shown with your booking; after that the full price is due. What you tell me stays between us.',
          },
        ],
      },
    ],
    houseRules: {
      cancel: [{ until: duration('PT24H'), share: 0 }],
      cancelAfter: 100,
      move: { until: duration('PT24H'), times: 2 },
      graceMinutes: 15,
    },
    answering: {
      answerTime: duration('PT24H'),
      wordLead: duration('PT2H'),
      leastAnswerTime: duration('PT30M'),
    },
    space: 'larger',
    shortestUsable: 30,
    limits: { openRequests: 2 },
  }
}
