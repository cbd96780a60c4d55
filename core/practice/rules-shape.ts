import { isoDuration, minutes } from '../shape/plain.ts'
import { exactly, list, maybe, number, object, one, whole } from '../shape/shape.ts'
import type { HouseRules } from './types.ts'

const share = number(0, 100)
const points = whole(0, 100)

/** The house rules: of a practice, and as they were on the day somebody asked. */
export const houseRules = exactly<HouseRules>()(
  object({
    cancel: list(object({ until: isoDuration, share }), 20),
    cancelAfter: share,
    move: object({ until: isoDuration, times: whole(0, 1_000) }),
    graceMinutes: minutes,
    mine: maybe(object({ within: isoDuration, cancelled: share, grace: minutes, late: share })),
    counting: maybe(
      object({
        missed: points,
        late: points,
        leads: list(
          object({
            points: whole(1, 100),
            within: isoDuration,
            to: one('ask', 'pay-first', 'not-online'),
            lasts: isoDuration,
          }),
          10,
        ),
      }),
    ),
  }),
)
