import { COMMANDS, type Contact, type DeskDoes, type StoredEvent, UNWANTED, WAYS } from '../booking/index.ts'
import { othersShape, phoneShape } from '../booking/others-shape.ts'
import { MOST_SESSIONS } from '../move-in/session-rows.ts'
import { personName as name } from '../people/name-shape.ts'
import { MOST_PLANNED, RHYTHMS } from '../planning/rhythm.ts'
import { MOST_OF_A_PATH } from '../practice/path.ts'
import { askAtOnce } from '../practice/waitlist.ts'
import type { Answers, Condition } from '../questions/index.ts'
import { givenBack } from '../schemas/given-back.ts'
import { doorPackage } from '../schemas/practice.ts'
import { answers, attached } from '../schemas/record.ts'
import {
  bookingName,
  epochMs,
  fingerprintShape,
  id,
  languageTag,
  localDateShape,
  minor,
  someMinutes,
  tokenShape,
  typedEmail,
  wallTimeShape,
  zoneName,
} from '../shape/plain.ts'
import {
  byHand,
  distinct,
  exactly,
  line,
  list,
  maybe,
  object,
  one,
  pattern,
  type Schema,
  said,
  tagged,
  text,
  whole,
  yes,
} from '../shape/shape.ts'
import type { FreedEvent, LineEvent } from '../waiting/index.ts'
import { lineWishes as wishes } from '../waiting/shape.ts'
import type { BringInBody, BringOutBody } from './bring-types.ts'
import type { BookPathBody, DeskCourse, PayPathBody, PlanPathBody, StationBody } from './course-types.ts'
import { LONGEST_HALF } from './course-types.ts'
import type { AnswerBody, AwayBody, DeskCommand, EnterBody, GiveBackBody, QuoteBody } from './desk-types.ts'
import type { Bodies } from './endpoints.ts'
import type { DeskFreed, DeskLine, JoinBody, LineDoes, TakeBody } from './line-types.ts'
import type { EndSeriesBody, MoveSeriesBody, SeriesBody } from './series-types.ts'
import type { EnquireBody, SendBody, Wanted, WantedOpenings, WantedPart, WantedStart } from './types.ts'

const contact = exactly<Contact>()(
  object({
    name,
    email: typedEmail,
    phone: maybe(phoneShape),
    zone: zoneName,
    language: maybe(languageTag),
    others: maybe(othersShape),
  }),
)

const booking = bookingName
/** Names what is brought in together: its moment, and the file it came from. */
const batch = pattern(/^[^\p{Cc}]{1,200}$/u, 200)
const words = text(5_000)
const extras = maybe(distinct(id, 20))
const travel = maybe(id)
const code = maybe(text(60))
const address = maybe(text(500))
const start = { start: epochMs, place: id }
const shown = fingerprintShape

const agreed = list(
  object({
    terms: id,
    number: whole(1, 100_000),
    fingerprint: fingerprintShape,
    language: maybe(languageTag),
  }),
  50,
)

const wanted = {
  visit: tokenShape,
  service: id,
  answers,
  extras,
  travel,
  with: maybe(tokenShape),
  code,
  quote: maybe(tokenShape),
}
const wish = exactly<Wanted, Answers>()(object(wanted))
const visit = object({ visit: tokenShape })

/** What the practitioner can do, as each command says its own shape. */
const deskDoes: Schema<DeskDoes> = byHand(({ of }) =>
  of(
    tagged(
      'do',
      Object.fromEntries(
        Object.entries(COMMANDS).flatMap(([name, { shape }]) => (shape ? [[name, shape]] : [])),
      ),
    ),
  ),
)

/** What can be said away from the desk. */
const AWAY_BY_WORD = ['welcome', 'decline', 'offer', 'ask', 'take-back'] as const
const AWAY_ON_PHONE = [...AWAY_BY_WORD, 'attend', 'miss', 'run-late', 'cancel'] as const
const some = (names: readonly DeskDoes['do'][]): Schema<DeskDoes> =>
  byHand(({ of }) =>
    of(tagged('do', Object.fromEntries(names.map((name) => [name, COMMANDS[name].shape ?? {}])))),
  )

/** A word to which the moments of up to so many sessions are added: together they are a word still. */
const wordWithDates = text(3_000)

/** Five parts, of which the encrypted key is empty: sealed with a key that both know (RFC 7516, RFC 7518 §4.5). */
const HALF = /^[\w-]+\.\.[\w-]+\.[\w-]*\.[\w-]+$/

/** What the practitioner books somebody in with, but when. */
const byPractitioner = {
  service: id,
  place: id,
  minutes: someMinutes,
  person: contact,
  extras,
  travel,
  code,
  address,
  text: maybe(words),
  silent: maybe(yes),
  shown: maybe(shown),
}

/** A schema for every body that an endpoint takes; the compiler keeps the map complete, and each held to its type. */
export const schemas: { [N in keyof Bodies]: Schema<Bodies[N]> } = {
  read: wish,
  part: exactly<WantedPart, Answers>()(object({ ...wanted, upTo: id })),
  soFar: wish,
  openings: exactly<WantedOpenings, Answers>()(
    object({ ...wanted, place: id, from: maybe(localDateShape), days: whole(1, 62) }),
  ),
  keep: exactly<WantedStart, Answers>()(object({ ...wanted, ...start })),
  renew: visit,
  unkeep: visit,
  send: exactly<SendBody, Answers>()(
    object({
      ...wanted,
      ...start,
      clock: epochMs,
      shown,
      address,
      person: contact,
      agreed,
    }),
  ),
  join: exactly<JoinBody, Answers>()(
    object({ ...wanted, ...wishes, place: id, clock: epochMs, address, person: contact, agreed }),
  ),
  inLine: exactly<LineDoes>()(
    tagged('do', {
      ...{ prove: {}, pause: {}, resume: {}, leave: {}, still: {} },
      change: wishes,
      turn: { freed: tokenShape },
    }),
  ),
  take: exactly<TakeBody>()(object({ freed: tokenShape, shown, agreed })),
  waiting: exactly<DeskLine, Answers>()(
    object({
      line: booking,
      command: tagged('do', {
        join: {
          ...wishes,
          service: id,
          place: id,
          person: contact,
          answers: maybe(answers),
          extras,
          travel,
          address,
          instead: maybe(booking),
          silent: maybe(yes),
        },
        change: wishes,
        ...{ pause: {}, resume: {}, look: {}, back: {} },
        out: { text: text(2_000) },
      }),
    }),
  ),
  freed: exactly<DeskFreed>()(
    object({
      freed: booking,
      command: tagged('do', {
        go: { ask: askAtOnce },
        stop: {},
        skip: { line: booking, back: maybe(yes) },
        offer: { line: booking, start: epochMs },
        book: { line: booking, start: epochMs, booking, silent: maybe(yes) },
      }),
    }),
  ),
  enquire: exactly<EnquireBody, Answers>()(
    object({
      visit: tokenShape,
      service: maybe(id),
      name,
      email: typedEmail,
      message: said(10_000),
      answers: maybe(answers),
      language: maybe(languageTag),
    }),
  ),
  prove: object({}),
  withdraw: object({}),
  come: object({}),
  prepare: object({ done: yes }),
  speak: object({ language: languageTag }),
  opens: object({}),
  doStation: exactly<StationBody, Answers>()(
    object({
      course: booking,
      station: id,
      does: tagged('do', {
        done: {},
        undone: {},
        sign: { name, agreed },
        answer: { answers, answered: whole(0, 1_000), of: whole(0, 1_000) },
        bring: { files: list(attached, 20, 1) },
      }),
    }),
  ),
  planPath: exactly<PlanPathBody>()(
    object({
      course: booking,
      place: id,
      rhythm: one(...RHYTHMS),
      first: localDateShape,
      time: wallTimeShape,
      windows: maybe(wishes.windows),
    }),
  ),
  bookPath: exactly<BookPathBody>()(
    object({
      course: booking,
      place: id,
      sessions: list(object({ session: id, start: epochMs }), MOST_PLANNED, 1),
    }),
  ),
  half: object({
    course: booking,
    station: id,
    n: whole(0, 1_000_000),
    sealed: pattern(HALF, LONGEST_HALF),
    answered: whole(0, 1_000),
    of: whole(0, 1_000),
  }),
  forget: object({
    people: list(object({ hashes: list(fingerprintShape, 100, 1), before: epochMs }), 5_000, 1),
  }),
  course: exactly<DeskCourse>()(
    object({
      course: booking,
      command: tagged('do', {
        give: {
          person: contact,
          preparations: distinct(id, 50),
          path: maybe(id),
          booking: maybe(booking),
          text: maybe(words),
          silent: maybe(yes),
        },
        chase: { text: words },
        done: { station: id },
        undone: { station: id },
        end: { back: maybe(whole(1, 1_000_000_000)) },
        pay: {
          amount: whole(-1_000_000_000, 1_000_000_000),
          way: one(...WAYS),
          text: maybe(text(2_000)),
          source: maybe(text(200)),
        },
        pause: { text: text(2_000) },
        resume: {},
        invoice: { parts: list(id, 1_000, 1) },
        'correct-invoice': { number: text(60), text: said(2_000) },
        extend: { like: id, many: whole(1, MOST_OF_A_PATH), price: whole(0, 1_000_000_000) },
        'take-back': { of: whole(1, 1_000_000) },
      }),
    }),
  ),
  unwant: object({ what: one(...UNWANTED), on: yes }),
  accept: object({ ...start, shown }),
  refuse: object({ text: text(2_000) }),
  cancel: object({ text: text(2_000), shown }),
  pay: object({ what: one('pay', 'card'), amount: whole(0, 100_000_000_000) }),
  cameBack: object({}),
  payPath: exactly<PayPathBody>()(object({ course: booking, amount: whole(1, 100_000_000_000) })),
  yoursCameBack: object({}),
  reply: object({ text: said(5_000) }),
  agree: object({ name, agreed }),
  plead: object({ text: said(2_000) }),
  moves: object({ from: maybe(localDateShape), days: whole(1, 62), place: maybe(id), start: maybe(epochMs) }),
  move: object({ ...start, shown }),
  decideWord: exactly<AwayBody, DeskDoes>()(object({ command: some(AWAY_BY_WORD), seen: shown })),
  wordTimes: object({ from: maybe(localDateShape), days: whole(1, 62), place: maybe(id) }),
  decideDay: exactly<AwayBody & { booking: string }, DeskDoes>()(
    object({ booking, command: some(AWAY_ON_PHONE), seen: shown }),
  ),
  phone: object({}),
  end: object({ what: one('phone', 'words') }),
  pair: object({ code: line(40), practice: id, replace: yes, empty: maybe(one('others', 'all')) }),
  publish: exactly<Bodies['publish'], Condition>()(doorPackage),
  command: exactly<DeskCommand, DeskDoes>()(
    object({ booking, command: deskDoes, seen: maybe(fingerprintShape) }),
  ),
  enter: exactly<EnterBody, Answers>()(
    object({ ...byPractitioner, id: booking, start: epochMs, clash: yes, answers: maybe(answers) }),
  ),
  series: exactly<SeriesBody>()(
    object({
      ...byPractitioner,
      text: maybe(wordWithDates),
      sessions: list(object({ id: booking, start: epochMs, session: maybe(id) }), MOST_PLANNED, 1),
      course: maybe(booking),
    }),
  ),
  bringIn: exactly<BringInBody>()(
    object({
      batch,
      sessions: list(
        object({
          ...{ id: booking, service: id, place: id, start: epochMs, minutes: someMinutes, person: contact },
          ...{ price: maybe(minor), paid: maybe(minor), tell: maybe(yes) },
        }),
        MOST_SESSIONS,
      ),
      standing: list(
        object({
          ...{ id: booking, person: contact, name: line() },
          left: maybe(object({ service: id, many: whole(1, 60) })),
          owes: maybe(object({ amount: minor, due: epochMs })),
        }),
        MOST_SESSIONS,
      ),
    }),
  ),
  bringOut: exactly<BringOutBody>()(
    object({ batch, bookings: list(booking, MOST_SESSIONS), courses: list(booking, MOST_SESSIONS) }),
  ),
  endSeries: exactly<EndSeriesBody>()(
    object({
      bookings: list(object({ booking, seen: shown }), MOST_PLANNED, 1),
      text: maybe(wordWithDates),
      silent: maybe(yes),
    }),
  ),
  moveSeries: exactly<MoveSeriesBody>()(
    object({
      bookings: list(object({ booking, seen: shown, start: epochMs }), MOST_PLANNED, 1),
      text: maybe(wordWithDates),
      silent: maybe(yes),
    }),
  ),
  giveBack: exactly<GiveBackBody, Answers | StoredEvent | LineEvent | FreedEvent>()(givenBack),
  answer: exactly<AnswerBody>()(object({ enquiry: booking, text: said(5_000) })),
  quote: exactly<QuoteBody, Answers>()(
    object({
      enquiry: booking,
      service: id,
      person: contact,
      answers: maybe(answers),
      extras,
      travel,
      code,
      until: epochMs,
      text: words,
      by: maybe(one('text')),
      shown: maybe(shown),
    }),
  ),
  feed: object({}),
  code: object({}),
  trial: object({ as: one('new', 'known'), at: maybe(epochMs) }),
  release: object({ back: yes }),
}

/** What stands in addresses: texts, as they come. */
const digits = pattern(/^\d{1,15}$/, 15)
export const queries = {
  /** Another booking of the same person, through the link of one. */
  link: object({ booking: maybe(pattern(/^[A-Za-z0-9_-]{3,80}$/, 80)) }),
  view: object({ with: maybe(tokenShape) }),
  record: object({ after: maybe(digits) }),
  courseFile: object({
    course: booking,
    station: id,
    question: maybe(id),
    name: pattern(/^[^\p{Cc}]{1,200}$/u, 200),
  }),
  file: object({
    visit: tokenShape,
    service: id,
    question: id,
    name: pattern(/^[^\p{Cc}]{1,200}$/u, 200),
    with: maybe(tokenShape),
  }),
}

/** How far the stand-in's clock is moved forward, in ms. */
export const forward = object({ forward: whole(0, 90 * 86_400_000) })
