import type { Unwanted } from '../booking/index.ts'
import type { Instant, Language } from '../time/index.ts'
import type { BringInBody, BringOutBody, BroughtIn } from './bring-types.ts'
import type {
  BookPathBody,
  DeskCourse,
  HalfBody,
  PathPlan,
  PlanPathBody,
  StationBody,
  YoursView,
} from './course-types.ts'
import type { DeskFreed, DeskLine, JoinBody, LineDoes, LineView, TakeBody } from './line-types.ts'
import type { EndSeriesBody, MoveSeriesBody, SeriesBody } from './series-types.ts'
import type {
  AgreedVersion,
  AnswerBody,
  AwayBody,
  CalendarState,
  DayView,
  DeskCommand,
  DoorOpenings,
  DoorPackage,
  DoorQuote,
  DoorReading,
  DoorView,
  EnquireBody,
  EnterBody,
  ForgetBody,
  GiveBackBody,
  Holdings,
  Kept,
  LinkView,
  PairBody,
  PartReading,
  QuoteBody,
  RecordPage,
  RelayStatus,
  SendBody,
  TrialBody,
  Wanted,
  WantedMoves,
  WantedOpenings,
  WantedPart,
  WantedStart,
  WordView,
} from './types.ts'

/** The number of this contract: an older page is told to load itself anew. */
export const CONTRACT = 4

const KB = 1_024

/** Who may call: whoever comes, who holds a private link, the paired desk; the practitioner by a word link, or by their paired phone. */
export type Caller = 'anybody' | 'link' | 'desk' | 'word' | 'day'

/** One thing that can be asked of the relay. `B` is its body, `A` its answer. */
export interface Endpoint<B, A> {
  method: 'GET' | 'POST' | 'PUT'
  /** As Express writes it. */
  path: string
  who: Caller
  /** The largest body, in bytes; no body where it is 0. */
  largest: number
  /** The status of a good answer. */
  status: 200 | 201
  /** Carries an Idempotency-Key, and happens once. */
  once: boolean
  /** At most so many a minute from one address, where that is fewer than the relay's own limit. */
  rate?: number
  /** What it may be refused with, besides what anything may be. */
  codes: readonly string[]
  /** In words, for the documents. */
  says: string
  /** Never there: what goes in and out, for the compiler. */
  readonly goes?: { in: B; out: A }
}

/*@__NO_SIDE_EFFECTS__*/
const endpoint = <B, A>(
  of: Pick<Endpoint<B, A>, 'method' | 'path' | 'says'> & Partial<Endpoint<B, A>>,
): Endpoint<B, A> => ({ who: 'anybody', largest: 0, status: 200, once: false, codes: [], ...of })

/** What anything may be refused with. */
export const ANYTIME = ['malformed', 'too-large', 'too-many', 'older-page', 'failed'] as const

const DOOR = ['no-door', 'unknown-door', 'closed-door', 'trial-over'] as const
const WISH = [
  ...DOOR,
  ...(['unknown-service', 'service-off', 'answers', 'code', 'quote-used', 'quote-over'] as const),
] as const
const PLACED = [...WISH, 'unknown-place', 'travel', 'closed', 'enquiry-instead'] as const
const LINK = ['unknown-link', 'no-key', 'key-reused'] as const
const MINE = [...LINK, 'asks-decides'] as const
const ANSWERS = 128 * KB
const DECIDING = [
  'changed',
  'not-proved',
  'not-waiting',
  'not-booked',
  'not-open',
  'too-many-offers',
  'nothing-to-take-back',
] as const

/** The client's side: everything a client's browser may ask. */
export const door = {
  view: endpoint<undefined, DoorView>({
    method: 'GET',
    path: '/api/door/:slug',
    codes: DOOR,
    says: 'What is behind the door. With the key of a service’s own link (`?with=`) that service, too; with the private link of somebody who has it booked also one that is off the door.',
  }),
  read: endpoint<Wanted, DoorReading>({
    method: 'POST',
    path: '/api/door/:slug/read',
    largest: ANSWERS,
    codes: [...WISH, 'too-many-tries'],
    says: 'What the rules make of the answers; the attempt is remembered, without private answers.',
  }),
  part: endpoint<WantedPart, PartReading>({
    method: 'POST',
    path: '/api/door/:slug/part',
    largest: ANSWERS,
    codes: [...WISH, 'too-many-tries'],
    says: 'What is decided by the questions up to one, whatever is answered later: a no, with the attempt remembered, and texts to be read.',
  }),
  soFar: endpoint<Wanted, DoorQuote>({
    method: 'POST',
    path: '/api/door/:slug/so-far',
    largest: ANSWERS,
    codes: DOOR,
    says: 'Length and price so far; answers may be missing, and nothing is remembered.',
  }),
  openings: endpoint<WantedOpenings, DoorOpenings>({
    method: 'POST',
    path: '/api/door/:slug/openings',
    largest: ANSWERS,
    codes: PLACED,
    says: 'The open starts of some days; `lower` are those that cost less.',
  }),
  keep: endpoint<WantedStart, Kept>({
    method: 'POST',
    path: '/api/door/:slug/keep',
    largest: ANSWERS,
    codes: [...PLACED, 'not-open', 'not-online', 'too-many-held'],
    says: 'Keeps a start for ten minutes, and tells what it comes to there.',
  }),
  renew: endpoint<{ visit: string }, Pick<Kept, 'until' | 'renewable'>>({
    method: 'POST',
    path: '/api/door/:slug/renew',
    largest: KB,
    codes: [...DOOR, 'not-kept', 'renewed-already'],
    says: 'Keeps it ten minutes longer, once.',
  }),
  unkeep: endpoint<{ visit: string }, Record<string, never>>({
    method: 'POST',
    path: '/api/door/:slug/unkeep',
    largest: KB,
    codes: DOOR,
    says: 'Lets it go.',
  }),
  send: endpoint<SendBody, { link: string }>({
    method: 'POST',
    path: '/api/door/:slug/send',
    largest: 2 * ANSWERS,
    status: 201,
    once: true,
    codes: [
      ...PLACED,
      ...([
        'no-key',
        'key-reused',
        'not-open',
        'not-online',
        'clock-differs',
        'no-address',
        'no-phone',
      ] as const),
      ...(['not-agreed', 'terms-changed', 'changed', 'too-many-open'] as const),
      ...(['too-many-held', 'too-many-unproved', 'mailed-already'] as const),
    ],
    says: 'Asks for it. `shown` is the fingerprint of what was kept; where that no longer holds, `changed` tells what does.',
  }),
  enquire: endpoint<EnquireBody, { received: true }>({
    method: 'POST',
    path: '/api/door/:slug/enquire',
    largest: ANSWERS,
    status: 201,
    once: true,
    codes: [...DOOR, 'no-key', 'key-reused', 'unknown-service', 'too-many-written'],
    says: 'A message instead.',
  }),
  join: endpoint<JoinBody, { link: string }>({
    method: 'POST',
    path: '/api/door/:slug/line',
    largest: 2 * ANSWERS,
    status: 201,
    once: true,
    codes: [
      ...PLACED,
      ...(['no-key', 'key-reused', 'not-online', 'clock-differs', 'no-address', 'no-phone'] as const),
      ...(['not-agreed', 'terms-changed', 'no-line', 'window', 'too-many-unproved', 'full-line'] as const),
      ...(['too-many-written', 'mailed-already'] as const),
    ],
    says: 'Gets in line. It counts once the mailed link has been pressed.',
  }),
  line: endpoint<undefined, LineView>({
    method: 'GET',
    path: '/api/line/:secret',
    who: 'link',
    codes: ['unknown-link'],
    says: 'Where things stand with a place in line, and the freed time that is held out, if one is.',
  }),
  inLine: endpoint<LineDoes, LineView>({
    method: 'POST',
    path: '/api/line/:secret',
    who: 'link',
    largest: 16 * KB,
    once: true,
    codes: [...LINK, 'line-over', 'window', 'freed-gone'],
    says: 'Proves the address, changes windows, pauses, goes on, leaves, or turns a freed time down.',
  }),
  take: endpoint<TakeBody, { link: string }>({
    method: 'POST',
    path: '/api/line/:secret/take',
    who: 'link',
    largest: 16 * KB,
    once: true,
    codes: [
      ...LINK,
      ...(['line-over', 'freed-gone', 'freed-taken', 'freed-over', 'changed', 'not-agreed'] as const),
      ...(['terms-changed', 'answers', 'closed', 'enquiry-instead', 'not-online', 'service-off'] as const),
    ],
    says: 'Takes the freed time as it was shown; of several the first has it.',
  }),
  my: endpoint<undefined, LinkView>({
    method: 'GET',
    path: '/api/link/:secret',
    who: 'link',
    codes: ['unknown-link'],
    says: 'Where things stand.',
  }),
  prove: endpoint<Record<string, never>, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/prove',
    who: 'link',
    largest: KB,
    once: true,
    codes: [...LINK, 'too-many-open'],
    says: 'The mail has arrived: said by the page, once somebody looks at it.',
  }),
  accept: endpoint<{ start: Instant; place: string; shown: string }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/accept',
    who: 'link',
    largest: KB,
    once: true,
    codes: [...MINE, 'changed', 'not-offered', 'not-waiting'],
    says: 'Takes one of the times offered.',
  }),
  refuse: endpoint<{ text: string }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/refuse',
    who: 'link',
    largest: 16 * KB,
    once: true,
    codes: [...MINE, 'not-offered', 'not-waiting'],
    says: 'Takes none of them.',
  }),
  withdraw: endpoint<Record<string, never>, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/withdraw',
    who: 'link',
    largest: KB,
    once: true,
    codes: [...MINE, 'not-waiting'],
    says: 'Takes the request back.',
  }),
  moves: endpoint<WantedMoves, DoorOpenings>({
    method: 'POST',
    path: '/api/link/:secret/openings',
    who: 'link',
    largest: KB,
    codes: ['unknown-link'],
    says: 'The open starts to which this booking could be moved, by the rules that bind its client.',
  }),
  move: endpoint<{ start: Instant; place: string; shown: string }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/move',
    who: 'link',
    largest: KB,
    once: true,
    codes: [...MINE, 'changed', 'not-booked', 'not-open', 'too-late'],
    says: 'Moves it, as often and as late as the rules of the day one asked allow. Cancelling costs no less afterwards.',
  }),
  reply: endpoint<{ text: string }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/reply',
    who: 'link',
    largest: 32 * KB,
    once: true,
    codes: [...MINE, 'not-asked', 'not-waiting'],
    says: 'Answers what the practitioner has asked back.',
  }),
  agree: endpoint<{ name: string; agreed: AgreedVersion[] }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/agree',
    who: 'link',
    largest: 16 * KB,
    once: true,
    codes: [...MINE, 'not-asked', 'not-agreed', 'terms-changed', 'not-booked'],
    says: 'Agrees to everything that is still to be agreed to before the session.',
  }),
  plead: endpoint<{ text: string }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/plead',
    who: 'link',
    largest: 16 * KB,
    once: true,
    codes: [...MINE, 'not-asked', 'not-booked', 'too-late'],
    says: 'Asks for an exception from the rules; once.',
  }),
  come: endpoint<Record<string, never>, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/come',
    who: 'link',
    largest: KB,
    once: true,
    codes: [...MINE, 'not-booked', 'too-late'],
    says: 'Says that one will be there: what only asks for that is sent no more.',
  }),
  prepare: endpoint<{ done: boolean }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/prepare',
    who: 'link',
    largest: KB,
    once: true,
    codes: [...MINE, 'not-booked', 'nothing-before'],
    says: 'Ticks what is to be read or done before as done, or takes that back.',
  }),
  yours: endpoint<undefined, YoursView>({
    method: 'GET',
    path: '/api/yours/:secret',
    who: 'link',
    codes: ['unknown-link'],
    says: 'Everything that is theirs, by a private link of theirs: what there is to do, sessions, what was agreed to, what they can book.',
  }),
  opens: endpoint<Record<string, never>, YoursView>({
    method: 'POST',
    path: '/api/yours/:secret/open',
    who: 'link',
    largest: KB,
    once: true,
    codes: MINE,
    says: 'Somebody looks at it: said by the page, so that no scanner of mail says it.',
  }),
  doStation: endpoint<StationBody, YoursView>({
    method: 'POST',
    path: '/api/yours/:secret',
    who: 'link',
    largest: 4 * ANSWERS,
    once: true,
    codes: [
      ...MINE,
      ...(['unknown-course', 'course-over', 'not-so', 'not-sealed', 'unknown-file'] as const),
      ...(['not-agreed', 'terms-changed'] as const),
    ],
    says: 'One thing to do is done: read, ticked, signed, answered, brought; or not after all. Answers come sealed for the desk.',
  }),
  planPath: endpoint<PlanPathBody, PathPlan>({
    method: 'POST',
    path: '/api/yours/:secret/plan',
    who: 'link',
    largest: 16 * KB,
    codes: ['unknown-link', 'unknown-course', 'course-over', 'path-rests', 'unknown-place', 'window'],
    says: 'What is left of a path, planned after a rhythm by the rules that bind its client; nothing is booked.',
  }),
  bookPath: endpoint<BookPathBody, YoursView>({
    method: 'POST',
    path: '/api/yours/:secret/book',
    who: 'link',
    largest: 16 * KB,
    once: true,
    codes: [
      ...MINE,
      ...([
        'unknown-course',
        'course-over',
        'path-rests',
        'unknown-place',
        'series-taken',
        'not-left',
        'path-order',
      ] as const),
    ],
    says: 'Books sessions of a path, whole or not at all; what is taken is named.',
  }),
  half: endpoint<HalfBody, { n: number }>({
    method: 'POST',
    path: '/api/yours/:secret/half',
    who: 'link',
    largest: 3 * ANSWERS,
    once: true,
    codes: [...MINE, 'unknown-course', 'course-over', 'half-elsewhere'],
    says: 'Keeps answers that are not sent yet, sealed with a key that stands in the fragment of the link; refused where others were kept since they were seen.',
  }),
  unwant: endpoint<{ what: Unwanted; on: boolean }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/unwant',
    who: 'link',
    largest: KB,
    once: true,
    codes: MINE,
    says: 'Wants no more of what follows a session, or no texts; or wants them again. What the contract needs is sent all the same.',
  }),
  speak: endpoint<{ language: Language }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/speak',
    who: 'link',
    largest: KB,
    once: true,
    codes: MINE,
    says: 'Reads in another language from now on; what is sent is in it, too.',
  }),
  pay: endpoint<{ what: 'pay' | 'card'; amount: number }, { to: string }>({
    method: 'POST',
    path: '/api/link/:secret/pay',
    who: 'link',
    largest: KB,
    rate: 20,
    codes: ['unknown-link', 'changed', 'nothing-to-pay', 'paying-already', 'no-till', 'till-away'],
    says: 'Asks the till for a payment, or for a card; the same again leads to the same page, and is paid once.',
  }),
  cameBack: endpoint<Record<string, never>, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/came-back',
    who: 'link',
    largest: KB,
    rate: 20,
    codes: ['unknown-link', 'till-away'],
    says: 'Asks the till about what is under way: coming back from its page proves nothing.',
  }),
  cancel: endpoint<{ text: string; shown: string }, LinkView>({
    method: 'POST',
    path: '/api/link/:secret/cancel',
    who: 'link',
    largest: 16 * KB,
    once: true,
    codes: [...MINE, 'changed', 'not-booked', 'too-late'],
    says: 'Cancels, at the cost that was shown.',
  }),
}

/** The practitioner's side, away from the desk: by the link in a mail for one request, or by a phone paired for the day. */
export const away = {
  word: endpoint<undefined, WordView>({
    method: 'GET',
    path: '/api/word/:secret',
    who: 'word',
    codes: ['unknown-word'],
    says: 'One request, as far as it may be read away from the desk. Looking never decides.',
  }),
  decideWord: endpoint<AwayBody, WordView>({
    method: 'POST',
    path: '/api/word/:secret',
    who: 'word',
    largest: 16 * KB,
    once: true,
    codes: ['unknown-word', 'no-key', 'key-reused', ...DECIDING, 'word-used'],
    says: 'Welcomes, offers other times, asks back, turns down, or takes that back; once the decision has settled, nothing more.',
  }),
  wordTimes: endpoint<WantedMoves, DoorOpenings>({
    method: 'POST',
    path: '/api/word/:secret/openings',
    who: 'word',
    largest: KB,
    codes: ['unknown-word'],
    says: 'Other times that could be offered for it.',
  }),
  day: endpoint<undefined, DayView>({
    method: 'GET',
    path: '/api/day',
    who: 'day',
    codes: ['no-phone-key'],
    says: 'Today and tomorrow, and what awaits a word.',
  }),
  decideDay: endpoint<AwayBody & { booking: string }, DayView>({
    method: 'POST',
    path: '/api/day',
    who: 'day',
    largest: 16 * KB,
    once: true,
    codes: ['no-phone-key', 'no-key', 'key-reused', 'unknown-booking', ...DECIDING, 'too-early', 'too-late'],
    says: 'A decision on the phone: what a word link can do, and attended, missed, running late, cancelled.',
  }),
}

/** The practitioner's side. */
export const desk = {
  pair: endpoint<PairBody, { key: string }>({
    method: 'POST',
    path: '/api/pair',
    largest: KB,
    rate: 20,
    codes: ['wrong-code', 'paired-already', 'another-practice'],
    says: 'Gives the desk that knows the code its key; `paired-already` before another desk is cut off, `another-practice` before what the relay still holds of another practice is emptied.',
  }),
  status: endpoint<undefined, RelayStatus>({
    method: 'GET',
    path: '/api/status',
    says: 'How the relay is.',
  }),
  publish: endpoint<DoorPackage, { revision: number }>({
    method: 'PUT',
    path: '/api/package',
    who: 'desk',
    largest: 8 * KB * KB,
    once: true,
    codes: ['no-key', 'key-reused', 'older-package', 'another-practice', 'practice', 'no-seal'],
    says: 'What the door shows and the relay decides by.',
  }),
  record: endpoint<undefined, RecordPage>({
    method: 'GET',
    path: '/api/record',
    who: 'desk',
    says: 'What has happened since `?after=`: up to 500 items, 2 MB at most, `first` (below it something has been forgotten), `last`, and the running hash of the record at the cursor and at the end (`before`, `print`).',
  }),
  holdings: endpoint<undefined, Holdings>({
    method: 'GET',
    path: '/api/holdings',
    who: 'desk',
    says: 'Of what there are records here, and how many lines each has: to see what an older copy of the file lacks.',
  }),
  giveBack: endpoint<GiveBackBody, { took: number; differ: string[] }>({
    method: 'POST',
    path: '/api/give-back',
    who: 'desk',
    largest: KB * KB,
    once: true,
    codes: ['no-key', 'key-reused'],
    says: 'Takes back what an older copy of the file lacks; what went on in another way since is named, and stays. Nothing of it is sent again.',
  }),
  command: endpoint<DeskCommand, { seq: number }>({
    method: 'POST',
    path: '/api/command',
    who: 'desk',
    largest: 64 * KB,
    once: true,
    codes: [
      ...(['no-key', 'key-reused', 'unknown-booking', 'changed', 'not-proved', 'not-waiting'] as const),
      ...([
        'too-late',
        'too-early',
        'not-booked',
        'not-open',
        'not-counted',
        'not-asked',
        'not-paid',
        'no-card',
        'paying-already',
        'more-than-owed',
        'too-many-offers',
        'nothing-to-take-back',
      ] as const),
    ],
    says: 'A decision. `seen` is the fingerprint of what it was made on.',
  }),
  enter: endpoint<EnterBody, { seq: number }>({
    method: 'POST',
    path: '/api/enter',
    who: 'desk',
    largest: 2 * ANSWERS,
    status: 201,
    once: true,
    codes: ['no-key', 'key-reused', 'unknown-service', 'id-taken', 'not-open', 'code', 'changed'],
    says: 'Somebody booked in by hand, with the answers they gave on the phone if they were asked.',
  }),
  series: endpoint<SeriesBody, { seq: number }>({
    method: 'POST',
    path: '/api/series',
    who: 'desk',
    largest: 64 * KB,
    status: 201,
    once: true,
    codes: [
      ...([
        'no-key',
        'key-reused',
        'unknown-service',
        'id-taken',
        'series-taken',
        'code',
        'changed',
      ] as const),
      ...(['unknown-course', 'course-over', 'path-rests', 'not-left'] as const),
    ],
    says: 'Somebody booked in by hand for several sessions, whole or not at all; one message tells of all of them.',
  }),
  endSeries: endpoint<EndSeriesBody, { seq: number }>({
    method: 'POST',
    path: '/api/series/end',
    who: 'desk',
    largest: 64 * KB,
    once: true,
    codes: ['no-key', 'key-reused', 'unknown-booking', 'changed', 'not-booked', 'too-late'],
    says: 'Several sessions cancelled by the practitioner, whole or not at all; the first message tells of all of them.',
  }),
  moveSeries: endpoint<MoveSeriesBody, { seq: number }>({
    method: 'POST',
    path: '/api/series/move',
    who: 'desk',
    largest: 64 * KB,
    once: true,
    codes: ['no-key', 'key-reused', 'unknown-booking', 'changed', 'not-booked', 'series-taken'],
    says: 'Several sessions moved by the practitioner, whole or not at all; the first message tells of all of them.',
  }),
  bringIn: endpoint<BringInBody, BroughtIn>({
    method: 'POST',
    path: '/api/bring-in',
    who: 'desk',
    largest: KB * KB,
    status: 201,
    once: true,
    codes: ['no-key', 'key-reused', 'unknown-service', 'id-taken', 'not-open'],
    says: 'Sessions that were booked elsewhere, and how people stand, all of it or nothing. Only those are written to who are to be.',
  }),
  bringOut: endpoint<BringOutBody, BroughtIn>({
    method: 'POST',
    path: '/api/bring-in/out',
    who: 'desk',
    largest: 256 * KB,
    once: true,
    codes: ['no-key', 'key-reused'],
    says: 'Takes what was brought in together out again, but for what has gone on since; nobody hears of it.',
  }),
  forget: endpoint<ForgetBody, { forgot: number }>({
    method: 'POST',
    path: '/api/forget',
    who: 'desk',
    largest: KB * KB,
    once: true,
    codes: ['no-key', 'key-reused', 'forget-open'],
    says: 'Forgets people by the hashes of their addresses: everything that began before the moment given. Refused while something of theirs is open.',
  }),
  course: endpoint<DeskCourse, { seq: number }>({
    method: 'POST',
    path: '/api/course',
    who: 'desk',
    largest: 64 * KB,
    once: true,
    codes: [
      ...(['no-key', 'key-reused', 'id-taken', 'unknown-course', 'unknown-booking', 'no-seal'] as const),
      ...([
        'unknown-preparation',
        'too-many-courses',
        'course-over',
        'nothing-left',
        'nothing-to-take-back',
      ] as const),
      ...(['unknown-path', 'no-path', 'path-impossible', 'not-paid', 'not-left'] as const),
    ],
    says: 'Gives somebody what there is to do, asks again for what is open, says that something is done or is to be done once more, or ends it.',
  }),
  answer: endpoint<AnswerBody, { seq: number }>({
    method: 'POST',
    path: '/api/enquiry',
    who: 'desk',
    largest: 64 * KB,
    once: true,
    codes: ['no-key', 'key-reused', 'unknown-enquiry'],
    says: 'An answer by mail to somebody who has written.',
  }),
  quote: endpoint<QuoteBody, { seq: number }>({
    method: 'POST',
    path: '/api/quote',
    who: 'desk',
    largest: 2 * ANSWERS,
    status: 201,
    once: true,
    codes: ['no-key', 'key-reused', 'unknown-service', 'until', 'code', 'changed'],
    says: 'A quote reckoned, kept until its moment, and its link sent.',
  }),
  waiting: endpoint<DeskLine, { seq: number }>({
    method: 'POST',
    path: '/api/waiting',
    who: 'desk',
    largest: 2 * ANSWERS,
    once: true,
    codes: [
      'no-key',
      'key-reused',
      'unknown-line',
      'unknown-service',
      'line-over',
      'window',
      'in-line-already',
    ],
    says: 'Puts somebody in line by hand, changes when they could come, pauses, looks at them, or takes them out.',
  }),
  freed: endpoint<DeskFreed, { seq: number }>({
    method: 'POST',
    path: '/api/freed',
    who: 'desk',
    largest: KB,
    once: true,
    codes: [
      'no-key',
      'key-reused',
      'unknown-freed',
      'unknown-line',
      'line-over',
      'freed-gone',
      'not-open',
      'id-taken',
    ],
    says: 'Asks people for a freed time, leaves somebody out, offers it to one by hand, books it, or stops.',
  }),
  calendars: endpoint<undefined, CalendarState[]>({
    method: 'GET',
    path: '/api/calendars',
    who: 'desk',
    says: 'What has been read of other calendars.',
  }),
  feed: endpoint<Record<string, never>, { url: string }>({
    method: 'POST',
    path: '/api/feed',
    who: 'desk',
    largest: KB,
    says: 'A new private address of the feed; the one before ends.',
  }),
  code: endpoint<Record<string, never>, { code: string }>({
    method: 'POST',
    path: '/api/code',
    who: 'desk',
    largest: KB,
    says: 'A new code for pairing; the one before ends.',
  }),
  phone: endpoint<Record<string, never>, { url: string }>({
    method: 'POST',
    path: '/api/phone',
    who: 'desk',
    largest: KB,
    says: 'Pairs a phone with the day: its address, with its key in the fragment; the phone before ends.',
  }),
  end: endpoint<{ what: 'phone' | 'words' }, Record<string, never>>({
    method: 'POST',
    path: '/api/end',
    who: 'desk',
    largest: KB,
    says: 'Ends the paired phone, or every word link there is.',
  }),
  trial: endpoint<TrialBody, { url: string; until: Instant }>({
    method: 'POST',
    path: '/api/trial',
    who: 'desk',
    largest: KB,
    status: 201,
    says: 'A door to try, for an hour, in memory alone; four at once.',
  }),
  release: endpoint<{ back: boolean }, { now: Instant }>({
    method: 'POST',
    path: '/api/release',
    who: 'desk',
    largest: KB,
    says: 'After a leap of the clock: it is right and everything goes on, or (`back`) the newest moment is set back to it.',
  }),
}

/** What takes and gives bytes, or streams: mounted by hand, written down here. */
export const others = [
  [
    'POST /api/door/:slug/files?visit&service&question&name',
    '201 `Attached`: what stands for the file in the answers; the bytes as `application/octet-stream`, 5 MB at most; refused with `file`, and as `read` is',
  ],
  [
    'POST /api/yours/:secret/files?course&station&name&question',
    '201 `Attached`: a file that is brought, or answers a question of what there is to do; as files of the door; refused with `file`, `unknown-course`, `course-over`',
  ],
  [
    'POST /api/till',
    'what the till tells, signed (RFC 9421, HMAC with SHA-256 over method, path and the digest of the body, within five minutes); 10 KB at most; refused with `till` where it is not signed, or not about what was asked for, or `unknown-payment`',
  ],
  ['GET /api/door/:slug/changes', 'server-sent events `practice`, `openings`, at most one a second'],
  ['GET /api/record/stream (desk)', 'server-sent events: something has been appended'],
  ['GET /api/files/:id (desk)', 'the bytes of a file given as an answer, or `unknown-file`'],
  ['GET /api/demo', 'the demo practice as the relay has it; `unknown` but where stand-ins run'],
  [
    'GET /feed/:secret.ics, /feed/:secret.ifb, /feed/:secret/hours.ics',
    'the practitioner’s bookings, only when they are busy (VFREEBUSY), or when they work (VAVAILABILITY); or `unknown-feed`',
  ],
] as const

type Door = typeof door
type Desk = typeof desk
type Away = typeof away
export type BodyOf<E> = E extends Endpoint<infer B, unknown> ? B : never
type All = Door & Away & Desk
/** The bodies of every endpoint that takes one, by its name. */
export type Bodies = {
  [N in keyof All as BodyOf<All[N]> extends undefined ? never : N]: BodyOf<All[N]>
}
