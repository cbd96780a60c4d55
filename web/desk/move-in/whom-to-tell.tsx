import type { Brought } from '@acolhida/core/move-in/sessions'
import type { Practice } from '@acolhida/core/practice'
import { Tick } from '../parts/tick.tsx'
import { when } from '../parts/words.ts'
import { many } from './found.tsx'

/** Whose sessions are confirmed to them: everybody's, nobody's, or those of some. */
export function WhomToTell({
  practice,
  come,
  told,
  setTold,
}: {
  practice: Practice
  come: readonly Brought[]
  told: ReadonlySet<number>
  setTold: (told: ReadonlySet<number>) => void
}) {
  if (come.length === 0) return null
  const all = come.every(({ row }) => told.has(row))
  const some = come.filter(({ row }) => told.has(row)).length
  return (
    <details>
      <summary className="cursor-pointer font-semibold">
        {some === 0
          ? 'Nobody is told; reminders go as ever'
          : `${many(some)} of ${many(come.length)} get a confirmation`}
      </summary>
      <Tick
        label="Send everybody a confirmation"
        on={all}
        onChange={(on) => setTold(on ? new Set(come.map(({ row }) => row)) : new Set())}
      />
      <section
        className="max-h-[240px] overflow-y-auto border-t border-line"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard
        tabIndex={0}
        aria-label="Who gets a confirmation"
      >
        {come.map(({ row, person, session }) => (
          <Tick
            key={row}
            label={`${person.name}, ${session ? when(practice, session.start) : ''}`}
            on={told.has(row)}
            onChange={(on) => setTold(new Set(on ? [...told, row] : [...told].filter((one) => one !== row)))}
          />
        ))}
      </section>
    </details>
  )
}
