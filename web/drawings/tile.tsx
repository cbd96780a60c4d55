import type { PartState, Readiness } from '@acolhida/core/booking'

const PETAL = 'M20 18 C11 18 5 13 4 4 C13 5 18 11 18 18 Z'
const PARTS = ['questions', 'terms', 'word', 'deposit'] as const
const WORDS: Record<PartState, string> = {
  done: 'done',
  waiting: 'waiting',
  blocked: 'blocked',
  none: 'not asked',
}

const look = (state: PartState): { className: string; strokeDasharray?: string } => {
  if (state === 'done') return { className: 'fill-leaf stroke-leaf' }
  if (state === 'blocked') return { className: 'fill-clay stroke-clay' }
  if (state === 'none') return { className: 'fill-none stroke-line', strokeDasharray: '2 2' }
  return { className: 'fill-card stroke-leaf' }
}

/** The centre keeps its own ring, so that one finds it among the petals. */
function centre(state: PartState): ReturnType<typeof look> {
  if (state === 'done') return { className: 'fill-leaf stroke-sun' }
  if (state === 'blocked') return { className: 'fill-clay stroke-clay' }
  return state === 'none'
    ? { className: 'fill-none stroke-line', strokeDasharray: '2 2' }
    : { className: 'fill-card stroke-sun' }
}

/** A readiness in words, part by part. */
export const readinessWords = (readiness: Readiness): string =>
  (['questions', 'terms', 'word', 'deposit', 'preparation'] as const)
    .map((part) => `${part} ${WORDS[readiness[part]]}`)
    .join(', ')

/**
 * The readiness tile: four petals and a centre for the parts that are done before a session. Filled: done,
 * empty: waiting, clay: blocked, dotted: not asked.
 */
export function ReadinessTile({ readiness, size = 32 }: { readiness: Readiness; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 40 40"
      role="img"
      aria-label={`Readiness: ${readinessWords(readiness)}`}
      className="shrink-0"
    >
      <title>{readinessWords(readiness)}</title>
      <rect x="1" y="1" width="38" height="38" rx="7" className="fill-card stroke-line" />
      {PARTS.map((part, i) => (
        <g key={part} transform={`rotate(${i * 90} 20 20)`}>
          <path d={PETAL} strokeWidth="1.6" {...look(readiness[part])} />
        </g>
      ))}
      <circle cx="20" cy="20" r="4.6" strokeWidth="1.8" {...centre(readiness.preparation)} />
    </svg>
  )
}

/** A row of tiles as an ornament. */
export function TileFrieze({ count, className = '' }: { count: number; className?: string }) {
  return (
    <svg
      viewBox={`0 0 ${count * 40} 40`}
      className={className}
      aria-hidden="true"
      preserveAspectRatio="xMaxYMax slice"
    >
      {Array.from({ length: count }, (_, x) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: an ornament, all alike
        <g key={x} transform={`translate(${x * 40} 0)`}>
          {[0, 90, 180, 270].map((turn) => (
            <path key={turn} d={PETAL} transform={`rotate(${turn} 20 20)`} fill="#e9f2ec" />
          ))}
          <circle cx="20" cy="20" r="4.6" fill="#e9f2ec" stroke="#d9982a" strokeWidth="1.8" />
        </g>
      ))}
    </svg>
  )
}
