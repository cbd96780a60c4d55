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
export type StationThat<D extends PathStation['does']> = Extract<PathStation, { does: D }>

const what = 'a path'
const apart = { is: 'whole', what, suffix: 'days', least: 1, most: 366, empty: true } as const

/** What is set of something to prepare that stands on a path. */
export const prepareSettings = ({ preparations = [] }: Practice): Setting<StationThat<'prepare'>>[] => [
  {
    is: 'choice',
    label: 'To prepare',
    what,
    options: asOptions(preparations),
    ...under<StationThat<'prepare'>, 'preparation'>('preparation'),
  },
]

/** Of its sessions. */
export const sessionsSettings = ({ services }: Practice): Setting<StationThat<'sessions'>>[] => [
  {
    is: 'choice',
    label: 'Sessions of',
    what,
    options: asOptions(services.filter(({ seats }) => seats === 1)),
    ...under<StationThat<'sessions'>, 'service'>('service'),
  },
  {
    is: 'whole',
    label: 'How many',
    what,
    least: 1,
    most: MOST_OF_A_PATH,
    ...under<StationThat<'sessions'>, 'many'>('many'),
  },
  {
    is: 'whole',
    label: 'Minutes',
    what,
    least: 1,
    ...under<StationThat<'sessions'>, 'minutes'>('minutes'),
  },
  { ...apart, label: 'Apart at least', ...under<StationThat<'sessions'>, 'least'>('least') },
  { ...apart, label: 'Apart at most', ...under<StationThat<'sessions'>, 'most'>('most') },
]

/** Of the payments on its line. */
export const paySettings: Setting<StationThat<'pay'>>[] = [
  {
    is: 'whole',
    label: 'Parts of the price',
    what,
    least: 1,
    most: MOST_PARTS,
    ...under<StationThat<'pay'>, 'parts'>('parts'),
  },
  {
    is: 'duration',
    label: 'The first, after the giving',
    what,
    ...under<StationThat<'pay'>, 'after'>('after'),
  },
  { is: 'duration', label: 'Then every', what, least: 1, ...under<StationThat<'pay'>, 'every'>('every') },
]

/** Of a pause, which is before what comes next. */
export const pauseSettings = (
  practice: Practice,
  { stations }: Path,
  { id }: StationThat<'pause'>,
): Setting<StationThat<'pause'>>[] => {
  const at = stations.findIndex((one) => one.id === id)
  const next = stations.slice(at + 1).find((one): one is StationThat<'sessions'> => one.does === 'sessions')
  const before = next ? serviceName(practice, next.service) : 'what comes next'
  return [
    {
      is: 'whole',
      label: `Nothing for so many days, before ${before}`,
      what,
      least: 1,
      most: 366,
      ...under<StationThat<'pause'>, 'days'>('days'),
    },
  ]
}
