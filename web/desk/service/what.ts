import type { Service } from '@acolhida/core/practice'
import { type Duration, duration } from '@acolhida/core/time'
import { type Setting, under } from '../settings/setting.ts'

const many = (service: Service): boolean => service.seats > 1
const onDates = (service: Service): boolean => many(service) && service.groupAt === 'dates'
const costs = (service: Service): boolean => service.price.kind !== 'free'

const PRICES = [
  { value: 'free', name: 'Free of charge' },
  { value: 'fixed', name: 'A fixed price' },
  { value: 'hourly', name: 'By the hour' },
]
export const MARKS = [
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
const partOfPrice = (label: string, key: 'whole' | 'least', help: string): Setting<Service> => ({
  label,
  what: 'a price',
  is: 'money',
  empty: true,
  help,
  show: costs,
  path: 'price',
  read: ({ price }) => (price.kind === 'free' ? undefined : price[key]),
  write: (service, value) => {
    if (service.price.kind === 'free') return service
    const { [key]: _, ...rest } = service.price
    const price = value === undefined ? rest : { ...rest, [key]: value }
    return { ...service, price: price as Service['price'] }
  },
})

const trimmed = (text: string | undefined): string | undefined => text?.trim()

/** What a service is. */
export const WHAT: readonly Setting<Service>[] = [
  {
    label: 'Name',
    what: 'the name of a service',
    is: 'text',
    path: 'name',
    read: ({ name }) => name,
    write: (service, name) => ({ ...service, name: name ?? '' }),
  },
  {
    label: 'Heading at the door',
    what: 'a heading',
    is: 'text',
    empty: true,
    help: 'Services of one heading stand together.',
    ...under<Service, 'section'>('section'),
    write: (service, text) => under<Service, 'section'>('section').write(service, trimmed(text)),
  },
  {
    label: 'Description',
    what: 'a description',
    is: 'text',
    rows: 4,
    path: 'description',
    read: ({ description }) => description,
    write: (service, description) => ({ ...service, description: description ?? '' }),
  },
  {
    label: 'Length',
    what: 'a length',
    is: 'whole',
    suffix: 'min',
    least: 1,
    ...under<Service, 'minutes'>('minutes'),
  },
  {
    label: 'Never shorter than',
    what: 'a length',
    is: 'whole',
    suffix: 'min',
    least: 1,
    empty: true,
    help: 'Whatever the answers say.',
    ...under<Service, 'leastMinutes'>('leastMinutes'),
  },
  {
    label: 'Rounded up to',
    what: 'a length',
    is: 'whole',
    suffix: 'min',
    least: 1,
    ...under<Service, 'lengthStep'>('lengthStep'),
  },
  {
    label: 'Mark',
    what: 'a mark',
    is: 'choice',
    options: MARKS,
    path: 'colour',
    read: ({ colour }) => colour,
    write: (service, colour) => ({ ...service, colour: colour as Service['colour'] }),
  },
  {
    label: 'What it costs',
    what: 'a price',
    is: 'choice',
    options: PRICES,
    read: ({ price }) => price.kind,
    write: withPriceKind,
  },
  {
    label: 'Price',
    what: 'a price',
    is: 'money',
    show: costs,
    read: priceOf,
    write: (service, value = 0) => {
      if (service.price.kind === 'hourly') return { ...service, price: { ...service.price, rate: value } }
      return service.price.kind === 'fixed'
        ? { ...service, price: { ...service.price, amount: value } }
        : service
    },
  },
  partOfPrice('Lower price', 'whole', 'At starts that keep the day whole. Empty: none.'),
  partOfPrice('Never less than', 'least', 'Whatever follows from the answers.'),
  {
    label: 'Seats',
    what: 'the seats',
    is: 'whole',
    least: 1,
    help: 'More than one makes it a group.',
    ...under<Service, 'seats'>('seats'),
  },
  {
    label: 'A group takes place',
    what: 'when a group takes place',
    is: 'choice',
    show: many,
    options: [
      { value: 'dates', name: 'On dates I set' },
      { value: 'any', name: 'At any opening' },
    ],
    path: 'groupAt',
    read: ({ groupAt }) => groupAt,
    write: (service, groupAt) => ({ ...service, groupAt: groupAt as Service['groupAt'] }),
  },
  {
    label: 'At least',
    what: 'the least number',
    is: 'whole',
    least: 1,
    empty: true,
    suffix: 'people',
    path: 'least',
    help: 'Fewer: the date is called off. Empty: any number.',
    show: onDates,
    read: ({ least }) => least?.people,
    write: (service, people) =>
      under<Service, 'least'>('least').write(
        service,
        people === undefined ? undefined : { people, by: service.least?.by ?? duration('PT24H') },
      ),
  },
  {
    label: 'Known',
    what: 'the least number',
    is: 'duration',
    least: 1,
    suffix: 'before',
    path: 'least.by',
    show: (service) => onDates(service) && service.least !== undefined,
    read: ({ least }) => least?.by ?? duration('PT24H'),
    write: (service, by) => (service.least ? { ...service, least: { ...service.least, by } } : service),
  },
]

/** @throws Error where it is no whole address of a page */
function checkAddress(address: string | undefined): void {
  if (address && !/^https?:\/\/[^\s/]+/i.test(address))
    throw new Error('Please write the whole address: https://…')
}

/** What whoever has booked it is shown. */
export const AFTERWARDS: readonly Setting<Service>[] = [
  {
    label: 'Words for whoever has booked it',
    what: 'what is shown after booking',
    is: 'text',
    rows: 4,
    empty: true,
    path: 'afterwards.text',
    read: ({ afterwards }) => afterwards?.text,
    write: (service, text) => withAfterwards(service, { ...service.afterwards, text: text ?? '' }),
  },
  {
    label: 'A page or document for them',
    what: 'what is shown after booking',
    is: 'text',
    empty: true,
    path: 'afterwards.address',
    help: 'Its address: https://…',
    read: ({ afterwards }) => afterwards?.address,
    write: (service, address) => {
      checkAddress(address)
      const { text = '' } = service.afterwards ?? {}
      return withAfterwards(service, { text, ...(address ? { address } : {}) })
    },
  },
]

const withAfterwards = (
  { afterwards: _, ...service }: Service,
  afterwards: NonNullable<Service['afterwards']>,
): Service => (afterwards.text || afterwards.address ? { ...service, afterwards } : service)

/** What is to be read or done before a session. */
export const BEFORE: readonly Setting<Service>[] = [
  {
    label: 'Something to read or do before',
    what: 'what is to be done before',
    is: 'text',
    rows: 4,
    empty: true,
    path: 'before.text',
    read: ({ before }) => before?.text,
    write: (service, text) => withBefore(service, { ...service.before, text: text ?? '' }),
  },
  {
    label: 'A page or document for that',
    what: 'what is to be done before',
    is: 'text',
    empty: true,
    path: 'before.address',
    help: 'Its address: https://…',
    show: ({ before }) => before !== undefined,
    read: ({ before }) => before?.address,
    write: (service, address) => {
      checkAddress(address)
      const { address: _, ...before } = service.before ?? { text: '' }
      return withBefore(service, { ...before, ...(address ? { address } : {}) })
    },
  },
  {
    label: 'The client ticks it as done on their page',
    what: 'what is to be done before',
    is: 'switch',
    show: ({ before }) => before !== undefined,
    read: ({ before }) => before?.tick === true,
    write: (service, tick) => withBefore(service, { ...(service.before ?? { text: '' }), tick }),
  },
  {
    label: 'To be done at least so long before',
    what: 'what is to be done before',
    is: 'duration',
    show: ({ before }) => before?.tick === true,
    read: ({ before }) => before?.by ?? ('P1D' as Duration),
    write: (service, by) => withBefore(service, { ...(service.before ?? { text: '' }), by }),
  },
]

const withBefore = ({ before: _, ...service }: Service, before: NonNullable<Service['before']>): Service =>
  before.text || before.address ? { ...service, before } : service

/** What is told of it before the questions, and whether it is told at all. */
export const SHOWN: readonly Setting<Service>[] = [
  {
    label: 'Show the price before the questions',
    what: 'what is shown',
    is: 'switch',
    read: ({ priceHidden }) => !priceHidden,
    write: (service, on) => ({ ...service, priceHidden: !on }),
  },
  {
    label: 'Show the length before the questions',
    what: 'what is shown',
    is: 'switch',
    read: ({ lengthHidden }) => !lengthHidden,
    write: (service, on) => ({ ...service, lengthHidden: !on }),
  },
  {
    label: 'At the door',
    what: 'whether a service is at the door',
    is: 'switch',
    read: ({ on }) => on,
    write: (service, on) => ({ ...service, on }),
  },
]
