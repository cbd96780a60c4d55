import {
  MOST_OF_A_PATH,
  MOST_PARTS,
  type Path,
  type PathStation,
  type Practice,
} from '@acolhida/core/practice'
import { asOptions } from '../parts/plain-field.tsx'
import { serviceName } from '../parts/words.ts'
import { type Setting, under } from '../settings/setting.ts'

/** One kind of thing on the line of a path. */
export type Of<D extends PathStation['does']> = Extract<PathStation, { does: D }>

const what = 'a path'
const apart = { is: 'whole', what, suffix: 'days', least: 1, most: 366, empty: true } as const

/** What is set of something to prepare that stands on a path. */
export const prepareSettings = ({ preparations = [] }: Practice): Setting<Of<'prepare'>>[] => [
  {
    is: 'choice',
    label: 'To prepare',
    what,
    options: asOptions(preparations),
    ...under<Of<'prepare'>, 'preparation'>('preparation'),
  },
]

/** Of its sessions. */
export const sessionsSettings = ({ services }: Practice): Setting<Of<'sessions'>>[] => [
  {
    is: 'choice',
    label: 'Sessions of',
    what,
    options: asOptions(services.filter(({ seats }) => seats === 1)),
    ...under<Of<'sessions'>, 'service'>('service'),
  },
  {
    is: 'whole',
    label: 'How many',
    what,
    least: 1,
    most: MOST_OF_A_PATH,
    ...under<Of<'sessions'>, 'many'>('many'),
  },
  {
    is: 'whole',
    label: 'Minutes',
    what,
    least: 1,
    ...under<Of<'sessions'>, 'minutes'>('minutes'),
  },
  { ...apart, label: 'Apart at least', ...under<Of<'sessions'>, 'least'>('least') },
  { ...apart, label: 'Apart at most', ...under<Of<'sessions'>, 'most'>('most') },
]

/** Of the payments on its line. */
export const paySettings: Setting<Of<'pay'>>[] = [
  {
    is: 'whole',
    label: 'Parts of the price',
    what,
    least: 1,
    most: MOST_PARTS,
    ...under<Of<'pay'>, 'parts'>('parts'),
  },
  { is: 'duration', label: 'The first, after the giving', what, ...under<Of<'pay'>, 'after'>('after') },
  { is: 'duration', label: 'Then every', what, least: 1, ...under<Of<'pay'>, 'every'>('every') },
]

/** Of a pause, which is before what comes next. */
export const pauseSettings = (
  practice: Practice,
  { stations }: Path,
  { id }: Of<'pause'>,
): Setting<Of<'pause'>>[] => {
  const at = stations.findIndex((one) => one.id === id)
  const next = stations.slice(at + 1).find((one): one is Of<'sessions'> => one.does === 'sessions')
  const before = next ? serviceName(practice, next.service) : 'what comes next'
  return [
    {
      is: 'whole',
      label: `Nothing for so many days, before ${before}`,
      what,
      least: 1,
      most: 366,
      ...under<Of<'pause'>, 'days'>('days'),
    },
  ]
}
