import type { Service } from '../practice/types.ts'
import { newcomer } from './conditions.ts'
import { TooMany } from './options.ts'
import { priceOf } from './reading.ts'
import type { Questionnaire } from './types.ts'
import { beginning, endOfWay, ready, walk } from './ways.ts'

/** A walk wider than this is given up: it is asked for while somebody looks at a diary. */
const MOST_STATES = 2_000

const known = new WeakMap<Service, { questionnaire: Questionnaire | undefined; minutes: number }>()

/**
 * The least length in minutes at which a client could book a service: over all ways through its questions that do not
 * end closed. Where there are more ways than are walked, or none, the length it has before anything is answered.
 */
export function leastLength(service: Service, questionnaire: Questionnaire | undefined): number {
  const before = known.get(service)
  if (before && before.questionnaire === questionnaire) return before.minutes
  const minutes = reckonLeast(service, questionnaire)
  known.set(service, { questionnaire, minutes })
  return minutes
}

function reckonLeast(service: Service, questionnaire: Questionnaire | undefined): number {
  const plain = priceOf(service, service.minutes, 0).minutes
  if (!questionnaire?.rules.some(({ effect }) => effect.do === 'minutes')) return plain
  try {
    const r = ready(questionnaire, service)
    const ends = walk(r, [beginning(r, newcomer)], { level: (_, states) => states <= MOST_STATES })
    const lengths = (ends ?? [])
      .map((state) => endOfWay(r, state))
      .filter((end) => end.outcome !== 'closed')
      .map((end) => end.minutes)
    return lengths.length > 0 ? Math.min(...lengths) : plain
  } catch (error) {
    if (error instanceof TooMany) return plain
    throw error
  }
}
