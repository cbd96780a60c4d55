import type { Service } from '@acolhida/core/practice'
import { date, type LocalDate, wallTime } from '@acolhida/core/time'
import { clock, hours, hoursOf, limit, optional, type ServiceField, text, whole } from './fields.ts'

const STARTS = [
  { value: 'every', name: 'Every so many minutes' },
  { value: 'fixed', name: 'At fixed times' },
]
const REACHES = [
  { value: 'days', name: 'A number of days' },
  { value: 'working-days', name: 'A number of working days' },
  { value: 'until', name: 'Until a date' },
  { value: 'months', name: 'Month by month' },
]
const SEASONS = [
  { value: '', name: 'All year' },
  { value: 'only', name: 'At the door only in these days' },
  { value: 'except', name: 'Off the door in these days' },
]

function withReachKind(service: Service, kind: string, today: LocalDate): Service {
  switch (kind) {
    case 'days':
      return { ...service, reach: { kind, days: 30 } }
    case 'working-days':
      return { ...service, reach: { kind, days: 10 } }
    case 'months':
      return { ...service, reach: { kind, opensOn: 1 } }
    default:
      return { ...service, reach: { kind: 'until', date: today } }
  }
}

function reachValue({ reach }: Service): string {
  if (reach.kind === 'until') return reach.date
  return String(reach.kind === 'months' ? reach.opensOn : reach.days)
}

function withReachValue(service: Service, typed: string): Service {
  const { reach } = service
  if (reach.kind === 'until') return { ...service, reach: { ...reach, date: date(typed.trim()) } }
  if (reach.kind === 'months') return { ...service, reach: { ...reach, opensOn: whole(typed, 1) } }
  return { ...service, reach: { ...reach, days: whole(typed, 1) } }
}

/** The first or the last day of a season; open at that end where it is empty. */
const seasonEdge = (label: string, edge: 'from' | 'to'): ServiceField => ({
  label,
  what: 'a season',
  type: 'date',
  at: 'season',
  show: (s) => s.season !== undefined,
  read: (s) => text(s.season?.[edge]),
  write: (s, t) => {
    if (!s.season) return s
    const { [edge]: _, ...rest } = s.season
    return { ...s, season: t.trim() === '' ? rest : { ...rest, [edge]: date(t.trim()) } }
  },
})

/** When it can be booked. */
export const whenFields = (today: LocalDate): ServiceField[] => [
  {
    label: 'Starts',
    what: 'the starts',
    options: STARTS,
    read: (s) => s.starts.kind,
    write: (s, kind) => ({
      ...s,
      starts: kind === 'fixed' ? { kind, times: [wallTime(540)] } : { kind: 'every', minutes: 30 },
    }),
  },
  {
    label: 'A start every',
    what: 'the starts',
    suffix: 'min',
    type: 'number',
    show: (s) => s.starts.kind === 'every',
    read: (s) => (s.starts.kind === 'every' ? text(s.starts.minutes) : ''),
    write: (s, t) => ({ ...s, starts: { kind: 'every', minutes: whole(t, 1) } }),
  },
  {
    label: 'Times of day',
    what: 'the starts',
    help: 'As 9:00, 14:30.',
    show: (s) => s.starts.kind === 'fixed',
    read: (s) => (s.starts.kind === 'fixed' ? s.starts.times.join(', ') : ''),
    write: (s, t) => ({
      ...s,
      starts: {
        kind: 'fixed',
        times: t
          .split(/[,;]+/)
          .filter((one) => one.trim())
          .map(clock)
          .sort(),
      },
    }),
  },
  {
    label: 'Not before',
    what: 'the edges of the day',
    help: 'Earliest start.',
    read: (s) => text(s.earliestStart),
    write: (s, t) => optional(s, 'earliestStart', t, clock),
  },
  {
    label: 'Not after',
    what: 'the edges of the day',
    help: 'Latest start.',
    at: 'latestStart',
    read: (s) => text(s.latestStart),
    write: (s, t) => optional(s, 'latestStart', t, clock),
  },
  {
    label: 'Notice',
    what: 'the notice',
    suffix: 'hours',
    type: 'number',
    at: 'notice',
    read: (s) => hoursOf(s.notice),
    write: (s, t) => ({ ...s, notice: hours(t) }),
  },
  {
    label: 'How far ahead',
    what: 'the reach',
    options: REACHES,
    read: (s) => s.reach.kind,
    write: (s, kind) => withReachKind(s, kind, today),
  },
  {
    label: 'That is',
    what: 'the reach',
    help: 'Days, a date as 2026-12-31, or the day of the month before on which a month opens.',
    at: 'reach',
    read: reachValue,
    write: withReachValue,
  },
  {
    label: 'Kept clear before',
    what: 'time kept clear',
    suffix: 'min',
    type: 'number',
    read: (s) => text(s.clearBefore),
    write: (s, t) => ({ ...s, clearBefore: whole(t) }),
  },
  {
    label: 'Kept clear after',
    what: 'time kept clear',
    suffix: 'min',
    type: 'number',
    read: (s) => text(s.clearAfter),
    write: (s, t) => ({ ...s, clearAfter: whole(t) }),
  },
  {
    label: 'At most a day',
    what: 'a limit',
    type: 'number',
    help: 'Empty: no limit.',
    read: (s) => text(s.perDay),
    write: (s, t) => optional(s, 'perDay', t, limit),
  },
  {
    label: 'At most a week',
    what: 'a limit',
    type: 'number',
    help: 'Empty: no limit.',
    read: (s) => text(s.perWeek),
    write: (s, t) => optional(s, 'perWeek', t, limit),
  },
  {
    label: 'Times shown at most',
    what: 'how many times are shown',
    type: 'number',
    help: 'A few well-chosen ones. Empty: all.',
    read: (s) => text(s.showAtMost),
    write: (s, t) => optional(s, 'showAtMost', t, limit),
  },
  {
    label: 'Season',
    what: 'a season',
    options: SEASONS,
    read: (s) => (s.season ? (s.season.on ? 'only' : 'except') : ''),
    write: (s, t) => optional(s, 'season', t, () => ({ ...s.season, on: t === 'only' })),
  },
  seasonEdge('From', 'from'),
  seasonEdge('Until', 'to'),
]
