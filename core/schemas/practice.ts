import Joi from 'joi'
import { LARGEST_FILE } from '../questions/file-kinds.ts'
import {
  count,
  currency,
  email,
  id,
  isoDuration,
  line,
  localDate,
  localDateTime,
  maybeLine,
  minor,
  minutes,
  picture,
  repeatRule,
  slug,
  text,
  wallTime,
  webAddress,
  zoneName,
} from './plain.ts'
import { oneOf, tagged } from './tagged.ts'

const object = (keys: Joi.SchemaMap): Joi.ObjectSchema => Joi.object(keys)
const required = <T extends Joi.Schema>(schema: T): T => schema.required() as T
const all = (keys: Record<string, Joi.Schema>): Record<string, Joi.Schema> =>
  Object.fromEntries(Object.entries(keys).map(([key, schema]) => [key, required(schema)]))
const kind = (value: string): Joi.Schema => Joi.string().valid(value).required()
const byKind = (branches: Record<string, Joi.ObjectSchema>): Joi.AlternativesSchema =>
  tagged('kind', branches)
const unique = (schema: Joi.Schema, most = 500): Joi.ArraySchema =>
  Joi.array()
    .items(schema)
    .max(most)
    .unique('id')
    .messages({ 'array.unique': '{{#label}} has the same id as an earlier one' })

const block = object({
  ...all({ from: wallTime, to: wallTime }),
  reservedFor: object({
    services: Joi.array().items(id),
    places: Joi.array().items(id),
    known: Joi.boolean(),
  }),
})

const hours = object(
  all({
    weekly: Joi.array().items(Joi.array().items(block).max(24)).length(7),
    changedDays: Joi.array().items(
      object({ ...all({ date: localDate, blocks: Joi.array().items(block).max(24) }), note: maybeLine() }),
    ),
  }),
)

const place = object({
  ...all({
    id,
    kind: Joi.string().valid('studio', 'video', 'phone', 'client', 'other'),
    name: line(),
    told: Joi.string().valid('door', 'confirmation', 'last-reminder'),
  }),
  address: maybeLine(500),
  whoCalls: Joi.string().valid('practitioner', 'client'),
  zone: zoneName,
  hours,
  travel: unique(
    object(
      all({
        id,
        name: line(),
        surcharge: minor,
        clear: minutes.max(1_440),
        postalCodes: Joi.array().items(line(20)).max(500),
      }),
    ),
    50,
  ),
})

const price = byKind({
  free: object({ kind: kind('free') }),
  fixed: object({ kind: kind('fixed'), amount: required(minor), whole: minor, least: minor }),
  hourly: object({ kind: kind('hourly'), rate: required(minor), whole: minor, least: minor }),
})

const starts = byKind({
  every: object({ kind: kind('every'), minutes: required(minutes.min(1)) }),
  fixed: object({ kind: kind('fixed'), times: required(Joi.array().items(wallTime).min(1).max(96)) }),
})

const reach = byKind({
  days: object({ kind: kind('days'), days: required(count) }),
  'working-days': object({ kind: kind('working-days'), days: required(count) }),
  until: object({ kind: kind('until'), date: required(localDate) }),
  months: object({ kind: kind('months'), opensOn: required(Joi.number().integer().min(1).max(31)) }),
})

const approval = Joi.string().valid('ask', 'unsure', 'straight')

const service = object({
  ...all({
    id,
    name: line(),
    description: text(2_000),
    minutes: minutes.min(1),
    lengthStep: minutes.min(1),
    places: Joi.array().items(id).min(1),
    price,
    clearBefore: minutes.max(1_440),
    clearAfter: minutes.max(1_440),
    clearInsideHours: Joi.boolean(),
    starts,
    notice: isoDuration,
    reach,
    seats: count.max(500),
    groupAt: Joi.string().valid('dates', 'any'),
    groupDates: unique(object(all({ id, start: localDateTime, place: id })), 1_000),
    tidy: Joi.boolean(),
    bookableBy: Joi.string().valid('everyone', 'link', 'invited'),
    approval: object(all({ new: approval, known: approval })),
    terms: Joi.array().items(id),
    on: Joi.boolean(),
    colour: Joi.string().valid('leaf', 'tile', 'clay', 'sun'),
  }),
  leastMinutes: minutes,
  earliestStart: wallTime,
  latestStart: wallTime,
  perDay: count,
  perWeek: count,
  showAtMost: count,
  section: line(80),
  picture,
  priceHidden: Joi.boolean(),
  lengthHidden: Joi.boolean(),
  extras: unique(object(all({ id, name: line(), minutes, price: minor })), 20),
  least: object(all({ people: count.max(500), by: isoDuration })),
  linkKey: Joi.string().pattern(/^[A-Za-z0-9_-]{16,64}$/),
  season: object({ on: required(Joi.boolean()), from: localDate, to: localDate }),
  questionnaire: id,
})

const conditionLink = Joi.link('#condition')
const comparison = object({
  question: required(id),
  is: required(Joi.string().valid('=', '≠', '<', '≤', '>', '≥', 'includes')),
  value: required(Joi.alternatives().try(Joi.string().allow('').max(500), Joi.number(), Joi.boolean())),
})
export const condition = oneOf(
  (value) => ('question' in value ? comparison : undefined),
  [
    object({ all: required(Joi.array().items(conditionLink)) }),
    object({ any: required(Joi.array().items(conditionLink)) }),
    object({ not: required(conditionLink) }),
    object({ question: required(id), is: kind('answered') }),
    comparison,
    object({ person: required(Joi.string().valid('new', 'known', 'invited')) }),
    object({ tag: required(line(60)) }),
    object({ attempts: required(count) }),
  ],
).id('condition')

const choices = required(
  unique(object({ ...all({ id, text: line(300) }), points: Joi.number().min(-1_000).max(1_000) }), 100).min(
    1,
  ),
)
const question = (name: string, more: Joi.SchemaMap = {}): Joi.ObjectSchema =>
  object({
    ...all({ id, text: line(1_000), required: Joi.boolean() }),
    help: maybeLine(5_000),
    when: condition,
    private: Joi.boolean(),
    requiredAtDesk: Joi.boolean(),
    shownAgain: Joi.boolean(),
    eachTime: Joi.boolean(),
    kind: kind(name),
    ...more,
  })

const bound = Joi.number()
const questions = unique(
  byKind({
    short: question('short'),
    long: question('long', {
      leastWords: count,
      mostWords: count,
      leastSentences: count,
      mostSentences: count,
    }),
    one: question('one', { choices }),
    several: question('several', { choices, least: count, most: count }),
    yesno: question('yesno'),
    number: question('number', { least: bound, most: bound, unit: maybeLine(30), whole: Joi.boolean() }),
    scale: question('scale', {
      least: required(bound.integer()),
      most: required(bound.integer()),
      leastName: required(maybeLine(60)),
      mostName: required(maybeLine(60)),
    }),
    date: question('date'),
    url: question('url'),
    time: question('time'),
    email: question('email'),
    phone: question('phone'),
    address: question('address', { travel: Joi.boolean() }),
    items: question('items', {
      items: required(unique(object(all({ id, text: line(300), most: count.max(1_000) })), 100).min(1)),
      least: count,
      most: count,
      unit: maybeLine(30),
    }),
    file: question('file', {
      accepts: required(
        Joi.array()
          .items(Joi.string().valid('picture', 'pdf', 'sound', 'text'))
          .unique()
          .min(1),
      ),
      mostBytes: required(Joi.number().integer().min(1_024).max(LARGEST_FILE)),
    }),
    passage: question('passage'),
    section: question('section'),
  }),
)

const does = (name: string, more: Joi.SchemaMap = {}): Joi.ObjectSchema => object({ do: kind(name), ...more })
const effectShape = tagged('do', {
  close: does(
    'close',
    all({ message: text(2_000), services: Joi.array().items(id), enquiry: Joi.boolean() }),
  ),
  look: does('look', all({ note: maybeLine(500) })),
  points: does('points', all({ points: Joi.number().integer() })),
  minutes: does('minutes', { minutes: required(Joi.number().integer()), times: id, of: id }),
  item: does('item', { ...all({ name: line(), price: minor }), times: id, of: id }),
  tag: does('tag', all({ tag: line(60) })),
  deposit: does('deposit', all({ amount: minor })),
  suggest: does('suggest', all({ service: id })),
  enquiry: does('enquiry'),
})

const outcome = Joi.string().valid('fits', 'look', 'closed')
const sheet = {
  ...all({
    questions,
    rules: unique(object(all({ id, name: line(), when: condition, effect: effectShape }))),
    bands: Joi.array().items(object({ ...all({ from: Joi.number(), outcome }), name: maybeLine(80) })),
  }),
  lookAbove: minor,
  enquiryAbove: minor,
}
export const questionnaire = object({
  ...all({ id, name: line(), version: count }),
  ...sheet,
  draft: object(sheet),
  past: Joi.array()
    .items(object(all({ version: count, questions })))
    .max(200),
})

const terms = object(
  all({
    id,
    versions: Joi.array()
      .items(object(all({ number: count, title: line(), text: text(100_000) })))
      .min(1),
  }),
)

const share = Joi.number().min(0).max(100)

/** The house rules: of a practice, and as they were on the day somebody asked. */
export const houseRules = object(
  all({
    cancel: Joi.array().items(object(all({ until: isoDuration, share }))),
    cancelAfter: share,
    move: object(all({ until: isoDuration, times: Joi.number().integer().min(0) })),
    graceMinutes: minutes,
  }),
)

/** A practice as it stands in a file, in Dexie and in the door package. */
export const practice = object({
  ...all({
    id,
    profile: object({
      ...all({
        slug,
        name: line(),
        headline: maybeLine(),
        greeting: text(2_000),
        email,
        zone: zoneName,
        currency,
        weekStart: Joi.number().integer().min(1).max(7),
      }),
      phone: maybeLine(40),
      tax: object(all({ name: line(40), rate: Joi.number().integer().min(0).max(10_000) })),
    }),
    places: unique(place).min(1),
    hours,
    away: unique(
      object({
        ...all({ id, from: localDateTime, to: localDateTime }),
        repeat: repeatRule,
        note: maybeLine(),
      }),
      2_000,
    ),
    services: unique(service),
    questionnaires: unique(questionnaire),
    terms: unique(terms),
    houseRules,
    answering: object(all({ answerTime: isoDuration, wordLead: isoDuration, leastAnswerTime: isoDuration })),
    space: Joi.string().valid('larger', 'sum'),
    shortestUsable: minutes,
    limits: object({ perDay: count, perWeek: count, openRequests: required(count) }),
  }),
  codes: unique(
    object({
      ...all({
        id,
        code: line(40),
        off: byKind({
          amount: object({ kind: kind('amount'), amount: required(minor) }),
          share: object({ kind: kind('share'), percent: required(Joi.number().min(0).max(100)) }),
        }),
      }),
      from: localDate,
      to: localDate,
      uses: count,
      services: Joi.array().items(id).max(500),
      people: Joi.array().items(id).max(500),
    }),
    500,
  ),
  library: questions.max(500),
  calendars: unique(object({ ...all({ id, name: line() }), url: webAddress, owner: email }), 20),
  weekCloses: object(all({ weekday: Joi.number().integer().min(1).max(7), time: wallTime })),
})

/** A time taken in the diary, as files and door packages carry it. */
export const entry = object({
  ...all({
    id: Joi.string().max(80),
    kind: Joi.string().valid('session', 'hold', 'outside'),
    start: Joi.number().integer(),
    end: Joi.number().integer(),
    clearBefore: minutes,
    clearAfter: minutes,
  }),
  service: id,
  place: id,
  seats: count,
  taken: Joi.number().integer().min(0),
  request: Joi.string().max(80),
})

const tags = Joi.array().items(line(60)).max(100).unique()

/** People as the desk keeps them. */
export const person = object({
  ...all({
    id,
    name: line(),
    emails: Joi.array().items(email).min(1),
    invited: Joi.array().items(id),
    blocked: Joi.boolean(),
    note: text(),
  }),
  phone: maybeLine(40),
  tags,
  standing: Joi.string().valid('new', 'known'),
})
export const persons = unique(person, 50_000)

/** What the desk publishes: the practice, its own sessions, and people as hashes. */
export const doorPackage = object(
  all({
    revision: Joi.number().integer().min(0),
    practice,
    sessions: Joi.array().items(entry).max(20_000),
    people: unique(
      object({
        ...all({
          id,
          invited: Joi.array().items(id),
          blocked: Joi.boolean(),
          mailHashes: Joi.array().items(Joi.string().hex().length(64)).min(1),
          standing: Joi.string().valid('new', 'known'),
        }),
        tags,
      }),
      50_000,
    ),
    salt: Joi.string().min(8).max(100),
  }),
)
