import {
  clearMinutes,
  epochMs,
  isoDuration,
  localDateShape,
  localDateTime,
  minor,
  minutes,
  pageAddress,
  picture,
  seats,
  someMinutes,
  tokenShape,
  wallTimeShape,
} from '../shape/plain.ts'
import {
  count,
  distinct,
  id,
  type KeysOf,
  line,
  list,
  maybe,
  object,
  one,
  tagged,
  text,
  unique,
  whole,
  yes,
} from '../shape/shape.ts'
import { paymentLine } from './payment-shape.ts'
import { houseRules } from './rules-shape.ts'
import type { Service } from './types.ts'
import { waitlistShape } from './waitlist.ts'

/** Settings of a service that belong together and can be copied to others. */
export type SettingsGroup =
  | 'when'
  | 'clear'
  | 'limits'
  | 'price'
  | 'extras'
  | 'whom'
  | 'questions'
  | 'terms'
  | 'rules'
  | 'places'
  | 'messages'
  | 'preparations'
  | 'waitlist'

type Shapes = KeysOf<Service>

interface ServiceSetting<K extends keyof Service> {
  shape: Shapes[K]
  /** Where it can be copied to other services: with which others. */
  group?: SettingsGroup
  /** Whether the door may tell it as it is; where it depends on the service, when. */
  door?: true | ((service: Service) => boolean)
}

const less = { whole: maybe(minor), least: maybe(minor) }
const price = tagged('kind', {
  free: {},
  fixed: { amount: minor, ...less },
  hourly: { rate: minor, ...less },
})
const starts = tagged('kind', {
  every: { minutes: someMinutes },
  fixed: { times: list(wallTimeShape, 96, 1) },
})
const reach = tagged('kind', {
  days: { days: count },
  'working-days': { days: count },
  until: { date: localDateShape },
  months: { opensOn: whole(1, 31) },
})
const approval = one('ask', 'unsure', 'straight')
const season = object({ on: yes, from: maybe(localDateShape), to: maybe(localDateShape) })
const some = maybe(count)

/** Every setting of a service: its schema, what it is copied with, and whether the door tells it. */
export const SERVICE_SETTINGS = {
  id: { shape: id, door: true },
  name: { shape: line(), door: true },
  description: { shape: text(2_000), door: true },
  section: { shape: maybe(line(80)), door: true },
  picture: { shape: maybe(picture), door: true },
  priceHidden: { shape: maybe(yes), group: 'price' },
  lengthHidden: { shape: maybe(yes) },
  extras: {
    shape: maybe(unique(object({ id, name: line(), minutes, price: minor }), 20)),
    group: 'extras',
    door: true,
  },
  minutes: { shape: someMinutes, door: ({ lengthHidden }) => !lengthHidden },
  leastMinutes: { shape: maybe(minutes) },
  lengthStep: { shape: someMinutes },
  places: { shape: list(id, 500, 1), group: 'places' },
  price: { shape: price, group: 'price', door: ({ priceHidden }) => !priceHidden },
  clearBefore: { shape: clearMinutes, group: 'clear' },
  clearAfter: { shape: clearMinutes, group: 'clear' },
  clearInsideHours: { shape: yes, group: 'clear' },
  starts: { shape: starts, group: 'when' },
  earliestStart: { shape: maybe(wallTimeShape), group: 'when' },
  latestStart: { shape: maybe(wallTimeShape), group: 'when' },
  notice: { shape: isoDuration, group: 'when' },
  reach: { shape: reach, group: 'when' },
  perDay: { shape: some, group: 'limits' },
  perWeek: { shape: some, group: 'limits' },
  seats: { shape: seats, door: true },
  groupAt: { shape: one('dates', 'any') },
  groupDates: { shape: unique(object({ id, start: localDateTime, place: id }), 1_000) },
  least: { shape: maybe(object({ people: seats, by: isoDuration })), door: true },
  showAtMost: { shape: some, group: 'when' },
  tidy: { shape: yes, group: 'when' },
  bookableBy: { shape: one('everyone', 'link', 'invited'), group: 'whom' },
  linkKey: { shape: maybe(tokenShape) },
  approval: { shape: object({ new: approval, known: approval }), group: 'whom' },
  questionnaire: { shape: maybe(id), group: 'questions' },
  terms: { shape: list(id, 500), group: 'terms' },
  houseRules: { shape: maybe(houseRules), group: 'rules' },
  payment: { shape: maybe(unique(paymentLine, 20)), group: 'price' },
  afterwards: { shape: maybe(object({ text: text(5_000), address: maybe(pageAddress) })) },
  before: {
    shape: maybe(
      object({
        text: text(5_000),
        address: maybe(pageAddress),
        tick: maybe(yes),
        by: maybe(isoDuration),
      }),
    ),
  },
  moves: { shape: maybe(object({ booked: maybe(line(60)), attended: maybe(line(60)) })) },
  prepares: { shape: maybe(distinct(id, 50)), group: 'preparations' },
  sequence: { shape: maybe(id), group: 'messages' },
  sequenceSince: { shape: maybe(epochMs) },
  waitlist: { shape: maybe(waitlistShape), group: 'waitlist' },
  on: { shape: yes },
  season: { shape: maybe(season) },
  colour: { shape: one('leaf', 'tile', 'clay', 'sun'), door: true },
} as const satisfies { [K in keyof Service]-?: ServiceSetting<K> }

type Settings = typeof SERVICE_SETTINGS
const all = Object.entries(SERVICE_SETTINGS) as [keyof Service, ServiceSetting<keyof Service>][]

/** The schemas of all settings. */
export const serviceShapes: Shapes = Object.fromEntries(
  all.map(([key, { shape }]) => [key, shape]),
) as Record<string, unknown> as Shapes

/** What the door may know of every service as it is. */
export type DoorPart = Pick<
  Service,
  { [K in keyof Settings]: Settings[K] extends { door: true } ? K : never }[keyof Settings]
> &
  Partial<
    Pick<
      Service,
      {
        [K in keyof Settings]: Settings[K] extends { door: (one: never) => boolean } ? K : never
      }[keyof Settings]
    >
  >

/** What the door may know of a service as it is. */
export const doorPart = (service: Service): DoorPart =>
  Object.fromEntries(
    all.flatMap(([key, { door }]) =>
      door && (door === true || door(service)) && service[key] !== undefined ? [[key, service[key]]] : [],
    ),
  ) as Partial<Service> as DoorPart

/** The settings of a group. */
export const settingsIn = (group: SettingsGroup): (keyof Service)[] =>
  all.flatMap(([key, setting]) => (setting.group === group ? [key] : []))

/** The groups of settings that can be copied. */
export const SETTINGS_GROUPS = [
  ...new Set(all.flatMap(([, { group }]) => (group ? [group] : []))),
] as SettingsGroup[]
