import type { HouseRules, MySide, Practice } from '@acolhida/core/practice'
import { duration } from '@acolhida/core/time'
import { type Setting, under } from './setting.ts'

type Tier = HouseRules['cancel'][number]

/** A share of the price. @throws Error when it is above the whole */
export function percent(value = 0): number {
  if (value > 100) throw new Error('That is more than the whole price: write 100 at most.')
  return value
}

/** One step of what cancelling costs. */
export const TIER: readonly Setting<Tier>[] = [
  {
    label: 'Until this long before',
    what: 'what cancelling costs',
    is: 'duration',
    least: 0,
    ...under<Tier, 'until'>('until'),
  },
  {
    label: 'It costs',
    what: 'what cancelling costs',
    is: 'whole',
    suffix: '% of the price',
    path: 'share',
    read: ({ share }) => share,
    write: (tier, share) => ({ ...tier, share: percent(share) }),
  },
]

const rule =
  (to: (rules: HouseRules, value: number) => HouseRules) => (practice: Practice, value?: number) => ({
    ...practice,
    houseRules: to(practice.houseRules, value ?? 0),
  })

/** What cancelling costs in the end. */
export const AFTER: readonly Setting<Practice>[] = [
  {
    label: 'After that, it costs',
    what: 'what cancelling costs',
    is: 'whole',
    suffix: '% of the price',
    path: 'houseRules.cancelAfter',
    read: ({ houseRules }) => houseRules.cancelAfter,
    write: rule((rules, value) => ({ ...rules, cancelAfter: percent(value) })),
  },
]

/** Moving, and coming late. */
export const MOVING: readonly Setting<Practice>[] = [
  {
    label: 'Moves by the client',
    what: 'moving',
    is: 'whole',
    help: 'At the most; 0: none.',
    path: 'houseRules.move.times',
    read: ({ houseRules }) => houseRules.move.times,
    write: rule((rules, times) => ({ ...rules, move: { ...rules.move, times } })),
  },
  {
    label: 'Until this long before',
    what: 'moving',
    is: 'duration',
    least: 0,
    path: 'houseRules.move.until',
    show: ({ houseRules }) => houseRules.move.times > 0,
    read: ({ houseRules }) => houseRules.move.until,
    write: (practice, until) => ({
      ...practice,
      houseRules: { ...practice.houseRules, move: { ...practice.houseRules.move, until } },
    }),
  },
]

export const LATE: readonly Setting<Practice>[] = [
  {
    label: 'Minutes of grace',
    what: 'the minutes of grace',
    is: 'whole',
    suffix: 'min',
    help: 'Only after them a session can be called missed.',
    path: 'houseRules.graceMinutes',
    read: ({ houseRules }) => houseRules.graceMinutes,
    write: rule((rules, graceMinutes) => ({ ...rules, graceMinutes })),
  },
]

/** What is usual to begin with; common practice, no source. */
const MINE: MySide = { within: duration('PT24H'), cancelled: 50, grace: 15, late: 25 }

/** Promises something for one's own part, or nothing any more. */
export function withMine(practice: Practice, on: boolean): Practice {
  const { mine: _, ...rules } = practice.houseRules
  return { ...practice, houseRules: on ? { ...rules, mine: MINE } : rules }
}

const mine = <K extends keyof MySide>(key: K, most: (value: MySide[K]) => MySide[K]) => ({
  path: `houseRules.mine.${key}`,
  read: ({ houseRules }: Practice) => (houseRules.mine ?? MINE)[key],
  write: (practice: Practice, value: MySide[K] = MINE[key]): Practice => ({
    ...practice,
    houseRules: {
      ...practice.houseRules,
      mine: { ...(practice.houseRules.mine ?? MINE), [key]: most(value) },
    },
  }),
})
const asTyped = <T>(value: T): T => value

/** What clients get where the practitioner does not keep to it. */
export const MY_SIDE: readonly Setting<Practice>[] = [
  {
    label: 'I cancel free until this long before',
    what: 'my side of it',
    is: 'duration',
    least: 0,
    ...mine('within', asTyped),
  },
  {
    label: 'Later, the client gets',
    what: 'my side of it',
    is: 'whole',
    suffix: '% of the price',
    ...mine('cancelled', percent),
  },
  {
    label: 'I can be late by',
    what: 'my side of it',
    is: 'whole',
    suffix: 'min',
    ...mine('grace', asTyped),
  },
  {
    label: 'If it is more, the client pays',
    what: 'my side of it',
    is: 'whole',
    suffix: '% less',
    help: 'When you say that you are running late.',
    ...mine('late', percent),
  },
]

/** One more step before the others, which costs as much as the first of them: it changes nothing until it is changed. */
export function withTier(practice: Practice): Practice {
  const { cancel } = practice.houseRules
  const taken = new Set(cancel.map(({ until }) => until))
  const until = [24, 48, 72, 96, 120, 144, 168, 336].map((hours) => duration(`PT${hours}H`))
  const free = until.find((one) => !taken.has(one)) ?? duration('P28D')
  const share = Math.min(practice.houseRules.cancelAfter, ...cancel.map((tier) => tier.share))
  return { ...practice, houseRules: { ...practice.houseRules, cancel: [{ until: free, share }, ...cancel] } }
}

export const withoutTier = (practice: Practice, at: number): Practice => ({
  ...practice,
  houseRules: { ...practice.houseRules, cancel: practice.houseRules.cancel.filter((_, i) => i !== at) },
})
