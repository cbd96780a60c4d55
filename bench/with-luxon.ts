import type { Practice, Service } from '@acolhida/core/practice'
import { DateTime, Interval } from 'luxon'

/** The straightforward solution: luxon Intervals, a start at a time, as one would write it without a core. */
export function withLuxon(
  practice: Practice,
  service: Service,
  busy: readonly { start: number; end: number }[],
  from: string,
  days: number,
): number[] {
  const zone = practice.profile.zone
  const taken = busy.map((one) =>
    Interval.fromDateTimes(DateTime.fromMillis(one.start, { zone }), DateTime.fromMillis(one.end, { zone })),
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
        if (!taken.some((one) => one.overlaps(session))) open.push(s.toMillis())
      }
    }
  }
  return open
}
