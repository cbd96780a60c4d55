import type { StationView } from '@acolhida/core/contract'

/** A petal standing upright, as of the tile. */
const PETAL = 'M14 3 C21 8 23 15 14 25 C5 15 7 8 14 3 Z'

/**
 * One thing to do on its line: an upright petal. Filled: done; half filled: begun; empty: open; clay with a stroke
 * through its foot: overdue. What it means stands beside it in words.
 */
export function StationMark({ state, size = 28 }: { state: StationView['state']; size?: number }) {
  const late = state === 'overdue'
  return (
    <svg width={size} height={size} viewBox="0 0 28 28" aria-hidden="true" className="shrink-0">
      <path
        d={PETAL}
        strokeWidth="1.8"
        className={
          state === 'done'
            ? 'fill-leaf stroke-leaf'
            : late
              ? 'fill-card stroke-clay'
              : 'fill-card stroke-leaf'
        }
      />
      {state === 'begun' && (
        <path d="M14 25 C10 20.5 8 16.5 7.6 14 H20.4 C20 16.5 18 20.5 14 25 Z" className="fill-leaf" />
      )}
      {late && <path d="M9 25.5 H19" strokeWidth="2.4" className="stroke-clay" />}
    </svg>
  )
}
