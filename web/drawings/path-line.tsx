import type { SessionOfPath } from '@acolhida/core/preparing'

const STEP = 34
const WORDS: Record<SessionOfPath['is'], string> = { used: 'used', planned: 'planned', left: 'left' }

/**
 * The sessions of a path on its line: leaves along a branch. Filled: used; filled half: planned; empty: left. What they
 * come to stands beside it in words.
 */
export function PathLine({ sessions }: { sessions: readonly SessionOfPath['is'][] }) {
  const width = Math.max(1, sessions.length) * STEP
  return (
    <svg
      viewBox={`0 0 ${width} 44`}
      className="my-1.5 block h-11 max-w-full"
      style={{ width }}
      aria-hidden="true"
      preserveAspectRatio="xMinYMid meet"
    >
      <line x1="4" x2={width - 4} y1="36" y2="36" className="stroke-soft" strokeWidth="2" />
      {sessions.map((is, i) => {
        const x = i * STEP + STEP / 2
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a session has no name but its place
          <g key={i} transform={`translate(${x} 36)`}>
            <title>{WORDS[is]}</title>
            <path
              d="M0 0 C-11 -8 -11 -22 0 -30 C11 -22 11 -8 0 0 Z"
              strokeWidth="1.8"
              strokeDasharray={is === 'left' ? '3 2.5' : undefined}
              className={is === 'used' ? 'fill-leaf stroke-leaf' : 'fill-card stroke-leaf'}
            />
            {is === 'planned' && (
              <path d="M0 0 C-6 -4.5 -8.6 -10 -8.2 -15 H8.2 C8.6 -10 6 -4.5 0 0 Z" className="fill-leaf" />
            )}
          </g>
        )
      })}
    </svg>
  )
}
