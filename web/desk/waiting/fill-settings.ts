import {
  type Practice,
  type Service,
  WAITLIST,
  type Waitlist,
  waitlistOf,
  zoneOf,
} from '@acolhida/core/practice'
import { after, dateAt, durationWords, type Instant, moment, timeAt } from '@acolhida/core/time'
import type { SaidSentence, SaidValue } from '../service/said-sentence.ts'
import type { Setting } from '../settings/setting.ts'

const withList = (service: Service, change: Partial<Waitlist>): Service => ({
  ...service,
  waitlist: { ...(service.waitlist ?? { ...WAITLIST, door: false }), ...change },
})
const has = ({ waitlist }: Service): boolean => waitlist !== undefined

export const PREFERS: Record<Waitlist['prefer'], string> = {
  'longest-wait': 'who has waited longest',
  fullest: 'what makes most of the freed time',
  'known-first': 'people I already work with',
}

const askWords = (ask: Waitlist['ask']): string =>
  ask === 'none' ? 'nobody until I say so' : ask === 'all' ? 'everybody' : ask === 1 ? 'one' : String(ask)

/** How freed times of a service find their person. */
export const FILLING: readonly Setting<Service>[] = [
  {
    label: 'One can get in line at the door',
    what: 'whether one can wait for a service',
    is: 'switch',
    path: 'waitlist.door',
    read: ({ waitlist }) => waitlist?.door ?? false,
    write: (service, door) => withList(service, { door }),
  },
  {
    label: 'How many are asked for one time',
    what: 'how many are asked for a freed time',
    is: 'choice',
    path: 'waitlist.ask',
    show: has,
    options: [
      { value: 'none', name: 'Nobody until I say so' },
      ...[1, 2, 3, 5, 10].map((n) => ({
        value: String(n),
        name: n === 1 ? 'One at a time' : `${n} at once`,
      })),
      { value: 'all', name: 'Everybody; the first has it' },
    ],
    read: (service) => String(waitlistOf(service).ask),
    write: (service, ask) => withList(service, { ask: ask === 'none' || ask === 'all' ? ask : Number(ask) }),
  },
  {
    label: 'Who is asked first',
    what: 'who is asked first for a freed time',
    is: 'choice',
    path: 'waitlist.prefer',
    show: has,
    options: [
      { value: 'longest-wait', name: 'Who has waited longest' },
      { value: 'fullest', name: 'What makes most of the freed time' },
      { value: 'known-first', name: 'People I already work with' },
    ],
    read: (service) => waitlistOf(service).prefer,
    write: (service, prefer) => withList(service, { prefer: prefer as Waitlist['prefer'] }),
  },
  {
    label: 'What counts as most',
    what: 'what makes most of a freed time',
    is: 'choice',
    path: 'waitlist.worth',
    show: ({ waitlist }) => waitlist?.prefer === 'fullest',
    options: [
      { value: 'price', name: 'The price' },
      { value: 'minutes', name: 'The minutes' },
    ],
    read: (service) => waitlistOf(service).worth ?? 'price',
    write: (service, worth) => {
      const { worth: _, ...rest } = waitlistOf(service)
      return { ...service, waitlist: { ...rest, ...(worth === 'minutes' ? { worth } : {}) } }
    },
  },
  {
    label: 'How long a freed time stands',
    what: 'how long a freed time stands',
    is: 'duration',
    least: 1,
    path: 'waitlist.stands',
    show: has,
    read: (service) => waitlistOf(service).stands,
    write: (service, stands) => withList(service, { stands }),
  },
  {
    label: 'Its time does not run in the quiet hours',
    what: 'whether a freed time stands still in the quiet hours',
    is: 'switch',
    path: 'waitlist.quiet',
    show: has,
    read: (service) => waitlistOf(service).quiet ?? false,
    write: (service, quiet) => withList(service, { quiet }),
  },
  {
    label: 'Never later than so long before it begins',
    what: 'until when a freed time is held out',
    is: 'duration',
    path: 'waitlist.least',
    show: has,
    read: (service) => waitlistOf(service).least,
    write: (service, least) => withList(service, { least }),
  },
  {
    label: 'How many one can let go by',
    what: 'after how many somebody is asked whether they still wait',
    is: 'whole',
    least: 1,
    path: 'waitlist.letGo',
    show: has,
    read: (service) => waitlistOf(service).letGo,
    write: (service, letGo) => withList(service, { letGo: letGo ?? WAITLIST.letGo }),
  },
]

/** Until when a freed time stands that is held out now: "20:00", with its day where that is another. */
export function standsWords(practice: Practice, { stands }: Waitlist, now: Instant): string {
  const home = zoneOf(practice, undefined)
  const until = after(now, stands, home)
  return dateAt(home, until) === dateAt(home, now) ? timeAt(home, until) : moment(until, home)
}

/** How freed times of a service are filled, as one says it. */
export function fillSaid(
  practice: Practice,
  service: Service,
  now: Instant,
  value: (say: string, ...labels: string[]) => SaidValue,
): SaidSentence[] {
  const list = waitlistOf(service)
  const line: SaidSentence = [
    'Whom no open time suits ',
    value(
      list.door ? 'can get in line at the door' : 'can’t get in line at the door',
      'One can get in line at the door',
    ),
    '.',
  ]
  if (!service.waitlist) return [line]
  const { ask } = list
  return [
    line,
    [
      'When a time falls free, ask ',
      value(askWords(ask), 'How many are asked for one time'),
      ...(ask === 1 ? [' at a time, '] : ask === 'none' || ask === 'all' ? [', '] : [' at once, ']),
      value(PREFERS[list.prefer], 'Who is asked first', 'What counts as most'),
      ' first, each until ',
      value(
        standsWords(practice, list, now),
        'How long a freed time stands',
        'Its time does not run in the quiet hours',
      ),
      ' if asked now, never later than ',
      value(durationWords(list.least), 'Never later than so long before it begins'),
      ' before it begins.',
    ],
    [
      'Whoever lets ',
      value(list.letGo === 1 ? 'one' : String(list.letGo), 'How many one can let go by'),
      ' go by in a row is asked whether they still wait.',
    ],
  ]
}
