import { type HouseRules, type Practice, type Service, WAITLIST } from '@acolhida/core/practice'
import {
  addDays,
  at,
  type DayNumber,
  type Duration,
  dateAt,
  dayNumber,
  duration,
  type Instant,
  type LocalDate,
  localDate,
  time,
  weekday,
  zone,
} from '@acolhida/core/time'
import { demoQuestionnaires } from './questions.ts'
import { demoTerms } from './terms.ts'

const block = (from: string, to: string) => ({ from: time(from), to: time(to) })

const houseRules: HouseRules = {
  cancel: [
    { until: duration('PT24H'), share: 0 },
    { until: duration('PT4H'), share: 50 },
  ],
  cancelAfter: 100,
  move: { until: duration('PT24H'), times: 2 },
  graceMinutes: 15,
  mine: { within: duration('PT24H'), cancelled: 50, grace: 10, late: 20 },
  counting: {
    missed: 2,
    late: 1,
    leads: [
      { points: 2, within: duration('P6M'), to: 'ask', lasts: duration('P6M') },
      { points: 4, within: duration('P1Y'), to: 'not-online', lasts: duration('P6M') },
    ],
  },
}

const shared = {
  lengthStep: 5,
  clearBefore: 15,
  clearAfter: 15,
  clearInsideHours: false,
  seats: 1,
  groupAt: 'dates',
  groupDates: [],
  tidy: false,
  bookableBy: 'everyone',
  terms: ['studio-terms'],
  on: true,
} satisfies Partial<Service>

/** The Saturdays on which the group reads, four from the next one on. */
export function groupSaturdays(now: Instant): LocalDate[] {
  const today = dayNumber(dateAt(zone('Europe/Lisbon'), now))
  const toSaturday = (6 - weekday(today) + 7) % 7 || 7
  return [0, 14, 28, 42].map((later) => localDate((today + toSaturday + later) as DayNumber))
}

function services(now: Instant): Service[] {
  return [
    {
      ...shared,
      id: 'first-conversation',
      name: 'First conversation',
      description:
        'Twenty minutes by video, free of charge. You tell me what you are looking for, and I tell you honestly whether I can help.',
      minutes: 20,
      places: ['video'],
      price: { kind: 'free' },
      clearBefore: 10,
      clearAfter: 10,
      starts: { kind: 'every', minutes: 30 },
      notice: duration('PT12H'),
      reach: { kind: 'working-days', days: 10 },
      approval: { new: 'unsure', known: 'straight' },
      questionnaire: 'first-questions',
      colour: 'leaf',
    },
    {
      ...shared,
      id: 'voice-assessment',
      name: 'Voice assessment',
      description:
        'We listen to your voice closely, in speaking and reading, and you go home with a plan for the next weeks.',
      minutes: 75,
      places: ['studio'],
      price: { kind: 'fixed', amount: 9_500 },
      payment: [
        { id: 'first', much: { kind: 'share', percent: 30 }, due: { kind: 'word' }, standing: 'new' },
        { id: 'rest', much: { kind: 'rest' }, due: { kind: 'on-the-day' } },
      ],
      extras: [
        { id: 'recording', name: 'A recording to take home', minutes: 0, price: 1_200 },
        { id: 'warm-up', name: 'A longer warm-up', minutes: 15, price: 900 },
      ],
      starts: { kind: 'every', minutes: 15 },
      notice: duration('PT24H'),
      reach: { kind: 'days', days: 45 },
      perDay: 2,
      approval: { new: 'ask', known: 'unsure' },
      waitlist: WAITLIST,
      questionnaire: 'voice-questions',
      colour: 'leaf',
    },
    {
      ...shared,
      id: 'reading-aloud',
      name: 'Reading aloud',
      description:
        'A small group for people who read to others. Six seats, one text, ninety minutes on a Saturday morning.',
      minutes: 90,
      places: ['studio'],
      price: { kind: 'fixed', amount: 1_800 },
      payment: [{ id: 'seat', much: { kind: 'rest' }, due: { kind: 'word' }, first: true, standing: 'new' }],
      starts: { kind: 'fixed', times: [time('11:00')] },
      notice: duration('PT24H'),
      reach: { kind: 'days', days: 60 },
      seats: 6,
      groupDates: groupSaturdays(now).map((day, i) => ({
        id: `reading-${i + 1}`,
        start: at(day, time('11:00')),
        place: 'studio',
      })),
      approval: { new: 'unsure', known: 'straight' },
      waitlist: { ...WAITLIST, ask: 'all' },
      questionnaire: 'reading-questions',
      colour: 'tile',
    },
    {
      ...shared,
      id: 'coaching',
      name: 'Coaching session',
      description: 'Fifty minutes for people I already work with.',
      minutes: 50,
      places: ['video', 'studio'],
      price: { kind: 'fixed', amount: 6_800 },
      starts: { kind: 'every', minutes: 30 },
      notice: duration('PT12H'),
      reach: { kind: 'days', days: 90 },
      bookableBy: 'invited',
      linkKey: 'coaching-at-montalvars',
      approval: { new: 'ask', known: 'straight' },
      waitlist: { ...WAITLIST, ask: 2, prefer: 'known-first', stands: duration('PT4H') },
      colour: 'leaf',
    },
  ]
}

/** The invented practice of Iria Montalvar, with group dates set around `now`. */
export function demoPractice(now: Instant): Practice {
  const usual = [block('09:00', '13:00'), block('14:00', '18:00')]
  const today = dateAt(zone('Europe/Lisbon'), now)
  return {
    id: 'iria-montalvar',
    profile: {
      slug: 'iria-montalvar',
      name: 'Iria Montalvar',
      headline: 'Voice and speaking coach · Coimbra and online',
      greeting:
        'Welcome. Choose what you have come for; a few questions first, so that the time we spend is the right one.',
      pronouns: 'she/her',
      about:
        'For twenty years I have worked with people who need their voice: teachers, guides, readers of audio books. I listen first, and we begin with what tires you.',
      email: 'iria@montalvar.example.org',
      phone: '+44 7700 900142',
      zone: 'Europe/Lisbon',
      currency: 'EUR',
      weekStart: 1,
      tax: { name: 'VAT', rate: 2_300 },
    },
    places: [
      {
        id: 'studio',
        kind: 'studio',
        name: 'at the studio in Coimbra',
        address: 'Rua dos Oleiros Azuis 12',
        told: 'confirmation',
      },
      {
        id: 'video',
        kind: 'video',
        name: 'by video',
        address: 'https://video.example.org/iria',
        told: 'confirmation',
      },
    ],
    hours: {
      weekly: [
        usual,
        usual,
        [block('10:00', '13:00'), block('14:00', '19:00')],
        usual,
        [block('09:00', '12:30')],
        [],
        [],
      ],
      changedDays: [],
    },
    away: [
      {
        id: 'choir-week',
        from: at(addDays(today, 20), time('00:00')),
        to: at(addDays(today, 23), time('00:00')),
        note: 'choir week in Braga',
      },
    ],
    services: services(now),
    questionnaires: demoQuestionnaires,
    codes: [
      {
        id: 'open-house',
        code: 'OPEN HOUSE',
        off: { kind: 'share', percent: 100 },
        uses: 3,
        services: ['voice-assessment'],
      },
    ],
    terms: demoTerms,
    // The account number is the example of the IBAN registry.
    transfer: { name: 'Iria Montalvar', iban: 'PT50000201231234567890154' },
    cards: {},
    invoicing: {
      title: 'Voice and speaking coach',
      registration: 'PT 999 999 990',
      address: 'Rua do Loureiro 12\n3000-240 Coimbra',
      prefix: 'IM-',
    },
    houseRules,
    answering: {
      answerTime: 'PT24H' as Duration,
      wordLead: 'PT2H' as Duration,
      leastAnswerTime: 'PT30M' as Duration,
    },
    space: 'larger',
    shortestUsable: 30,
    limits: { perDay: 6, openRequests: 2 },
  }
}
