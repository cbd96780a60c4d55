import type { Practice, Service } from '@acolhida/core/practice'
import { DateTime, Interval } from 'luxon'

/** The first that comes to mind: luxon Intervals, a start at a time, each against all that is busy. */
export function naiveLuxon(
  practice: Practice,
  service: Service,
  busy: readonly { start: number; end: number }[],
  from: string,
  days: number,
): number[] {
  const zone = practice.profile.zone
  const taken = busy.map((span) =>
    Interval.fromDateTimes(
      DateTime.fromMillis(span.start, { zone }),
      DateTime.fromMillis(span.end, { zone }),
    ),
  )
  const open: number[] = []
  const step = service.starts.kind === 'every' ? service.starts.minutes : 5
  for (let i = 0; i < days; i++) {
    const day = DateTime.fromISO(from, { zone }).plus({ days: i })
    for (const block of practice.hours.weekly[day.weekday - 1]!) {
      const [h, m] = block.from.split(':').map(Number)
      const [eh, em] = block.to.split(':').map(Number)
      const end = day.set({ hour: eh!, minute: em! })
      for (
        let s = day.set({ hour: h!, minute: m! });
        s.plus({ minutes: service.minutes }) <= end;
        s = s.plus({ minutes: step })
      ) {
        const session = Interval.fromDateTimes(s, s.plus({ minutes: service.minutes }))
        if (!taken.some((interval) => interval.overlaps(session))) open.push(s.toMillis())
      }
    }
  }
  return open
}

/**
 * As an engineer who knows luxon would write it: what is busy by the day, the edges of the hours by luxon, and
 * milliseconds from there on.
 */
export function sensibleLuxon(
  practice: Practice,
  service: Service,
  busy: readonly { start: number; end: number }[],
  from: string,
  days: number,
): number[] {
  const zone = practice.profile.zone
  const dayOf = (at: number): string => DateTime.fromMillis(at, { zone }).toISODate()!
  const byDay = new Map<string, { start: number; end: number }[]>()
  for (const span of busy) {
    for (const day of new Set([dayOf(span.start), dayOf(span.end - 1)])) {
      const others = byDay.get(day)
      if (others) others.push(span)
      else byDay.set(day, [span])
    }
  }
  const open: number[] = []
  const step = (service.starts.kind === 'every' ? service.starts.minutes : 5) * 60_000
  const length = service.minutes * 60_000
  for (let i = 0; i < days; i++) {
    const day = DateTime.fromISO(from, { zone }).plus({ days: i })
    const taken = byDay.get(day.toISODate()!) ?? []
    for (const block of practice.hours.weekly[day.weekday - 1]!) {
      const [h, m] = block.from.split(':').map(Number)
      const [eh, em] = block.to.split(':').map(Number)
      const end = day.set({ hour: eh!, minute: em! }).toMillis()
      for (let s = day.set({ hour: h!, minute: m! }).toMillis(); s + length <= end; s += step)
        if (!taken.some((span) => span.start < s + length && span.end > s)) open.push(s)
    }
  }
  return open
}
