import type { WouldLead } from '@acolhida/core/booking'
import type { Counting, HouseRules, Lead, Practice } from '@acolhida/core/practice'
import { duration, durationWords } from '@acolhida/core/time'
import { counted } from '../parts/words.ts'
import { type Setting, under } from './setting.ts'

/** What a consequence is: as it is chosen, and at the beginning of a sentence. */
const LEADS_TO: Record<Lead['to'], { name: string; words: string }> = {
  ask: { name: 'I look first', words: 'You look at every request of theirs first' },
  'pay-first': { name: 'They pay first', words: 'They pay before anything of theirs is booked' },
  'not-online': { name: 'Nothing online', words: 'They can’t book online' },
}
export const leadsToWords = (to: Lead['to']): string => LEADS_TO[to].words

/** The most consequences there can be. */
export const MOST_LEADS = 4

const BEGIN: Counting = {
  missed: 1,
  late: 1,
  leads: [{ points: 2, within: duration('P6M'), to: 'ask', lasts: duration('P6M') }],
}

const withCounting = (practice: Practice, counting: Counting | undefined): Practice => {
  const { counting: _, ...rules } = practice.houseRules
  const houseRules: HouseRules = counting ? { ...rules, counting } : rules
  return { ...practice, houseRules }
}

/** Begins to count, with what is usual, or counts nothing any more. */
export const withCounts = (practice: Practice, on: boolean): Practice =>
  withCounting(practice, on ? BEGIN : undefined)

const counts =
  (key: 'missed' | 'late') =>
  (practice: Practice, points = 0): Practice =>
    withCounting(practice, { ...BEGIN, ...practice.houseRules.counting, [key]: points })

/** What counts how much. */
export const COUNTS: readonly Setting<Practice>[] = [
  {
    label: 'A missed session counts',
    what: 'what counts',
    is: 'whole',
    suffix: 'points',
    path: 'houseRules.counting.missed',
    read: ({ houseRules }) => houseRules.counting?.missed ?? 0,
    write: counts('missed'),
  },
  {
    label: 'One cancelled late counts',
    what: 'what counts',
    is: 'whole',
    suffix: 'points',
    path: 'houseRules.counting.late',
    read: ({ houseRules }) => houseRules.counting?.late ?? 0,
    write: counts('late'),
  },
]

/** One consequence. */
export const LEAD: readonly Setting<Lead>[] = [
  {
    label: 'From this many points on',
    what: 'what follows',
    is: 'whole',
    least: 1,
    suffix: 'points',
    path: 'points',
    read: ({ points }) => points,
    write: (lead, points = 1) => ({ ...lead, points }),
  },
  { label: 'Within', what: 'what follows', is: 'duration', least: 1, ...under<Lead, 'within'>('within') },
  {
    label: 'What follows',
    what: 'what follows',
    is: 'choice',
    options: (Object.keys(LEADS_TO) as Lead['to'][]).map((value) => ({ value, name: LEADS_TO[value].name })),
    read: ({ to }) => to,
    write: (lead, to) => ({ ...lead, to: to as Lead['to'] }),
  },
  { label: 'For', what: 'what follows', is: 'duration', least: 1, ...under<Lead, 'lasts'>('lasts') },
]

export const withLead = (practice: Practice): Practice => {
  const counting = practice.houseRules.counting ?? BEGIN
  const last = counting.leads.at(-1) ?? BEGIN.leads[0]!
  return withCounting(practice, {
    ...counting,
    leads: [...counting.leads, { ...last, points: last.points + 1, to: 'not-online' }],
  })
}

/** The practice with one consequence changed. */
export const withLeadAt = (practice: Practice, at: number, to: (lead: Lead) => Lead): Practice => {
  const { counting } = practice.houseRules
  return counting
    ? withCounting(practice, {
        ...counting,
        leads: counting.leads.map((lead, i) => (i === at ? to(lead) : lead)),
      })
    : practice
}

export const withoutLead = (practice: Practice, at: number): Practice => {
  const { counting } = practice.houseRules
  return counting
    ? withCounting(practice, { ...counting, leads: counting.leads.filter((_, i) => i !== at) })
    : practice
}

/** "From 2 points within 6 months: you look at every request of theirs first, for 6 months." */
export const leadWords = ({ points, within, to, lasts }: Lead): string =>
  `From ${counted(points, 'point', 'points')} within ${durationWords(within)} on: ${leadsToWords(to).replace(/^./, (first) => first.toLowerCase())}, for ${durationWords(lasts)}.`

/** "In the last twelve months, 3 sessions were missed and 5 cancelled late. By these rules …" */
export function wouldLeadWords({ missed, late, met }: WouldLead, leads: readonly Lead[]): string {
  if (missed + late === 0) return 'In the last twelve months, nothing was missed, and nothing cancelled late.'
  const people = met.map(
    (n, i) =>
      `${n === 0 ? 'nobody' : counted(n, 'person', 'people')} would have come to ${counted(leads[i]!.points, 'point', 'points')}`,
  )
  const then = people.length > 0 ? ` By these rules, ${people.join(', ')}.` : ''
  return `In the last twelve months, ${counted(missed, 'session was', 'sessions were')} missed and ${late} cancelled late.${then}`
}
