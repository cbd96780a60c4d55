import type { Book } from '@acolhida/core/words'

/** The moments of a client's way, in order. */
export const MOMENTS = [
  'Arriving',
  'Answering',
  'Choosing a time',
  'Waiting for a time',
  'Agreeing',
  'Waiting for the answer',
  'Coming',
  'Afterwards',
  'When something does not work',
] as const
export type WayMoment = (typeof MOMENTS)[number]

/** Where the sentences of the catalogues come up, by how their names begin; the first that fits. */
const WHERE: readonly [Book, RegExp, WayMoment][] = [
  [
    'letters',
    /^(?:new-request|word|client-|has-lapsed|not-|session-soon|digest|freed-to-decide)/,
    'Arriving',
  ],
  ['letters', /^(?:line|freed)/, 'Waiting for a time'],
  ['door', /^(?:wait|line|time\.(?:wait|full)|step\.line)/, 'Waiting for a time'],
  ['fields', /^window/, 'Waiting for a time'],
  ['door', /^(?:questions|extras|no\.|optional|off|code)/, 'Answering'],
  ['fields', /./, 'Answering'],
  ['answers', /^(?:relay|clock)/, 'When something does not work'],
  ['answers', /./, 'Answering'],
  ['door', /^(?:time|zone|travel)/, 'Choosing a time'],
  ['door', /^(?:terms|summary|cost|mine|quoted|step)/, 'Agreeing'],
  ['terms', /./, 'Agreeing'],
  [
    'door',
    /^my\.(?:unproved|waiting|offered|unpaid|prove|open-mail|answers-by|no-answer|not-|let-go|pay-by|asks|reply|replied|send|write|choose|kept|take|none|withdraw|yes-withdraw|declined|lapsed|withdrawn)/,
    'Waiting for the answer',
  ],
  [
    'letters',
    /^(?:asked|offered|question|to-pay|declined|lapsed|withdrawn|quote|answer)/,
    'Waiting for the answer',
  ],
  ['door', /^my\.(?:attended|missed|again|invoice|money-(?:back|came))/, 'Afterwards'],
  ['letters', /^(?:invoice|given-back)/, 'Afterwards'],
  ['door', /^my\./, 'Coming'],
  ['letters', /./, 'Coming'],
  ['refusals', /./, 'When something does not work'],
  ['door', /./, 'Arriving'],
]

/** Sentences that only the practitioner reads. */
const OWN = /^letters\.(?:new-request|word|client-|has-lapsed|not-|session-soon|digest|freed-to-decide)/
/** Refusals that only a desk, a program or a phone of the practitioner's meets. */
const DESK =
  /^refusals\.(?:no-seal|no-gateway|gateway|key-reused|no-key|unknown-word|word-used|no-phone-key|older-package|unknown-booking|id-taken|unknown-enquiry|until|not-paired|paired-already|another-practice|wrong-code|nothing-to-take-back|not-paid|more-than-owed|unknown-payment|nothing-to-invoice|invoiced-already|no-invoice|till\.|not-counted|hold-stands|too-many-offers|not-open\.(?:offers|move|by-hand)|too-early|series-taken\.moved|practice|unknown\.demo|unknown-feed|no-phone\.text|changed\.(?:decided|written)|no-card|unknown-line|unknown-freed|in-line-already|nothing-left|unknown-preparation|too-many-courses|unknown-path|no-path|forget-open|path-impossible|not-proved|not-waiting$|not-booked$)/

/** Whether a client reads a sentence. */
export const isClients = (key: string): boolean => !OWN.test(key) && !DESK.test(key)

/** The moment at which a client reads a sentence. */
export const momentOf = (book: Book, name: string): WayMoment =>
  WHERE.find(([of, begins]) => of === book && begins.test(name))?.[2] ?? 'When something does not work'
