import { HOUR, type Instant, moment, type Zone } from '@acolhida/core/time'

export interface LeadMark {
  at: Instant
  name: string
  kind: 'past' | 'due' | 'deadline' | 'message' | 'session'
}

const WIDTH = 1000
const EDGE = 30
const FILL: Record<LeadMark['kind'], string> = {
  past: 'fill-leaf stroke-leaf',
  due: 'fill-clay stroke-clay',
  deadline: 'fill-sun stroke-sun',
  message: 'fill-card stroke-leaf',
  session: 'fill-ink stroke-ink',
}

interface Label {
  from: number
  to: number
  row: number
}

/** Places labels above (even rows) and below (odd rows) the line so that none lies on another. */
function place(
  marks: readonly (LeadMark & { x: number })[],
  zone: Zone,
): { x: number; anchor: 'start' | 'middle' | 'end'; row: number }[] {
  const taken: Label[] = []
  return marks.map((mark, i) => {
    const width = Math.max(mark.name.length * 7.4, moment(mark.at, zone).length * 7) + 14
    const anchor = mark.x + width / 2 > WIDTH ? 'end' : mark.x - width / 2 < 0 ? 'start' : 'middle'
    const from = anchor === 'start' ? mark.x : anchor === 'end' ? mark.x - width : mark.x - width / 2
    const rows = i % 2 === 0 ? [0, 1, 2, 3] : [1, 0, 3, 2]
    const row =
      rows.find((row) => !taken.some((t) => t.row === row && t.from < from + width && from < t.to)) ?? 0
    taken.push({ from, to: from + width, row })
    return { x: mark.x, anchor, row }
  })
}

/**
 * The lead line: a booking's deadlines from asking to session. The scale widens towards the session, because
 * the last hours matter most: a moment lies at the logarithm of the time left.
 */
export function LeadLine({ marks, now, zone }: { marks: readonly LeadMark[]; now: Instant; zone: Zone }) {
  const sorted = [...marks].sort((a, b) => a.at - b.at)
  const first = sorted[0]!
  const session = sorted.at(-1)!
  const hours = (at: number): number => Math.max(0, (session.at - at) / HOUR)
  const longest = Math.log1p(hours(first.at)) || 1
  const x = (at: number): number => EDGE + (WIDTH - 2 * EDGE) * (1 - Math.log1p(hours(at)) / longest)
  const placed = sorted.map((mark) => ({ ...mark, x: x(mark.at) }))
  const labels = place(placed, zone)
  const above = labels.some((label) => label.row === 2) ? 96 : 58
  const below = labels.some((label) => label.row === 3) ? 96 : 58
  const free = sorted.filter((mark) => mark.kind === 'deadline')[0]
  return (
    <div className="overflow-x-auto">
      <svg
        viewBox={`0 0 ${WIDTH} ${above + below}`}
        className="block w-full min-w-[640px]"
        aria-hidden="true"
      >
        <line x1={10} x2={WIDTH - 10} y1={above} y2={above} strokeWidth="3" className="stroke-line" />
        <rect
          x={x(first.at)}
          y={above - 6}
          width={Math.max(0, x(free?.at ?? session.at) - x(first.at))}
          height="12"
          className="fill-leaf-soft"
        />
        {free && (
          <rect
            x={x(free.at)}
            y={above - 6}
            width={x(session.at) - x(free.at)}
            height="12"
            className="fill-clay-soft"
          />
        )}
        {now > first.at && now < session.at && (
          <line
            x1={x(now)}
            x2={x(now)}
            y1={above - 13}
            y2={above + 13}
            strokeWidth="2.5"
            className="stroke-clay"
          />
        )}
        {placed.map((mark, i) => {
          const { anchor, row } = labels[i]!
          const top = row % 2 === 0
          const far = row > 1 ? 38 : 0
          const y = top ? above - 42 - far : above + 38 + far
          return (
            <g key={`${mark.name} ${mark.at}`}>
              <line
                x1={mark.x}
                x2={mark.x}
                y1={above}
                y2={top ? above - 22 - far : above + 22 + far}
                strokeWidth="1.5"
                className={FILL[mark.kind]}
              />
              <circle
                cx={mark.x}
                cy={above}
                r={mark.kind === 'due' ? 8 : 6}
                strokeWidth="2"
                className={FILL[mark.kind]}
              />
              <text x={mark.x} y={y} fontSize="13" fontWeight="650" textAnchor={anchor} className="fill-ink">
                {mark.name}
              </text>
              <text x={mark.x} y={y + 16} fontSize="12.5" textAnchor={anchor} className="figures fill-soft">
                {moment(mark.at, zone)}
              </text>
            </g>
          )
        })}
      </svg>
      <ol className="sr-only">
        {sorted.map((mark) => (
          <li key={`${mark.name} ${mark.at}`}>
            {mark.name}: {moment(mark.at, zone)}
          </li>
        ))}
      </ol>
    </div>
  )
}
