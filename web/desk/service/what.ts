import type { Service } from '@acolhida/core/practice'
import { amount, hours, hoursOf, optional, type ServiceField, text, whole } from './fields.ts'

const many = (service: Service): boolean => service.seats > 1
const onDates = (service: Service): boolean => many(service) && service.groupAt === 'dates'
const costs = (service: Service): boolean => service.price.kind !== 'free'

const PRICES = [
  { value: 'free', name: 'Free of charge' },
  { value: 'fixed', name: 'A fixed price' },
  { value: 'hourly', name: 'By the hour' },
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

/** A part of the price that may be left out. */
const priceField = (label: string, key: 'whole' | 'least', help: string): ServiceField => ({
  label,
  what: 'a price',
  at: 'price',
  money: true,
  help,
  show: costs,
  read: (s) => (s.price.kind === 'free' ? '' : text(s.price[key])),
  write: (s, t, decimals) => {
    if (s.price.kind === 'free') return s
    const { [key]: _, ...rest } = s.price
    const price = t.trim() === '' ? rest : { ...rest, [key]: amount(t, decimals) }
    return { ...s, price: price as Service['price'] }
  },
})

/** What a service is. */
export const WHAT: ServiceField[] = [
  { label: 'Name', what: 'the name of a service', read: (s) => s.name, write: (s, name) => ({ ...s, name }) },
  {
    label: 'Heading at the door',
    what: 'a heading',
    help: 'Services of one heading stand together.',
    read: (s) => text(s.section),
    write: (s, t) => optional(s, 'section', t, (one) => one.trim()),
  },
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
    at: 'minutes',
    write: (s, t) => ({ ...s, minutes: whole(t, 1) }),
  },
  {
    label: 'Never shorter than',
    what: 'a length',
    suffix: 'min',
    type: 'number',
    help: 'Whatever the answers say.',
    read: (s) => text(s.leastMinutes),
    write: (s, t) => optional(s, 'leastMinutes', t, (n) => whole(n, 1)),
  },
  {
    label: 'Rounded up to',
    what: 'a length',
    suffix: 'min',
    type: 'number',
    read: (s) => text(s.lengthStep),
    write: (s, t) => ({ ...s, lengthStep: whole(t, 1) }),
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
    money: true,
    show: costs,
    read: (s) => text(priceOf(s)),
    write: (s, t, decimals) => {
      const value = amount(t, decimals)
      if (s.price.kind === 'hourly') return { ...s, price: { ...s.price, rate: value } }
      return s.price.kind === 'fixed' ? { ...s, price: { ...s.price, amount: value } } : s
    },
  },
  priceField('Lower price', 'whole', 'At starts that keep the day whole. Empty: none.'),
  priceField('Never less than', 'least', 'Whatever follows from the answers.'),
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
  {
    label: 'At least',
    what: 'the least number',
    type: 'number',
    suffix: 'people',
    at: 'least',
    help: 'Fewer: the date is called off. Empty: any number.',
    show: onDates,
    read: (s) => text(s.least?.people),
    write: (s, t) =>
      optional(s, 'least', t, (n) => ({ people: whole(n, 1), by: s.least?.by ?? hours('24') })),
  },
  {
    label: 'Known',
    what: 'the least number',
    type: 'number',
    suffix: 'hours before',
    show: (s) => onDates(s) && s.least !== undefined,
    read: (s) => (s.least ? hoursOf(s.least.by) : ''),
    write: (s, t) => (s.least ? { ...s, least: { ...s.least, by: hours(t, 1) } } : s),
  },
]
