import type { Entry } from '../openings/index.ts'
import type { Instant } from '../time/index.ts'
import { type Component, propertyOf, titleOf, writtenIn } from './content.ts'
import { endsAt, isNotUnderstood, occurrencesOf, occurringIn, type Stretch } from './event.ts'
import { lengthIn, type Moments, momentInstant } from './moments.ts'

export type { Stretch } from './event.ts'

/** Stretches in order, joined where they meet or touch. */
export function joined(stretches: readonly Stretch[]): Stretch[] {
  const sorted = [...stretches]
    .filter((stretche) => stretche.to > stretche.from)
    .sort((a, b) => a.from - b.from)
  const result: Stretch[] = []
  for (const stretch of sorted) {
    const last = result.at(-1)
    if (last && stretch.from <= last.to) last.to = Math.max(last.to, stretch.to) as Instant
    else result.push({ ...stretch })
  }
  return result
}

/** What is left of some stretches without others. */
export function without(stretches: readonly Stretch[], taken: readonly Stretch[]): Stretch[] {
  let left = joined(stretches)
  for (const gone of joined(taken)) {
    left = left.flatMap(({ from, to }) => {
      if (gone.to <= from || gone.from >= to) return [{ from, to }]
      const parts: Stretch[] = []
      if (gone.from > from) parts.push({ from, to: gone.from })
      if (gone.to < to) parts.push({ from: gone.to, to })
      return parts
    })
  }
  return left
}

/** When somebody is available, and for which times anything is said at all. */
export interface Availability {
  free: Stretch[]
  covered: Stretch[]
}

/** The end a component says, or its start and its length; nothing where it says none. */
function endIn(part: Component, moments: Moments): Instant | undefined {
  const ends = propertyOf(part, 'DTEND')
  if (ends) return momentInstant(moments.read(ends))
  const begins = propertyOf(part, 'DTSTART')
  const duration = writtenIn(part, 'DURATION')
  return begins && duration ? endsAt(moments.read(begins), lengthIn(duration)) : undefined
}

/** The stretches of one AVAILABLE component that meet a span, each as long as the first. */
const repetitions = (part: Component, moments: Moments, span: Stretch): Stretch[] =>
  occurrencesOf(occurringIn(part, moments), span).map(({ at, start, length }) => ({
    from: start,
    to: endsAt(at, length),
  }))

/** Priority 0, or none, is the lowest; 1 is the highest (RFC 7953 §3.1, PRIORITY). */
const rank = (part: Component): number => {
  const priority = Number(writtenIn(part, 'PRIORITY'))
  return priority >= 1 && priority <= 9 ? priority : 10
}

/**
 * What the VAVAILABILITY components of a calendar (RFC 7953) say about a span: from the lowest priority to the
 * highest, each makes its own time unavailable and then its AVAILABLE stretches free. Components of one priority are
 * taken together: what any of them calls available is free.
 */
export function availabilityIn(
  calendar: Component,
  moments: Moments,
  from: Instant,
  to: Instant,
  skipped: string[] = [],
): Availability {
  const span = { from, to }
  const components = calendar.parts.filter((part) => part.name === 'VAVAILABILITY')
  const ranks = [...new Set(components.map(rank))].sort((a, b) => b - a)
  let free: Stretch[] = []
  const covered: Stretch[] = []
  for (const number of ranks) {
    const own: Stretch[] = []
    const available: Stretch[] = []
    for (const component of components.filter((other) => rank(other) === number)) {
      const read = (part: Component, work: () => void): void => {
        try {
          work()
        } catch (error) {
          if (!isNotUnderstood(error)) throw error
          skipped.push(`the availability “${titleOf(part)}”: ${error.message}`)
        }
      }
      read(component, () => {
        const begins = propertyOf(component, 'DTSTART')
        const whole: Stretch = {
          from: Math.max(begins ? momentInstant(moments.read(begins)) : from, from) as Instant,
          to: Math.min(endIn(component, moments) ?? to, to) as Instant,
        }
        own.push(whole)
        for (const part of component.parts)
          if (part.name === 'AVAILABLE')
            read(part, () => available.push(...within(repetitions(part, moments, span), whole)))
      })
    }
    free = joined([...without(free, own), ...available])
    covered.push(...own)
  }
  return { free, covered: joined(covered) }
}

const within = (stretches: readonly Stretch[], whole: Stretch): Stretch[] =>
  stretches.flatMap(({ from, to }) => {
    const part = {
      from: Math.max(from, whole.from) as Instant,
      to: Math.min(to, whole.to) as Instant,
    }
    return part.to > part.from ? [part] : []
  })

/** The times a calendar's availability leaves unavailable, as entries of the diary. */
export function unavailable(
  calendar: Component,
  moments: Moments,
  from: Instant,
  to: Instant,
  skipped: string[],
): Entry[] {
  const { free, covered } = availabilityIn(calendar, moments, from, to, skipped)
  return without(covered, free).map((stretch, i) => ({
    id: `unavailable ${i}`,
    kind: 'outside',
    start: stretch.from,
    end: stretch.to,
    clearBefore: 0,
    clearAfter: 0,
  }))
}
