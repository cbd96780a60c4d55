import {
  epochMs,
  id,
  isoDuration,
  localDateShape,
  minor,
  someMinutes,
  wallTimeShape,
  zoneName,
} from '../shape/plain.ts'
import { exactly, list, maybe, object, one } from '../shape/shape.ts'
import type { Waiting } from './types.ts'

const weekday = one(1, 2, 3, 4, 5, 6, 7)

const windows = list(
  object({
    from: maybe(localDateShape),
    to: maybe(localDateShape),
    weekdays: maybe(list(weekday, 7, 1)),
    after: maybe(wallTimeShape),
    before: maybe(wallTimeShape),
  }),
  100,
)

/** When somebody could come, and how they want to hear of it. */
export const lineWishes = { windows, notice: maybe(isoDuration), by: maybe(one('text')) }

/** A place in line, as files hold it. */
export const waitingShape = exactly<Waiting>()(
  object({
    id,
    person: id,
    service: id,
    place: id,
    minutes: someMinutes,
    price: minor,
    since: epochMs,
    zone: zoneName,
    windows,
    notice: maybe(isoDuration),
    travel: maybe(id),
    earlier: maybe(epochMs),
  }),
)
