import { type Booking, stateAt } from '@acolhida/core/booking'
import { awayTimes, blocksOn, missedLeast, type ReadHours } from '@acolhida/core/openings'
import { type Block, type Hours, type Practice, serviceOf } from '@acolhida/core/practice'
import { type DayNumber, dateAt, type Instant, minutesOf, shortDate, type Zone } from '@acolhida/core/time'
import type { BandItem, DrawnDay } from '../../drawings/day-band.tsx'
import { sideBySide } from '../../drawings/side-by-side.ts'
import type { Taken } from '../data/taken.ts'
import { keptFor } from '../hours/scope.ts'

/** Whether a session is booked and has not begun. */
function isToCome(booking: Booking, now: Instant): boolean {
  const state = stateAt(booking, now)
  return state.is === 'booked' && !state.begun
}

/** From which to which minute of the day the bands run: the hours, and whatever lies outside them. */
export function hoursShown(
  hours: Hours,
  { diary }: Taken,
  days: DayNumber[],
  where: Zone,
): { from: number; to: number } {
  let from = 9 * 60
  let to = 18 * 60
  for (const weekly of [hours.weekly, ...(hours.seasons ?? []).map((season) => season.weekly)]) {
    for (const block of weekly.flat()) {
      from = Math.min(from, minutesOf(block.from))
      to = Math.max(to, minutesOf(block.to))
    }
  }
  for (const entry of diary.entries) {
    const start = where.toWall(entry.start)
    if (start.day < days[0]! || start.day > days.at(-1)!) continue
    from = Math.min(from, start.ms / 60_000)
    to = Math.max(to, (entry.end - entry.start + start.ms) / 60_000)
  }
  return { from: Math.floor((from - 30) / 120) * 120, to: Math.min(1440, Math.ceil((to + 30) / 120) * 120) }
}

/** For whom a block is kept, as it stands in the diary; nothing where it is for everybody. */
function keptBlock(practice: Practice, block: Block): { kept?: string } {
  const whom = keptFor(practice, block)
  return whom ? { kept: `for ${whom}` } : {}
}

/** One day of the diary as a band. */
export function dayBandOf(
  practice: Practice,
  taken: Taken,
  day: DayNumber,
  shown: { from: number; to: number },
  starts: readonly Instant[],
  now: Instant,
  where: Zone,
  hours: ReadHours,
): DrawnDay {
  const from = where.toInstant(day, Math.max(0, shown.from))
  const to = where.toInstant(day, shown.to)
  const items = taken.diary.entries
    .filter((entry) => entry.start < to && entry.end > from)
    .map((entry): BandItem => {
      const { title, line, booking } = taken.title(entry)
      const look = entry.kind === 'outside' ? 'outside' : entry.kind === 'hold' ? 'hold' : 'session'
      const { id, start, end, clearBefore, clearAfter } = entry
      const service = serviceOf(practice, entry.service ?? '')
      const off = service && entry.seats ? missedLeast(service, entry, where, now) : false
      return {
        id: `${id} ${start}`,
        start,
        end,
        clearBefore,
        clearAfter,
        look,
        title,
        line: entry.kind === 'hold' ? `${line}, held` : off ? `${line}, called off: too few` : line,
        ...(service ? { mark: service.colour } : {}),
        ...(off ? { off } : {}),
        ...(booking ? { booking: booking.id, moves: isToCome(booking, now) } : {}),
        ...(entry.seats ? { opens: true } : {}),
      }
    })
  // Two sessions at one time, wanted or not, are marked; an outside event is not the practitioner's to resolve.
  for (const item of items) {
    const meets = items.some(
      (other) =>
        other !== item && other.start < item.end && other.end > item.start && other.look !== 'outside',
    )
    if (meets && item.look !== 'outside') item.clash = true
  }
  for (const [i, lane] of sideBySide(items).entries()) {
    if (lane.lanes > 1) items[i]!.lane = lane
  }
  return {
    from,
    to,
    open: blocksOn(hours, day).map((block) => ({
      from: where.toInstant(day, block.from),
      to: where.toInstant(day, block.to),
      ...keptBlock(practice, block.block),
    })),
    away: awayTimes(practice, from, to)
      .filter((away) => away.from < to && away.to > from)
      .map((awayTime) => ({ from: awayTime.from, to: awayTime.to, note: awayTime.note ?? '' })),
    items,
    openings: starts.filter((start) => start >= from && start < to),
    now,
    zone: where,
    label: shortDate(dateAt(where, from)),
  }
}
