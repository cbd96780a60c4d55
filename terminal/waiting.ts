import { bookingEntries } from '@acolhida/core/booking'
import { gatherGroups, makeDiary } from '@acolhida/core/openings'
import { PREFERENCES, type Preference } from '@acolhida/core/practice'
import type { ReadFile } from '@acolhida/core/schemas'
import { formatInstant, type Instant, parseInstant } from '@acolhida/core/time'
import { type Filled, fillFreed } from '@acolhida/core/waiting'
import { personFrom } from './given.ts'
import { countOption, option, Unusable, type Values } from './options.ts'

const preference = (text: string): Preference => {
  const found = PREFERENCES.find((one) => one === text)
  if (!found) throw new RangeError(`"${text}" is none of ${PREFERENCES.join(', ')}`)
  return found
}
const worth = (text: string): 'price' | 'minutes' => {
  if (text !== 'price' && text !== 'minutes') throw new RangeError(`"${text}" is neither price nor minutes`)
  return text
}

/** The longest stretch that is filled at once, in ms: two weeks. */
const LONGEST = 14 * 86_400_000

/** Who is to have a freed time, what that is worth, and why the others are not. */
export function fillCommand(file: ReadFile, values: Values) {
  const now: Instant = option(values, 'now', parseInstant)
  const from = option(values, 'from', parseInstant)
  const to = option(values, 'to', parseInstant)
  if (to <= from || to - from > LONGEST)
    throw new Unusable('--to: it must lie after --from, two weeks at the most')
  const { practice, sessions, bookings, people, waiting } = file
  const entries = gatherGroups(practice, [...sessions, ...bookingEntries(practice, bookings, now)])
  const found = fillFreed(
    practice,
    makeDiary(practice, entries),
    waiting,
    { from, to },
    {
      prefer: option(values, 'prefer', preference),
      ...(values.by === undefined ? {} : { by: option(values, 'by', worth) }),
      ...(values.most === undefined ? {} : { most: option(values, 'most', countOption(10_000_000)) }),
      askerOf: (id) =>
        people.some((person) => person.id === id) ? personFrom(file, { person: id }, now).asker : undefined,
      now,
    },
  )
  return told(found)
}

const told = ({ chosen, others, ...rest }: Filled) => ({
  chosen: chosen.map(({ waiting, start }) => ({ waiting: waiting.id, start: formatInstant(start) })),
  ...rest,
  others: others.map(({ waiting, ...reason }) => ({ waiting: waiting.id, ...reason })),
})
