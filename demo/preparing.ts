import type { StationDoes } from '@acolhida/core/contract'
import type { House } from '@acolhida/core/house'
import { type Practice, type Preparation, preparationOf } from '@acolhida/core/practice'
import type { Questionnaire } from '@acolhida/core/questions'
import type { TextBlock } from '@acolhida/core/terms'
import { versionFingerprint } from '@acolhida/core/terms'
import { duration } from '@acolhida/core/time'

const p = (text: string): TextBlock => ({ p: [{ text }] })
const head = (text: string): TextBlock => ({ p: [{ text, bold: true }] })

const REACH_ME: TextBlock[] = [
  head('Between sessions'),
  p(
    'Write to me whenever something occurs to you. I read in the mornings, Monday to Friday, and answer within two working days.',
  ),
  head('When I am not there'),
  p('At weekends and in choir weeks I am out of reach. You will know beforehand.'),
  head('If your voice fails'),
  {
    list: [
      [{ text: 'Hoarse after a cold: rest it, drink water, and don’t whisper.' }],
      [{ text: 'Hoarse for more than three weeks: please see a doctor before you see me.' }],
      [{ text: 'Pain, or no breath: call 112.' }],
    ],
  },
]

const YOUR_VOICE: Questionnaire = {
  id: 'your-voice-today',
  name: 'Your voice today',
  version: 1,
  bands: [],
  rules: [],
  questions: [
    { id: 'phone', kind: 'phone', text: 'Where can I reach you on the day?', required: false },
    {
      id: 'tired',
      kind: 'scale',
      text: 'How tired is your voice in the evening?',
      required: true,
      ...{ least: 0, most: 10, leastName: 'not at all', mostName: 'gone' },
    },
    {
      id: 'when-best',
      kind: 'one',
      text: 'When is it at its best?',
      required: true,
      choices: [
        { id: 'morning', text: 'In the morning' },
        { id: 'noon', text: 'Around noon' },
        { id: 'evening', text: 'In the evening' },
      ],
    },
    { id: 'drink', kind: 'short', text: 'What do you drink while you speak?', required: false },
    { id: 'wish', kind: 'long', text: 'What would you like to hear yourself do?', required: true },
    {
      id: 'worries',
      kind: 'long',
      text: 'Is there something about your health that only I should read?',
      required: false,
      private: true,
    },
  ],
}

const before = (by: string) => ({ from: 'start', by: duration(by) }) as const

const PREPARATIONS: Preparation[] = [
  {
    id: 'reach-me',
    is: 'read',
    name: 'How to reach me',
    minutes: 2,
    due: before('P1D'),
    once: true,
    text: REACH_ME,
  },
  {
    id: 'recording',
    is: 'sign',
    name: 'That I may record us',
    minutes: 3,
    due: before('P1D'),
    once: true,
    terms: 'recording-consent',
  },
  {
    id: 'voice-today',
    is: 'answer',
    name: 'Your voice today',
    minutes: 8,
    due: before('P2D'),
    questionnaire: 'your-voice-today',
  },
  {
    id: 'a-page-read',
    is: 'bring',
    name: 'A page read aloud',
    minutes: 5,
    due: before('P1D'),
    text: 'Read any page aloud and record it with your phone. Two minutes are plenty; nobody hears it but me.',
  },
  {
    id: 'notes-after',
    is: 'read',
    name: 'What to practise in the first week',
    minutes: 4,
    due: { from: 'end', by: duration('P3D') },
    text: [
      p(
        'Five minutes a day are better than an hour on Sunday. Begin with the humming, end with the page you like best.',
      ),
    ],
  },
]

/** The practice with what its clients prepare. */
export const withPreparations = (practice: Practice): Practice => ({
  ...practice,
  questionnaires: [...practice.questionnaires, YOUR_VOICE],
  preparations: PREPARATIONS,
  services: practice.services.map((service) =>
    service.id === 'voice-assessment'
      ? { ...service, prepares: ['reach-me', 'recording', 'voice-today', 'a-page-read', 'notes-after'] }
      : service,
  ),
})

/** What somebody does with one thing they were given; nothing where it takes a file. */
export function prepares(
  house: House,
  course: string,
  station: string,
  name: string,
): StationDoes | undefined {
  const given = house.course(course)?.given.stations.find(({ id }) => id === station)
  const practice = house.practice
  const preparation = given && practice && preparationOf(practice, given.preparation)
  switch (preparation?.is) {
    case 'read':
    case 'tick':
      return { do: 'done' }
    case 'sign': {
      const version = practice?.terms.find(({ id }) => id === preparation.terms)?.versions.at(-1)
      const { terms } = preparation
      return (
        version && {
          ...{ do: 'sign', name },
          agreed: [{ terms, number: version.number, fingerprint: versionFingerprint(terms, version) }],
        }
      )
    }
    case 'answer':
      return {
        ...{ do: 'answer', answered: 4, of: 6 },
        answers: {
          tired: 7,
          'when-best': 'morning',
          drink: 'Tea, mostly cold by then.',
          wish: 'To read the last page of a book as clearly as the first.',
        },
      }
    default:
      return undefined
  }
}
