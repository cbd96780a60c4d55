import { emailShape, epochMs, isoDuration, wallTimeShape } from '../shape/plain.ts'
import { id, line, list, maybe, object, one, record, text, unique, yes } from '../shape/shape.ts'
import { CHANNELS, STEP_ANCHORS, STEP_LOOKS } from './messaging.ts'

const channel = one(...CHANNELS)
const step = object({
  id,
  anchor: one(...STEP_ANCHORS),
  before: maybe(yes),
  by: isoDuration,
  at: maybe(wallTimeShape),
  channel,
  text: id,
  when: maybe(list(object({ if: one(...STEP_LOOKS), is: maybe(list(line(80), 100)), not: maybe(yes) }), 20)),
  must: maybe(yes),
  draft: maybe(yes),
  asks: maybe(yes),
  since: maybe(epochMs),
})

/** The sequences of a practice. */
export const sequences = unique(object({ id, name: line(80), steps: unique(step, 50) }), 50)

const subject = maybe(text(200))
const body = text(10_000)
/** What messages say. */
export const messageTexts = unique(
  object({
    id,
    name: line(80),
    subject,
    body,
  }),
  500,
)

const quiet = maybe(object({ from: wallTimeShape, to: wallTimeShape }))
/** How messages go. */
export const messaging = object({
  paused: maybe(yes),
  resumed: maybe(epochMs),
  quiet,
  greeting: maybe(text(200)),
  signature: maybe(text(1_000)),
  replyTo: maybe(emailShape),
  sender: maybe(text(40)),
  own: maybe(
    object({
      alerts: maybe(record(line(40), object({ email: maybe(yes), text: maybe(yes) }), 40)),
      services: maybe(list(id, 500)),
      before: maybe(list(object({ by: isoDuration, channel }), 2)),
      digest: maybe(wallTimeShape),
      quiet,
      phone: maybe(text(40)),
    }),
  ),
})
