import { PAY_TIME, type Practice } from '@acolhida/core/practice'
import { duration } from '@acolhida/core/time'
import { type Setting, under } from './setting.ts'

type Answering = Practice['answering']

const most = (label: string, key: 'perDay' | 'perWeek'): Setting<Practice> => ({
  label,
  what: 'a limit',
  is: 'limit',
  help: 'Empty: no limit.',
  path: `limits.${key}`,
  read: ({ limits }) => limits[key],
  write: (practice, value) => ({
    ...practice,
    limits: under<Practice['limits'], typeof key>(key).write(practice.limits, value),
  }),
})

/** How much, in all services together. */
export const MUCH: readonly Setting<Practice>[] = [
  most('Sessions a day', 'perDay'),
  most('Sessions a week', 'perWeek'),
  {
    label: 'Open requests of one person',
    what: 'a limit',
    is: 'whole',
    least: 1,
    path: 'limits.openRequests',
    read: ({ limits }) => limits.openRequests,
    write: (practice, openRequests = 1) => ({ ...practice, limits: { ...practice.limits, openRequests } }),
  },
  {
    label: 'Too short to use',
    what: 'the shortest usable time',
    is: 'whole',
    suffix: 'min',
    help: 'Below this a gap is of no use.',
    ...under<Practice, 'shortestUsable'>('shortestUsable'),
  },
]

const answering = (
  label: string,
  key: 'answerTime' | 'wordLead' | 'leastAnswerTime' | 'proofTime' | 'payTime',
  least: number,
  what = 'the answer time',
): Setting<Practice> => ({
  label,
  what,
  is: 'duration',
  least,
  path: `answering.${key}`,
  read: (practice) => practice.answering[key] ?? (key === 'payTime' ? PAY_TIME : duration('PT30M')),
  write: (practice, value) => ({
    ...practice,
    answering: under<Answering, typeof key>(key).write(practice.answering, value),
  }),
})

/** How long requests wait. */
export const WORD: readonly Setting<Practice>[] = [
  answering('A request waits for it', 'answerTime', 1),
  answering('But never nearer to the session than', 'wordLead', 0),
  answering('And at least', 'leastAnswerTime', 1),
  answering(
    'Before it waits, the link in their mail must be opened within',
    'proofTime',
    1,
    'the time to open the mailed link',
  ),
  answering(
    'A payment that must come first is waited for',
    'payTime',
    1,
    'the time for a payment that must come first',
  ),
]
