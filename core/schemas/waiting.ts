import { askAtOnce } from '../practice/waitlist.ts'
import type { Answers } from '../questions/index.ts'
import { epochMs, id, madeName, minor, someMinutes } from '../shape/plain.ts'
import { exactly, list, maybe, one, tagged, text, yes } from '../shape/shape.ts'
import { agreementShape } from '../terms/shape.ts'
import { CAUSES, type FreedEvent } from '../waiting/freed.ts'
import type { LineEvent } from '../waiting/line.ts'
import { lineWishes } from '../waiting/shape.ts'
import { answers, attempt, contact, sealedParts } from './record.ts'

const at = { at: epochMs }
const who = { by: one('client', 'practitioner', 'rules') }
const freed = { freed: madeName }

/** One event of the record of a place in line. */
export const lineEvent = exactly<LineEvent, Answers>()(
  tagged('type', {
    joined: {
      ...at,
      ...lineWishes,
      service: id,
      place: id,
      minutes: someMinutes,
      price: minor,
      person: contact,
      answers,
      attempts: list(attempt, 10_000),
      extras: maybe(list(id, 20)),
      travel: maybe(id),
      address: maybe(text(500)),
      code: maybe(text(60)),
      agreements: list(agreementShape, 100),
      until: maybe(epochMs),
      byHand: maybe(yes),
      silent: maybe(yes),
      look: maybe(yes),
      instead: maybe(madeName),
      sealed: sealedParts,
    },
    proved: at,
    changed: { ...at, ...lineWishes },
    paused: { ...at, ...who },
    resumed: { ...at, ...who },
    looked: at,
    'held-out': {
      ...at,
      ...freed,
      start: epochMs,
      minutes: someMinutes,
      price: minor,
      until: epochMs,
      hand: maybe(yes),
      shared: maybe(yes),
    },
    turned: { ...at, ...freed },
    'let-go': { ...at, ...freed, still: maybe(yes) },
    passed: { ...at, ...freed, why: one('taken', 'gone', 'stopped') },
    taken: { ...at, ...freed, booking: madeName },
    still: at,
    ended: {
      ...at,
      ...who,
      why: one('left', 'out', 'unproved', 'over', 'booked', 'double'),
      text: text(5_000),
      settles: maybe(epochMs),
      into: maybe(madeName),
    },
    returned: at,
  }),
)

/** One event of the record of a freed time. */
export const freedEvent = exactly<FreedEvent>()(
  tagged('type', {
    freed: {
      ...at,
      from: epochMs,
      to: epochMs,
      cause: one(...CAUSES),
      service: maybe(id),
      depth: one(0, 1),
    },
    go: { ...at, ask: askAtOnce },
    skipped: { ...at, line: madeName, back: maybe(yes) },
    ended: { ...at, how: one('taken', 'nobody', 'over', 'stopped') },
  }),
)
