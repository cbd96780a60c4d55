import type { Answers } from '@acolhida/core/questions'

/** Somebody's part in the story: who they are, what they asked for, and what became of it. */
export interface DemoPart {
  id: string
  name: string
  email: string
  zone: string
  service: string
  place?: string
  /** Days from today on which the session lies, and which opening of that day is taken. */
  day: number
  nth: number
  /** Hours before now at which they asked. */
  asked: number
  answers: Answers
  attempts?: Answers[]
  proved?: boolean
  booked?: boolean
}

const teaching: Answers = {
  brings: 'I read the news on the radio and lose my low notes by evening.',
  uses: ['calls', 'stage'],
  hoarse: 'not',
  strain: 4,
  price: 'fine',
}
const talk = (brings: string): Answers => ({ brings, 'for-whom': 'mine' })
const reader = (to: string): Answers => ({ 'to-whom': to, ease: 5 })

/** The people of the demo; bookings lie around the present, so days and hours are counted from it. */
export const PARTS: DemoPart[] = [
  {
    id: 'past-amara',
    name: 'Amara Dindi',
    email: 'amara.dindi@example.org',
    zone: 'Europe/Lisbon',
    service: 'voice-assessment',
    day: -6,
    nth: 1,
    asked: 300,
    answers: teaching,
    proved: true,
    booked: true,
  },
  {
    id: 'past-rhys',
    name: 'Rhys Penhallow',
    email: 'rhys.penhallow@example.org',
    zone: 'Europe/London',
    service: 'first-conversation',
    day: -5,
    nth: 3,
    asked: 280,
    answers: talk('I am to give a speech at a wedding in spring.'),
    proved: true,
    booked: true,
  },
  {
    id: 'past-odile',
    name: 'Odile Ferrand',
    email: 'odile.ferrand@example.org',
    zone: 'Europe/Paris',
    service: 'voice-assessment',
    day: -1,
    nth: 2,
    asked: 200,
    answers: teaching,
    proved: true,
    booked: true,
  },
  {
    id: 'today-rhys',
    name: 'Rhys Penhallow',
    email: 'rhys.penhallow@example.org',
    zone: 'Europe/London',
    service: 'coaching',
    place: 'video',
    day: 0,
    nth: 1,
    asked: 90,
    answers: {},
    proved: true,
    booked: true,
  },
  {
    id: 'today-amara',
    name: 'Amara Dindi',
    email: 'amara.dindi@example.org',
    zone: 'Europe/Lisbon',
    service: 'coaching',
    place: 'studio',
    day: 0,
    nth: 8,
    asked: 80,
    answers: {},
    proved: true,
    booked: true,
  },
  {
    id: 'next-odile',
    name: 'Odile Ferrand',
    email: 'odile.ferrand@example.org',
    zone: 'Europe/Paris',
    service: 'coaching',
    place: 'video',
    day: 1,
    nth: 2,
    asked: 70,
    answers: {},
    proved: true,
    booked: true,
  },
  {
    id: 'next-benat',
    name: 'Beñat Lasarte',
    email: 'benat.lasarte@example.org',
    zone: 'Europe/Madrid',
    service: 'voice-assessment',
    day: 2,
    nth: 5,
    asked: 60,
    answers: { ...teaching, uses: ['singing'], summary: true },
    proved: true,
    booked: true,
  },
  {
    id: 'reading-seat-1',
    name: 'Nuno Vilar',
    email: 'nuno.vilar@example.org',
    zone: 'Europe/Lisbon',
    service: 'reading-aloud',
    day: 0,
    nth: 0,
    asked: 50,
    answers: reader('children'),
    proved: true,
    booked: true,
  },
  {
    id: 'reading-seat-2',
    name: 'Sanne Kuipers',
    email: 'sanne.kuipers@example.org',
    zone: 'Europe/Amsterdam',
    service: 'reading-aloud',
    day: 0,
    nth: 0,
    asked: 45,
    answers: reader('grown'),
    proved: true,
    booked: true,
  },
  {
    id: 'reading-seat-3',
    name: 'Mirela Pop',
    email: 'mirela.pop@example.org',
    zone: 'Europe/Bucharest',
    service: 'reading-aloud',
    day: 0,
    nth: 0,
    asked: 40,
    answers: reader('nobody'),
    proved: true,
    booked: true,
  },
  {
    id: 'reading-seat-4',
    name: 'Inês Tavira',
    email: 'ines.tavira@example.org',
    zone: 'Europe/Lisbon',
    service: 'reading-aloud',
    day: 0,
    nth: 0,
    asked: 30,
    answers: reader('children'),
    proved: true,
    booked: true,
  },
  {
    id: 'asks-tome',
    name: 'Tomé Arrais',
    email: 'tome.arrais@example.org',
    zone: 'America/Sao_Paulo',
    service: 'voice-assessment',
    day: 3,
    nth: 6,
    asked: 18.3,
    proved: true,
    answers: {
      brings: 'My voice gives out by the afternoon. I teach five classes a day and dread the last one.',
      uses: ['teaching'],
      hoarse: 'long',
      doctor: false,
      strain: 9,
      price: 'parts',
      came: 'A singer I teach with',
    },
    attempts: [
      {
        brings: 'My voice gives out by the afternoon. I teach five classes a day and dread the last one.',
        uses: ['teaching'],
        hoarse: 'long',
        doctor: false,
        strain: 9,
        price: 'too-much',
        came: 'A singer I teach with',
      },
    ],
  },
  {
    id: 'asks-wanda',
    name: 'Wanda Okoro',
    email: 'wanda.okoro@example.org',
    zone: 'Africa/Lagos',
    service: 'first-conversation',
    day: 2,
    nth: 2,
    asked: 3,
    proved: true,
    answers: {
      ...talk('I speak at a congress in January and want to be heard in the last row.'),
      'for-whom': 'team',
    },
  },
  {
    id: 'asks-lucjan',
    name: 'Lucjan Bielak',
    email: 'lucjan.bielak@example.org',
    zone: 'Europe/Warsaw',
    service: 'voice-assessment',
    day: 6,
    nth: 9,
    asked: 0.7,
    answers: {
      ...teaching,
      brings: 'I have begun to teach online and talk against the fan all day.',
      uses: ['teaching', 'calls'],
    },
  },
]
