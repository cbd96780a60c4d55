import { deadlinesOf } from '@acolhida/core/booking'
import type { HouseRules } from '@acolhida/core/practice'
import { type Instant, moment, timeAt, type Zone } from '@acolhida/core/time'
import type { LeadMark } from '../../drawings/lead-line.tsx'

const times = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`)
const ofPrice = (share: number): string => (share === 100 ? 'the whole price' : `${share} % of the price`)

/**
 * What the rules come to for one session asked for now: on the lead line, and as sentences with real dates. What is
 * over already is left out.
 */
export function exampleOf(
  rules: HouseRules,
  start: Instant,
  now: Instant,
  where: Zone,
): { marks: LeadMark[]; lines: string[] } {
  const { deadlines, shareAfter, missedFrom, mine } = deadlinesOf(rules, start, where)
  const coming = deadlines.filter(({ until }) => until >= now)
  const cancels = coming.filter(({ kind }) => kind === 'cancel')
  const said = (at: Instant): string => moment(at, where)
  const costs = cancels.map(({ share = 0, until }) =>
    share === 0
      ? `Cancelling is free of charge until ${said(until)}.`
      : `Until ${said(until)}, cancelling costs ${ofPrice(share)}.`,
  )
  const after =
    shareAfter === 0
      ? 'Cancelling is free of charge up to the session itself.'
      : `${cancels.length > 0 ? 'After that, cancelling' : 'Cancelling'} costs ${ofPrice(shareAfter)}.`
  const move = coming.find(({ kind }) => kind === 'move')
  const moving =
    rules.move.times === 0
      ? 'Only you can move it.'
      : move
        ? `Its client can move it until ${said(move.until)}, ${times(rules.move.times)} at the most.`
        : 'It is too near for its client to move it.'
  const marks: LeadMark[] = [
    { at: now, name: 'Asked', kind: 'past' },
    ...cancels.map(
      ({ share, until }): LeadMark => ({
        at: until,
        name: share ? `${share} % until` : 'Free to cancel until',
        kind: 'deadline',
      }),
    ),
    { at: start, name: 'Session', kind: 'session' },
  ]
  return {
    marks,
    lines: [
      ...(shareAfter === 0 ? [] : costs),
      after,
      moving,
      `After ${timeAt(where, missedFrom)} you can say that it was missed.`,
      ...(mine && mine.cancelled > 0
        ? [`If you cancel it after ${said(mine.until)}, its client gets ${ofPrice(mine.cancelled)} from you.`]
        : []),
      ...(mine && mine.late > 0
        ? [`If you come more than ${mine.grace} min late, its client pays ${ofPrice(mine.late)} less.`]
        : []),
    ],
  }
}
