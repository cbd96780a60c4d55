import { closureWords } from '@acolhida/core/openings'
import { MOST_PLANNED, planSessions, RHYTHMS, type Rhythm } from '@acolhida/core/planning'
import { placeOf, zoneOf } from '@acolhida/core/practice'
import { byPractitioner } from '@acolhida/core/request'
import { addDays, date, dateTimeAt, dayNumber, parseInstant, shift, time } from '@acolhida/core/time'
import { diaryFor, given, WEEK } from './given.ts'
import { countOption, option, type Values } from './options.ts'

const rhythm = (text: string): Rhythm => {
  const found = RHYTHMS.find((one) => one === text)
  if (!found) throw new RangeError(`"${text}" is none of ${RHYTHMS.join(', ')}`)
  return found
}

/** Sessions planned after a rhythm, as the practitioner may plan them; with why one is not where it was meant. */
export function seriesCommand(path: string, values: Values) {
  const now = option(values, 'now', parseInstant)
  const first = option(values, 'from', date)
  const at = option(values, 'time', time)
  const count = option(values, 'count', countOption(MOST_PLANNED))
  const g = given(path, values, now)
  const { practice } = g.file
  const there = zoneOf(practice, placeOf(practice, g.place))
  const begin = there.toInstant(dayNumber(addDays(first, -31)), 0)
  const end = shift(there.toInstant(dayNumber(addDays(first, count * 31)), 0), WEEK)
  const plan = planSessions(practice, diaryFor(g, values, now, begin, end), {
    ...{ service: g.service, place: g.place, minutes: g.minutes, asker: byPractitioner, now },
    ...{ rhythm: option(values, 'rhythm', rhythm), first, time: at, count },
    ...(values.least === undefined ? {} : { least: option(values, 'least', countOption(366)) }),
    ...(values.greatest === undefined ? {} : { greatest: option(values, 'greatest', countOption(366)) }),
  })
  return {
    service: g.service.id,
    zone: there.name,
    cost: plan.cost,
    sessions: plan.sessions.map(({ meant, ideal, start, days, minutes, because }) => ({
      meant,
      local: start === undefined ? null : dateTimeAt(there, start),
      ...(days === 0 ? {} : { days }),
      ...(minutes === 0 ? {} : { minutes }),
      ...(because.length > 0
        ? {
            because: because.map((closure) =>
              closureWords(closure, {
                ...{ practice, start: ideal, minutes: g.minutes, zone: there, nameOf: ({ id }) => id },
              }),
            ),
          }
        : {}),
    })),
  }
}
