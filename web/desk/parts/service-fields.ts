import type { Practice, Service } from '@acolhida/core/practice'
import { date, duration, type LocalDate, time, wallTime } from '@acolhida/core/time'

/** One setting of a service as it is shown and typed. */
export interface ServiceField {
  label: string
  /** What is changed, for undo. */
  what: string
  read: (service: Service) => string
  /** The service with what was typed. @throws Error with a sentence when it can't be used */
  write: (service: Service, typed: string, decimals: number) => Service
  help?: string
  suffix?: string
  rows?: number
  type?: 'number' | 'text' | 'time'
  options?: readonly { value: string; name: string }[]
  /** Shown only for services of which this holds. */
  show?: (service: Service) => boolean
}

/** A whole number as typed. @throws Error when it is none, or below `least` */
export function whole(typed: string, least = 0): number {
  const value = Number(typed)
  if (typed.trim() === '' || !Number.isInteger(value) || value < least) {
    throw new Error(`Please write a whole number${least > 0 ? ` from ${least} on` : ''}.`)
  }
  return value
}

/** An amount as typed, in minor units. @throws Error when it is none */
export function amount(typed: string, decimals: number): number {
  const value = Math.round(Number(typed.replace(',', '.')) * 10 ** decimals)
  if (typed.trim() === '' || !Number.isFinite(value) || value < 0)
    throw new Error('Please write an amount, as 95.00.')
  return value
}

/** The service with an optional setting given, or taken away where nothing was typed. */
function optional<K extends keyof Service>(
  service: Service,
  key: K,
  typed: string,
  read: (typed: string) => Service[K],
): Service {
  const { [key]: _, ...rest } = service
  return typed.trim() === '' ? (rest as Service) : { ...service, [key]: read(typed) }
}

/** A time of day as typed in one of several hands: 9, 9:30, 9h30. */
export function clock(typed: string): ReturnType<typeof time> {
  const match = /^(\d{1,2})(?:[:.h](\d{2}))?$/.exec(typed.trim())
  if (!match) throw new Error(`“${typed.trim()}” is not a time of day; write it as 9:30.`)
  return time(`${match[1]!.padStart(2, '0')}:${match[2] ?? '00'}`)
}

const many = (service: Service): boolean => service.seats > 1
const text = (value: number | string | undefined): string => (value === undefined ? '' : String(value))

const PRICES = [
  { value: 'free', name: 'Free of charge' },
  { value: 'fixed', name: 'A fixed price' },
  { value: 'hourly', name: 'By the hour' },
]
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
const APPROVAL = [
  { value: 'ask', name: 'Ask me' },
  { value: 'unsure', name: 'Ask me when unsure' },
  { value: 'straight', name: 'Straight in' },
]
const MARKS = [
  { value: 'leaf', name: 'Garden green' },
  { value: 'tile', name: 'Tile blue' },
  { value: 'clay', name: 'Burnt clay' },
  { value: 'sun', name: 'Saffron' },
]

const priceOf = (service: Service): number =>
  service.price.kind === 'free'
    ? 0
    : service.price.kind === 'hourly'
      ? service.price.rate
      : service.price.amount

function withPriceKind(service: Service, kind: string): Service {
  const value = priceOf(service)
  if (kind === 'free') return { ...service, price: { kind: 'free' } }
  return {
    ...service,
    price: kind === 'hourly' ? { kind: 'hourly', rate: value } : { kind: 'fixed', amount: value },
  }
}

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

/** The notice in whole hours; days count as 24. */
function noticeHours(service: Service): string {
  const [, days = '0', hours = '0', minutes = '0'] =
    /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?)?$/.exec(service.notice) ?? []
  return String(Number(days) * 24 + Number(hours) + Number(minutes) / 60)
}

/** What a service is. */
export const WHAT: ServiceField[] = [
  { label: 'Name', what: 'the name of a service', read: (s) => s.name, write: (s, name) => ({ ...s, name }) },
  {
    label: 'Description',
    what: 'a description',
    rows: 4,
    read: (s) => s.description,
    write: (s, description) => ({ ...s, description }),
  },
  {
    label: 'Length',
    what: 'a length',
    suffix: 'min',
    type: 'number',
    read: (s) => text(s.minutes),
    write: (s, t) => ({ ...s, minutes: whole(t, 1) }),
  },
  {
    label: 'Mark',
    what: 'a mark',
    options: MARKS,
    read: (s) => s.colour,
    write: (s, colour) => ({ ...s, colour: colour as Service['colour'] }),
  },
  {
    label: 'What it costs',
    what: 'a price',
    options: PRICES,
    read: (s) => s.price.kind,
    write: withPriceKind,
  },
  {
    label: 'Price',
    what: 'a price',
    show: (s) => s.price.kind !== 'free',
    read: (s) => text(priceOf(s)),
    write: (s, t, decimals) => {
      const value = amount(t, decimals)
      if (s.price.kind === 'hourly') return { ...s, price: { ...s.price, rate: value } }
      return s.price.kind === 'fixed' ? { ...s, price: { ...s.price, amount: value } } : s
    },
  },
  {
    label: 'Seats',
    what: 'the seats',
    type: 'number',
    help: 'More than one makes it a group.',
    read: (s) => text(s.seats),
    write: (s, t) => ({ ...s, seats: whole(t, 1) }),
  },
  {
    label: 'A group takes place',
    what: 'when a group takes place',
    show: many,
    options: [
      { value: 'dates', name: 'On dates I set' },
      { value: 'any', name: 'At any opening' },
    ],
    read: (s) => s.groupAt,
    write: (s, groupAt) => ({ ...s, groupAt: groupAt as Service['groupAt'] }),
  },
]

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
    read: (s) => text(s.latestStart),
    write: (s, t) => optional(s, 'latestStart', t, clock),
  },
  {
    label: 'Notice',
    what: 'the notice',
    suffix: 'hours',
    type: 'number',
    read: noticeHours,
    write: (s, t) => ({ ...s, notice: duration(`PT${whole(t)}H`) }),
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
    write: (s, t) => optional(s, 'perDay', t, (n) => whole(n, 1)),
  },
  {
    label: 'At most a week',
    what: 'a limit',
    type: 'number',
    help: 'Empty: no limit.',
    read: (s) => text(s.perWeek),
    write: (s, t) => optional(s, 'perWeek', t, (n) => whole(n, 1)),
  },
  {
    label: 'Times shown at most',
    what: 'how many times are shown',
    type: 'number',
    help: 'A few well-chosen ones. Empty: all.',
    read: (s) => text(s.showAtMost),
    write: (s, t) => optional(s, 'showAtMost', t, (n) => whole(n, 1)),
  },
]

/** For whom it is. */
export const whomFields = (practice: Practice): ServiceField[] => [
  {
    label: 'Who may book it',
    what: 'who may book',
    options: [
      { value: 'everyone', name: 'Everyone' },
      { value: 'invited', name: 'Only people I have invited' },
    ],
    read: (s) => s.bookableBy,
    write: (s, by) => ({ ...s, bookableBy: by as Service['bookableBy'] }),
  },
  {
    label: 'New people',
    what: 'who is asked about',
    options: APPROVAL,
    read: (s) => s.approval.new,
    write: (s, to) => ({ ...s, approval: { ...s.approval, new: to as Service['approval']['new'] } }),
  },
  {
    label: 'People you know',
    what: 'who is asked about',
    options: APPROVAL,
    read: (s) => s.approval.known,
    write: (s, to) => ({ ...s, approval: { ...s.approval, known: to as Service['approval']['known'] } }),
  },
  {
    label: 'Questions',
    what: 'the questions of a service',
    options: [
      { value: '', name: 'None' },
      ...practice.questionnaires.map((one) => ({ value: one.id, name: one.name })),
    ],
    read: (s) => s.questionnaire ?? '',
    write: (s, id) => optional(s, 'questionnaire', id, (one) => one),
  },
]
