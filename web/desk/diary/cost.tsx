import { type Ask, CLOSURES, costOfRules, type Diary, whatIf, whatIfWords } from '@acolhida/core/openings'
import type { Practice } from '@acolhida/core/practice'
import type { LocalDate } from '@acolhida/core/time'
import { useMemo } from 'react'

/** What the rules cost in the days shown: hours worked, starts open, and what each rule closes. */
export function RulesCost({
  practice,
  diary,
  ask,
  from,
  days,
}: {
  practice: Practice
  diary: Diary
  ask: Ask
  from: LocalDate
  days: number
}) {
  const cost = useMemo(
    () => costOfRules(practice, diary, ask, from, days),
    [practice, diary, ask, from, days],
  )
  const easier = useMemo(
    () => whatIf(practice, diary, ask, from, days).slice(0, 3),
    [practice, diary, ask, from, days],
  )
  if (cost.starts === 0)
    return <p className="mt-4 text-[14px] text-soft">There are no hours for this service here.</p>
  const rules = cost.closed.filter((rule) => rule.rule !== 'past')
  return (
    <section className="mt-4 text-[14px]" aria-label="What the rules cost">
      <p>
        <b>{Math.round(cost.hours * 10) / 10} h</b> of hours, <b>{cost.open}</b> of {cost.starts} starts open.
        {rules.length > 0 && ' Closed by '}
        {rules.map((rule, i) => (
          <span key={rule.rule}>
            {i > 0 && ', '}
            {CLOSURES[rule.rule].name} <b>{rule.starts}</b>
            {rule.alone > 0 && <span className="text-soft"> ({rule.alone} by that alone)</span>}
          </span>
        ))}
        .
      </p>
      {easier.length > 0 && (
        <p className="mt-1">
          {sentence(
            easier.map(
              (whatIf) =>
                `${whatIfWords(whatIf)}, ${whatIf.more} more ${whatIf.more === 1 ? 'start' : 'starts'}`,
            ),
          )}
        </p>
      )}
    </section>
  )
}

/** Parts as one sentence: "With …; with …." */
const sentence = (parts: readonly string[]): string => {
  const joined = parts.join('; ')
  return `${joined.charAt(0).toUpperCase()}${joined.slice(1)}.`
}
