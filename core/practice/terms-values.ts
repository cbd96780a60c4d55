import type { FieldValues, TermsField } from '../terms/index.ts'
import { after, durationWords, type Instant, zone } from '../time/index.ts'
import { addBook, bookInForce } from '../words/books.ts'
import terms from '../words/en/terms.json' with { type: 'json' }
import type { SaidValues } from '../words/say.ts'
import type { HouseRules, Practice, Service } from './types.ts'

addBook('en', 'terms', terms)

const say = (word: keyof typeof terms, values?: SaidValues): string => bookInForce('terms').text(word, values)

/** The house rules that hold for a service: its own, or the practice's. What counts is always the practice's. */
export function rulesFor(
  { houseRules }: Practice,
  service: Pick<Service, 'houseRules'> | undefined,
): HouseRules {
  const { counting: _, ...own } = service?.houseRules ?? houseRules
  return houseRules.counting ? { ...own, counting: houseRules.counting } : own
}

/** How long a step lies before the start, for putting them in order; on an ordinary day. */
const NOON = Date.UTC(2027, 0, 4, 12) as Instant
const lengthOf = (until: HouseRules['cancel'][number]['until']): number => after(NOON, until, zone('UTC'))

function freeWords({ cancel, cancelAfter }: HouseRules): string {
  if (cancelAfter === 0) return say('free-until.start')
  const free = cancel.filter(({ share }) => share === 0).sort((a, b) => lengthOf(a.until) - lengthOf(b.until))
  return free[0] ? say('free-until.some', { length: durationWords(free[0].until) }) : say('free-until.none')
}

function lateWords({ cancel, cancelAfter }: HouseRules): string {
  if (cancelAfter === 0) return say('late.nothing')
  const steps = cancel
    .filter(({ share }) => share > 0)
    .sort((a, b) => lengthOf(b.until) - lengthOf(a.until))
    .map(({ share, until }) => say('late.step', { share, length: durationWords(until) }))
  const last = say('late.after', { share: cancelAfter })
  return steps.length > 0 ? say('late.then', { steps: steps.join(', '), last }) : last
}

/** What the practitioner promises for their own part. */
function mineWords({ mine }: HouseRules): string {
  const parts = [
    mine && mine.cancelled > 0
      ? say('my-side.cancelled', { share: mine.cancelled, length: durationWords(mine.within) })
      : '',
    mine && mine.late > 0 ? say('my-side.late', { share: mine.late, minutes: mine.grace }) : '',
  ].filter(Boolean)
  return parts.length > 0 ? parts.join('; ') : say('my-side.none')
}

/** What the fields of terms are filled with for whoever books a service, by the rules in force. */
export function termsValues(practice: Practice, service: Service): FieldValues & Record<TermsField, string> {
  const rules = rulesFor(practice, service)
  const { move, graceMinutes } = rules
  return {
    practitioner: practice.profile.name,
    service: service.name,
    notice: say('notice', { length: durationWords(service.notice) }),
    'free-until': freeWords(rules),
    'late-cost': lateWords(rules),
    moves:
      move.times === 0
        ? say('moves.none')
        : say('moves.some', { times: move.times, length: durationWords(move.until) }),
    grace: say('grace', { minutes: graceMinutes }),
    'my-side': mineWords(rules),
  }
}

/** Figures with a unit, as they are typed into a text. */
const FIGURE =
  /(\d+(?:[.,]\d+)?)\s*(%|percent|per cent|minutes?|min\b|hours?|h\b|days?|weeks?)|\b(one|two|three|four|five|six|seven|ten|twelve|fifteen|twenty|twenty-four|thirty|forty-eight)\s+(minutes?|hours?|days?|weeks?)/gi
const NUMBERS: Readonly<Record<string, number>> = {
  ...{ one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, ten: 10, twelve: 12, fifteen: 15 },
  ...{ twenty: 20, 'twenty-four': 24, thirty: 30, 'forty-eight': 48 },
}
const MINUTES: Readonly<Record<string, number>> = { m: 1, h: 60, d: 1_440, w: 10_080 }

/** A figure in one unit: minutes, or a share. */
function figure(value: number, unit: string): string {
  const kind = unit.toLowerCase()
  return kind === '%' || kind.startsWith('per') ? `${value} %` : `${value * (MINUTES[kind[0]!] ?? 1)} min`
}

/**
 * Figures typed into a text that none of the rules has: a field would fill in the rule itself, and go with it.
 * @returns each as it was typed
 */
export function oddFigures(practice: Practice, services: readonly Service[], text: string): string[] {
  const known = new Set<string>()
  const add = (length: string): void => {
    for (const [, value, unit] of length.matchAll(/(\d+)\s*(h|min|days?|weeks?|months?)/g))
      known.add(figure(Number(value), unit!))
  }
  for (const service of services) {
    const rules = rulesFor(practice, service)
    for (const { until, share } of rules.cancel) {
      add(durationWords(until))
      known.add(figure(share, '%'))
    }
    known.add(figure(rules.cancelAfter, '%'))
    known.add(figure(rules.graceMinutes, 'min'))
    add(durationWords(rules.move.until))
    add(durationWords(service.notice))
    const { mine } = rules
    if (mine) {
      add(durationWords(mine.within))
      for (const share of [mine.cancelled, mine.late]) known.add(figure(share, '%'))
      known.add(figure(mine.grace, 'min'))
    }
    known.add(figure(service.minutes, 'min'))
  }
  return [...text.matchAll(FIGURE)].flatMap(([typed, value, unit, word, of]) => {
    const number = value === undefined ? NUMBERS[word!.toLowerCase()]! : Number(value.replace(',', '.'))
    return known.has(figure(number, unit ?? of!)) ? [] : [typed.trim()]
  })
}
