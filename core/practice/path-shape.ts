import { id, isoDuration, minor, someMinutes } from '../shape/plain.ts'
import { exactly, line, maybe, object, tagged, text, unique, whole } from '../shape/shape.ts'
import { MOST_OF_A_PATH, MOST_PARTS, type Path, type PathStation } from './path.ts'

const days = whole(1, 366)
const station = exactly<PathStation>()(
  tagged('does', {
    prepare: { id, preparation: id },
    sessions: {
      id,
      service: id,
      minutes: someMinutes,
      many: whole(1, MOST_OF_A_PATH),
      least: maybe(days),
      most: maybe(days),
    },
    pay: { id, parts: whole(1, MOST_PARTS), after: isoDuration, every: isoDuration },
    pause: { id, days },
  }),
)
/** A path, as a practice has it. */
export const pathShape = exactly<Path, PathStation>()(
  object({ id, name: line(120), text: text(5_000), price: minor, stations: unique(station, 100) }),
)
