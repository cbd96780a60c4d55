import type { Service } from '@acolhida/core/practice'
import { type LocalDate, wallTime } from '@acolhida/core/time'
import { type Setting, under } from '../settings/setting.ts'

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

/** The first or the last day of a season; open at that end where it is empty. */
const seasonEdge = (label: string, edge: 'from' | 'to'): Setting<Service> => ({
  label,
  what: 'a season',
  is: 'date',
  empty: true,
  path: 'season',
  show: ({ season }) => season !== undefined,
  read: ({ season }) => season?.[edge],
  write: (service, day) => {
    if (!service.season) return service
    const { [edge]: _, ...rest } = service.season
    return { ...service, season: day === undefined ? rest : { ...rest, [edge]: day } }
  },
})

const clear = (label: string, key: 'clearBefore' | 'clearAfter'): Setting<Service> => ({
  label,
  what: 'time kept clear',
  is: 'whole',
  suffix: 'min',
  ...under<Service, typeof key>(key),
})

const most = (label: string, key: 'perDay' | 'perWeek'): Setting<Service> => ({
  label,
  what: 'a limit',
  is: 'limit',
  help: 'Empty: no limit.',
  ...under<Service, typeof key>(key),
})

const edge = (label: string, key: 'earliestStart' | 'latestStart', help: string): Setting<Service> => ({
  label,
  what: 'the edges of the day',
  is: 'time',
  empty: true,
  help,
  ...under<Service, typeof key>(key),
})

/** When it can be booked. */
export const whenFields = (today: LocalDate): readonly Setting<Service>[] => [
  {
    label: 'Starts',
    what: 'the starts',
    is: 'choice',
    options: STARTS,
    read: ({ starts }) => starts.kind,
    write: (service, kind) => ({
      ...service,
      starts: kind === 'fixed' ? { kind, times: [wallTime(540)] } : { kind: 'every', minutes: 30 },
    }),
  },
  {
    label: 'A start every',
    what: 'the starts',
    is: 'whole',
    least: 1,
    suffix: 'min',
    show: ({ starts }) => starts.kind === 'every',
    read: ({ starts }) => (starts.kind === 'every' ? starts.minutes : undefined),
    write: (service, minutes = 1) => ({ ...service, starts: { kind: 'every', minutes } }),
  },
  {
    label: 'Times of day',
    what: 'the starts',
    is: 'times',
    help: 'As 9:00, 14:30.',
    show: ({ starts }) => starts.kind === 'fixed',
    read: ({ starts }) => (starts.kind === 'fixed' ? starts.times : []),
    write: (service, times) => ({ ...service, starts: { kind: 'fixed', times } }),
  },
  edge('Not before', 'earliestStart', 'Earliest start.'),
  edge('Not after', 'latestStart', 'Latest start.'),
  { label: 'Notice', what: 'the notice', is: 'duration', ...under<Service, 'notice'>('notice') },
  {
    label: 'How far ahead',
    what: 'the reach',
    is: 'choice',
    options: REACHES,
    read: ({ reach }) => reach.kind,
    write: (service, kind) => withReachKind(service, kind, today),
  },
  {
    label: 'Days ahead',
    what: 'the reach',
    is: 'whole',
    least: 1,
    path: 'reach',
    show: ({ reach }) => reach.kind === 'days' || reach.kind === 'working-days',
    read: ({ reach }) => ('days' in reach ? reach.days : undefined),
    write: (service, days = 1) =>
      'days' in service.reach ? { ...service, reach: { ...service.reach, days } } : service,
  },
  {
    label: 'Last day',
    what: 'the reach',
    is: 'date',
    path: 'reach',
    show: ({ reach }) => reach.kind === 'until',
    read: ({ reach }) => (reach.kind === 'until' ? reach.date : undefined),
    write: (service, last) =>
      last === undefined ? service : { ...service, reach: { kind: 'until', date: last } },
  },
  {
    label: 'A month opens on day',
    what: 'the reach',
    is: 'whole',
    least: 1,
    help: 'Of the month before it.',
    path: 'reach',
    show: ({ reach }) => reach.kind === 'months',
    read: ({ reach }) => (reach.kind === 'months' ? reach.opensOn : undefined),
    write: (service, opensOn = 1) => ({ ...service, reach: { kind: 'months', opensOn } }),
  },
  clear('Kept clear before', 'clearBefore'),
  clear('Kept clear after', 'clearAfter'),
  most('At most a day', 'perDay'),
  most('At most a week', 'perWeek'),
  {
    label: 'Times shown at most',
    what: 'how many times are shown',
    is: 'limit',
    help: 'A few well-chosen ones. Empty: all.',
    ...under<Service, 'showAtMost'>('showAtMost'),
  },
  {
    label: 'Season',
    what: 'a season',
    is: 'choice',
    options: SEASONS,
    read: ({ season }) => (season ? (season.on ? 'only' : 'except') : ''),
    write: (service, kind) =>
      under<Service, 'season'>('season').write(
        service,
        kind === '' ? undefined : { ...service.season, on: kind === 'only' },
      ),
  },
  seasonEdge('From', 'from'),
  seasonEdge('Until', 'to'),
  {
    label: 'Clear time lies inside my hours, too',
    what: 'time kept clear',
    is: 'switch',
    ...under<Service, 'clearInsideHours'>('clearInsideHours'),
  },
  {
    label: 'Offer only starts that leave usable time',
    what: 'tidy starts',
    is: 'switch',
    ...under<Service, 'tidy'>('tidy'),
  },
]
