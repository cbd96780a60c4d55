import { type Instant, MINUTE, timeAt, type Zone } from '@acolhida/core/time'
import { type CSSProperties, type ReactNode, useRef } from 'react'

export interface BandItem {
  id: string
  start: Instant
  end: Instant
  /** Minutes kept clear on either side. */
  clearBefore: number
  clearAfter: number
  look: 'session' | 'group' | 'hold' | 'outside'
  title: string
  line: string
  href?: string
}

export interface Band {
  from: Instant
  to: Instant
  /** Stretches of hours. */
  open: { from: Instant; to: Instant }[]
  items: BandItem[]
  /** Starts that are open. */
  openings: readonly Instant[]
  now: Instant
  zone: Zone
  label: string
}

const LOOK: Record<BandItem['look'], string> = {
  session: 'bg-leaf text-primary-content',
  group: 'bg-tile text-secondary-content',
  hold: 'border-[1.6px] border-dashed border-sun bg-sun-soft text-sun-ink',
  outside: 'bg-shade text-ink',
}

/**
 * The day band: a day as a horizontal band. Hatched: closed; pale shoulders: kept clear; dashed: held; dots:
 * openings; clay line: now. A cursor moves over it with pointer or arrow keys and asks about single starts.
 */
export function DayBand({
  band,
  cursor,
  step,
  onCursor,
  describe,
  link,
}: {
  band: Band
  /** The start under the cursor, if it is on this band. */
  cursor: Instant | undefined
  /** Minutes between two starts the cursor stops at. */
  step: number
  onCursor: (at: Instant | undefined) => void
  /** What to say of a start, for those who listen. */
  describe: (at: Instant) => string
  link: (href: string, className: string, style: CSSProperties, children: ReactNode) => ReactNode
}) {
  const { from, to, zone } = band
  const field = useRef<HTMLDivElement>(null)
  const x = (at: number): number => ((Math.min(Math.max(at, from), to) - from) / (to - from)) * 100
  const stretch = (a: number, z: number): CSSProperties => ({ left: `${x(a)}%`, width: `${x(z) - x(a)}%` })
  const stop = step * MINUTE
  const snap = (at: number): Instant =>
    Math.min(Math.max(from + Math.round((at - from) / stop) * stop, from), to - stop) as Instant
  const here = cursor ?? snap(from + (to - from) / 2)

  const move = (clientX: number): void => {
    const box = field.current?.getBoundingClientRect()
    if (box) onCursor(snap(from + ((clientX - box.left) / box.width) * (to - from)))
  }
  const KEYS: Record<string, number> = {
    ArrowRight: stop,
    ArrowUp: stop,
    ArrowLeft: -stop,
    ArrowDown: -stop,
    PageUp: 4 * stop,
    PageDown: -4 * stop,
  }
  return (
    <div className="relative h-[58px]">
      <div
        ref={field}
        role="slider"
        tabIndex={0}
        aria-label={`Starts on ${band.label}`}
        aria-valuemin={0}
        aria-valuemax={(to - from) / MINUTE}
        aria-valuenow={(here - from) / MINUTE}
        aria-valuetext={cursor ? describe(cursor) : timeAt(zone, here)}
        className="hatch absolute inset-0 cursor-crosshair overflow-hidden rounded-lg"
        onMouseMove={(event) => move(event.clientX)}
        onFocus={() => cursor ?? onCursor(here)}
        onKeyDown={(event) => {
          const by = KEYS[event.key]
          if (event.key === 'Escape') onCursor(undefined)
          else if (event.key === 'Home') onCursor(from)
          else if (event.key === 'End') onCursor(snap(to))
          else if (by !== undefined) onCursor(snap(here + by))
          else return
          event.preventDefault()
        }}
      >
        {band.open.map((one) => (
          <div key={one.from} className="absolute inset-y-0 bg-(--open)" style={stretch(one.from, one.to)} />
        ))}
        {band.items.map((item) => (
          <div
            key={item.id}
            className={`absolute top-1 h-[38px] rounded-[7px] ${item.look === 'hold' ? 'bg-sun-soft/60' : 'bg-leaf-soft'}`}
            style={stretch(item.start - item.clearBefore * MINUTE, item.end + item.clearAfter * MINUTE)}
          />
        ))}
        {band.now > from && (
          <div className="absolute inset-y-0 bg-paper/60" style={stretch(from, band.now)} />
        )}
        {band.openings.map((start) => (
          <span
            key={start}
            className="absolute bottom-[3px] -ml-[3.4px] size-[6.8px] rounded-full bg-leaf"
            style={{ left: `${x(start)}%` }}
          />
        ))}
        {cursor !== undefined && (
          <div
            className="absolute inset-y-0 border-l-2 border-dashed border-clay"
            style={{ left: `${x(cursor)}%` }}
          />
        )}
      </div>
      {band.items.map((item) => {
        const look = item.end <= band.now && item.look !== 'hold' ? 'bg-shade text-ink' : LOOK[item.look]
        const box = `absolute top-1 h-[38px] overflow-hidden rounded-[7px] px-1.5 py-[3px] text-[12px] leading-[1.25] ${look}`
        const inside = (
          <>
            <span className="block truncate font-bold">{item.title}</span>{' '}
            <span className="block truncate text-[11px]">{item.line}</span>{' '}
            <span className="sr-only">
              {timeAt(zone, item.start)} to {timeAt(zone, item.end)}
            </span>
          </>
        )
        return item.href ? (
          link(item.href, box, stretch(item.start, item.end), inside)
        ) : (
          <div key={item.id} className={box} style={stretch(item.start, item.end)}>
            {inside}
          </div>
        )
      })}
      {band.now > from && band.now < to && (
        <div
          className="pointer-events-none absolute -inset-y-[3px] w-0.5 bg-clay"
          style={{ left: `${x(band.now)}%` }}
        />
      )}
    </div>
  )
}
