import Joi from 'joi'
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
import { questionnaire, questions } from './questionnaire.ts'
import { all, byKind, kind, object, required, unique } from './shapes.ts'

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

/** The public half of a desk's key (JWK, RFC 7517, P-256): with it private answers are sealed. */
const sealKey = object(
  all({
    kty: kind('EC'),
    crv: kind('P-256'),
    x: Joi.string().pattern(/^[\w-]{43}$/),
    y: Joi.string().pattern(/^[\w-]{43}$/),
  }),
)
/** Both halves, as a backup carries them. */
export const sealKeys = sealKey.append({ d: required(Joi.string().pattern(/^[\w-]{43}$/)) })

/** What the desk publishes: the practice, its own sessions, and people as hashes. */
export const doorPackage = object({
  ...all({
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
  seal: sealKey,
})
