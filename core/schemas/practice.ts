import type { DoorPackage, SealKey } from '../contract/index.ts'
import { bicShape, ibanShape } from '../ledger/account-number.ts'
import { MOST_PEOPLE } from '../move-in/arrival.ts'
import type { Entry } from '../openings/index.ts'
import { type FollowUp, type KnownPerson, LONGEST_REPLY, type Person, type Reply } from '../people/index.ts'
import { messageTexts, messaging, sequences } from '../practice/messaging-shape.ts'
import type { PathStation } from '../practice/path.ts'
import { pathShape } from '../practice/path-shape.ts'
import { linkTo, preparationShape, textBlock } from '../practice/preparing-shape.ts'
import { houseRules } from '../practice/rules-shape.ts'
import { serviceShapes } from '../practice/service-settings.ts'
import type { Practice, Service, Standing } from '../practice/types.ts'
import type { Condition, Effect, Question } from '../questions/types.ts'
import {
  bookingName,
  clearMinutes,
  count,
  currency,
  emailShape,
  epochMs,
  fingerprintShape,
  id,
  isoDuration,
  languageTag as language,
  localDateShape,
  localDateTime,
  minor,
  minutes,
  picture,
  repeatRule,
  slug,
  tokenShape,
  wallTimeShape,
  webAddress,
  zoneName,
} from '../shape/plain.ts'
import {
  byHand,
  distinct,
  exactly,
  line,
  list,
  type Maybe,
  maybe,
  number,
  object,
  one,
  pattern,
  record,
  type Schema,
  tagged,
  text,
  unique,
  week,
  whole,
  yes,
} from '../shape/shape.ts'
import type { Clause, Piece, TermsVersion, TextBlock } from '../terms/types.ts'
import { questionnaire, questions } from './questionnaire.ts'

const MANY = 5_000
const block = object({
  from: wallTimeShape,
  to: wallTimeShape,
  reservedFor: maybe(
    object({ services: maybe(list(id, 500)), places: maybe(list(id, 500)), known: maybe(yes) }),
  ),
})

const weekly = week(list(block, 24))
const hours = object({
  weekly,
  seasons: maybe(
    list(object({ from: localDateShape, to: localDateShape, weekly, note: maybe(text(200)) }), 200),
  ),
  changedDays: list(object({ date: localDateShape, blocks: list(block, 24), note: maybe(text(200)) }), MANY),
})

const travelZone = object({
  id,
  name: line(),
  surcharge: minor,
  clear: clearMinutes,
  postalCodes: list(line(20), 500),
})
const place = object({
  id,
  kind: one('studio', 'video', 'phone', 'client', 'other'),
  name: line(),
  told: one('door', 'confirmation', 'last-reminder'),
  address: maybe(text(500)),
  roomKey: maybe(tokenShape),
  whoCalls: maybe(one('practitioner', 'client')),
  zone: maybe(zoneName),
  hours: maybe(hours),
  travel: maybe(unique(travelZone, 50)),
})

const some = maybe(count)
/** Each setting says its own schema. */
const service: Schema<Service> = byHand(({ of }) => of(object(serviceShapes)))

const clause = exactly<Clause, Piece | TextBlock>()(
  object({ id, title: text(200), short: text(500), text: list(textBlock, 500) }),
)
const termsText = {
  title: line(),
  text: text(100_000),
  clauses: maybe(unique(clause, 100)),
  document: maybe(linkTo),
}
const version = exactly<TermsVersion, Clause>()(
  object({
    number: count,
    ...termsText,
    also: maybe(record(language, object(termsText), 20)),
    again: maybe(one('next', 'newcomers', 'before')),
    since: maybe(epochMs),
  }),
)
const terms = object({ id, separate: maybe(yes), versions: list(version, 10_000, 1) })

const share = number(0, 100)
const points = whole(0, 100)

const priceCode = object({
  id,
  code: line(40),
  off: tagged('kind', { amount: { amount: minor }, share: { percent: share } }),
  idle: maybe(yes),
  from: maybe(localDateShape),
  to: maybe(localDateShape),
  uses: some,
  services: maybe(list(id, 500)),
  people: maybe(list(id, 500)),
})

/** A practice as it stands in a file, in Dexie and in the door package. */
export const practice = exactly<
  Practice,
  Condition | Effect | Question | Service | Piece | TextBlock | PathStation
>()(
  object({
    id,
    profile: object({
      slug,
      name: line(),
      headline: text(200),
      greeting: text(2_000),
      pronouns: maybe(line(60)),
      about: maybe(text(2_000)),
      picture: maybe(picture),
      email: emailShape,
      phone: maybe(text(40)),
      zone: zoneName,
      currency,
      weekStart: one(1, 2, 3, 4, 5, 6, 7),
      tax: maybe(
        object({
          name: line(40),
          rate: whole(0, 10_000),
          onTop: maybe(yes),
          later: maybe(list(object({ from: localDateShape, rate: whole(0, 10_000) }), 20)),
        }),
      ),
    }),
    places: unique(place, 500, 1),
    hours,
    away: unique(
      object({
        id,
        from: localDateTime,
        to: localDateTime,
        repeat: maybe(repeatRule),
        note: maybe(text(200)),
      }),
      2_000,
    ),
    services: unique(service),
    questionnaires: unique(questionnaire),
    terms: unique(terms),
    houseRules,
    answering: object({
      answerTime: isoDuration,
      wordLead: isoDuration,
      leastAnswerTime: isoDuration,
      proofTime: maybe(isoDuration),
      payTime: maybe(isoDuration),
    }),
    space: one('larger', 'sum'),
    shortestUsable: minutes,
    limits: object({ perDay: some, perWeek: some, openRequests: count }),
    codes: maybe(unique(priceCode)),
    library: maybe(questions),
    calendars: maybe(
      unique(object({ id, name: line(), url: maybe(webAddress), owner: maybe(emailShape) }), 20),
    ),
    weekCloses: maybe(object({ weekday: one(1, 2, 3, 4, 5, 6, 7), time: wallTimeShape })),
    moneyFrom: maybe(localDateShape),
    invoicing: maybe(
      object({
        title: maybe(line(120)),
        registration: maybe(line(80)),
        address: maybe(text(500)),
        prefix: maybe(line(20)),
        first: maybe(whole(1, 1_000_000_000)),
      }),
    ),
    cards: maybe(object({ ask: maybe(one('check', 'keep')), strangers: maybe(yes) })),
    transfer: maybe(object({ name: line(70), iban: ibanShape, bic: maybe(bicShape) })),
    unagreed: maybe(one('may', 'may-not')),
    language: maybe(language),
    languages: maybe(distinct(language, 20)),
    translated: maybe(
      record(language, record(line(200), object({ text: text(20_000), of: text(20_000) }), 20_000), 20),
    ),
    words: maybe(record(language, record(line(100), text(2_000), 2_000), 20)),
    sequences: maybe(sequences),
    texts: maybe(messageTexts),
    messaging: maybe(messaging),
    paths: maybe(unique(pathShape, 100)),
    preparations: maybe(unique(preparationShape, 200)),
    door: maybe(object({ open: yes, text: text(1_000) })),
  }),
)

/** A time taken in the diary, as files and door packages carry it. */
export const entry = exactly<Entry>()(
  object({
    id: pattern(/^[^\p{Cc}]+$/u, 80),
    kind: one('session', 'hold', 'outside'),
    start: epochMs,
    end: epochMs,
    clearBefore: minutes,
    clearAfter: minutes,
    service: maybe(id),
    place: maybe(id),
    seats: maybe(count),
    taken: maybe(whole(0, 10_000)),
    calendar: maybe(id),
    request: maybe(text(80)),
  }),
)

const tags = maybe(distinct(line(60), 100))
const standing: Schema<Standing> = one('new', 'known')

const followUps = maybe(
  list(
    exactly<FollowUp>()(
      object({ id: bookingName, on: localDateShape, text: line(500), done: maybe(localDateShape) }),
    ),
    1_000,
  ),
)

const asKept = {
  id,
  name: line(),
  pronouns: maybe(line(60)),
  birthday: maybe(localDateShape),
  followUps,
  stage: maybe(line(60)),
  cameFrom: maybe(line(200)),
  stages: maybe(list(object({ at: epochMs, stage: text(60) }), 10_000)),
  movedIn: maybe(line(80)),
  emails: list(emailShape, 100, 1),
  phone: maybe(text(40)),
  invited: list(id, 500),
  blocked: yes,
  note: text(20_000),
  // Five parts (RFC 7516, 3.1).
  sealedNotes: maybe(list(pattern(/^[\w-]+(?:\.[\w-]*){4}$/, 120_000), 20)),
  approval: maybe(one('ask', 'straight')),
  exempt: maybe(yes),
  hushed: maybe(yes),
  known: maybe(yes),
  tags,
}
/** People as the desk keeps them. */
export const person = exactly<Person>()(object(asKept))
/** Who is moved in at once. */
export const peopleMovedIn = unique(person, MOST_PEOPLE)
/** A mail that came back, beside whoever has its address. */
export const reply = exactly<Reply>()(
  object({
    id,
    mail: emailShape,
    at: epochMs,
    subject: text(300),
    text: text(LONGEST_REPLY),
    attached: maybe(list(text(200), 50)),
  }),
)
/** In a file, a person's standing can be given. */
export const personInFile = exactly<Person & { standing?: Standing }>()(
  object({ ...asKept, standing: maybe(standing) }),
)

const curve = pattern(/^[\w-]{43}$/, 43)
const half = { kty: one('EC'), crv: one('P-256'), x: curve, y: curve }
/** Both halves, as a backup carries them. */
export const sealKeysShape: Maybe<SealKey & { d: string }> = maybe(
  exactly<SealKey & { d: string }>()(object({ ...half, d: curve })),
)

const known = exactly<KnownPerson>()(
  object({
    id,
    mailHashes: list(fingerprintShape, 100, 1),
    standing,
    invited: list(id, 500),
    blocked: yes,
    asks: maybe(yes),
    straight: maybe(list(id, 500)),
    exempt: maybe(yes),
    hushed: maybe(yes),
    agreed: maybe(record(id, count, 500)),
    counted: maybe(list(object({ booking: text(80), at: epochMs, points }), 1_000)),
    tags,
  }),
)

/** What the desk publishes: the practice, its own sessions, and people as hashes. */
export const doorPackage = exactly<DoorPackage, Condition>()(
  object({
    revision: whole(0, 1_000_000_000),
    practice,
    sessions: list(entry, 20_000),
    people: unique(known, 50_000),
    salt: pattern(/^.{8,100}$/, 100),
    /** With it private answers are sealed (JWK, RFC 7517, P-256). */
    seal: maybe(exactly<SealKey>()(object(half))),
  }),
)
