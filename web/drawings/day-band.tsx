import { type Instant, MINUTE, timeAt, type Zone } from '@acolhida/core/time'
import { type CSSProperties, memo, type PointerEvent, type ReactNode, useRef, useState } from 'react'
import { DrawnTimes } from './drawn-times.tsx'
import { lookOf, type ServiceMark } from './look.ts'
import type { Beside } from './side-by-side.ts'

export interface BandItem {
  id: string
  start: Instant
  end: Instant
  /** Minutes kept clear on either side. */
  clearBefore: number
  clearAfter: number
  look: 'session' | 'hold' | 'outside'
  title: string
  line: string
  /** The booking behind it, to go to. */
  booking?: string
  /** It meets another session. */
  clash?: boolean
  /** Whether it can be dragged to another start. */
  moves?: boolean
  /** Whether there is more to see of it where it is opened. */
  opens?: boolean
  /** The mark of its service. */
  mark?: ServiceMark
  /** Called off: it takes no time any more. */
  off?: boolean
  /** Which of the lanes beside one another it lies in, where it meets others. */
  lane?: Beside
}

export interface DrawnDay {
  from: Instant
  to: Instant
  /** Stretches of hours; `kept`: for whom, where they are not for everybody. */
  open: { from: Instant; to: Instant; kept?: string }[]
  /** Time away, with the practitioner's own note. */
  away: { from: Instant; to: Instant; note: string }[]
  items: BandItem[]
  /** Starts that are open. */
  openings: readonly Instant[]
  now: Instant
  zone: Zone
  label: string
}

/** How far the pointer must go before a press becomes a drag, in pixels. */
export const SLACK = 6

/**
 * The day band: a day as a horizontal band. Hatched: closed; pale shoulders: kept clear; dashed: held; dots:
 * openings; clay line: now. Drawn anew only when something about it has changed: there may be many. A cursor moves over it with pointer or arrow keys and asks about single starts.
 */
export const DayBand = memo(function DayBand({
  band,
  cursor,
  step,
  onCursor,
  onChoose,
  onDraw,
  onGrab,
  onOpen,
  describe,
  link,
  compact = false,
}: {
  band: DrawnDay
  /** The start under the cursor, if it is on this band. */
  cursor: Instant | undefined
  /** Minutes between two starts the cursor stops at. */
  step: number
  onCursor: (at: Instant | undefined) => void
  /** The start under the cursor was chosen, by a click or Enter. */
  onChoose: (at: Instant) => void
  /** A stretch of free ground was drawn, by dragging over it. */
  onDraw: (from: Instant, to: Instant) => void
  /** The pointer went down on something that can be dragged. */
  onGrab: (item: BandItem, event: PointerEvent<HTMLElement>) => void
  onOpen: (item: BandItem) => void
  /** What to say of a start, for those who listen. */
  describe: (at: Instant) => string
  link: (booking: string, className: string, name: string, children: ReactNode) => ReactNode
  /** Lower, with the names alone, where many days are shown. */
  compact?: boolean
}) {
  const { from, to, zone } = band
  const field = useRef<HTMLDivElement>(null)
  const [drawn, setDrawn] = useState<{ from: Instant; to: Instant }>()
  const drewAt = useRef<{ x: number; from: Instant }>(undefined)
  const drew = useRef(false)
  const x = (at: number): number => ((Math.min(Math.max(at, from), to) - from) / (to - from)) * 100
  const stretch = (a: number, z: number): CSSProperties => ({ left: `${x(a)}%`, width: `${x(z) - x(a)}%` })
  const stop = step * MINUTE
  const snap = (at: number): Instant =>
    Math.min(Math.max(from + Math.round((at - from) / stop) * stop, from), to - stop) as Instant
  const here = cursor ?? snap(from + (to - from) / 2)

  const at = (clientX: number): Instant => {
    const box = field.current!.getBoundingClientRect()
    return snap(from + ((clientX - box.left) / box.width) * (to - from))
  }
  const move = (clientX: number): void => {
    const from = drewAt.current
    if (!from) onCursor(at(clientX))
    else if (drew.current || Math.abs(clientX - from.x) > SLACK) {
      drew.current = true
      const to = at(clientX)
      setDrawn({ from: Math.min(from.from, to) as Instant, to: (Math.max(from.from, to) + stop) as Instant })
    }
  }
  const endDrawing = (): void => {
    if (drew.current && drawn) onDraw(drawn.from, drawn.to)
    drewAt.current = undefined
    setDrawn(undefined)
  }
  // What meets lies beside one another, and the band grows for it.
  const lanes = Math.max(1, ...band.items.map(({ lane }) => lane?.lanes ?? 1))
  const [edge, tall, whole] = compact ? [3, 24, 34] : [4, 38, 58]
  const height = whole + (lanes - 1) * tall
  const place = ({ lane }: BandItem): CSSProperties => {
    const of = lane?.lanes ?? 1
    // What stands alone is as high as on any other day.
    const share = of === 1 ? tall : (lanes * tall) / of
    return { top: edge + (lane?.lane ?? 0) * share, height: share - (of > 1 ? 2 : 0) }
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
    <div className="relative" style={{ height }} data-lane={`${from} ${to}`}>
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
        onPointerDown={(event) => {
          if (event.button !== 0 || event.pointerType === 'touch') return
          drew.current = false
          drewAt.current = { x: event.clientX, from: at(event.clientX) }
          event.currentTarget.setPointerCapture(event.pointerId)
        }}
        onPointerUp={endDrawing}
        onPointerCancel={() => {
          drew.current = false
          endDrawing()
        }}
        onClick={(event) => {
          // What was drawn is no choice of a start.
          if (drew.current) {
            drew.current = false
            return
          }
          move(event.clientX)
          onChoose(at(event.clientX))
        }}
        onFocus={() => cursor ?? onCursor(here)}
        onKeyDown={(event) => {
          const by = KEYS[event.key]
          if (event.key === 'Enter') onChoose(here)
          else if (event.key === 'Escape') onCursor(undefined)
          else if (event.key === 'Home') onCursor(from)
          else if (event.key === 'End') onCursor(snap(to))
          else if (by !== undefined) onCursor(snap(here + by))
          else return
          event.preventDefault()
        }}
      >
        {band.open.map((open) => (
          <div
            key={open.from}
            className={`absolute inset-y-0 overflow-hidden bg-(--open) ${open.kept ? 'border-x-2 border-dotted border-tile' : ''}`}
            style={stretch(open.from, open.to)}
            title={open.kept}
          >
            {open.kept && !compact && (
              <span className="absolute right-1 bottom-0.5 left-1 truncate text-[11px] text-tile-ink">
                {open.kept}
              </span>
            )}
          </div>
        ))}
        {band.away.map((away) => (
          <div
            key={away.from}
            className="hatch absolute inset-y-0 truncate px-1.5 pt-0.5 text-[11px] text-soft"
            style={stretch(away.from, away.to)}
          >
            {away.note}
          </div>
        ))}
        {band.items.map((item) => (
          <div
            key={item.id}
            className={`absolute rounded-[7px] ${item.off ? '' : item.look === 'hold' ? 'bg-sun-soft/60' : 'bg-leaf-soft'}`}
            style={{
              ...place(item),
              ...stretch(item.start - item.clearBefore * MINUTE, item.end + item.clearAfter * MINUTE),
            }}
          />
        ))}
        {band.now > from && (
          <div className="absolute inset-y-0 bg-paper/60" style={stretch(from, band.now)} />
        )}
        {band.openings.map((start) => (
          <span
            key={start}
            className="dot absolute bottom-[3px] -ml-[3.4px] size-[6.8px] rounded-full bg-leaf"
            style={{ left: `${x(start)}%` }}
          />
        ))}
        {drawn && (
          <div
            className="absolute inset-y-0.5 rounded-md border-2 border-dashed border-soft bg-shade"
            style={stretch(drawn.from, drawn.to)}
          />
        )}
        {cursor !== undefined && !drawn && (
          <div
            className="absolute inset-y-0 border-l-2 border-dashed border-clay"
            style={{ left: `${x(cursor)}%` }}
          />
        )}
      </div>
      {drawn && (
        <DrawnTimes at={x(drawn.to)}>
          {timeAt(zone, drawn.from)} – {timeAt(zone, drawn.to)}
        </DrawnTimes>
      )}
      {band.items.map((item) => {
        const look =
          item.end <= band.now && item.look !== 'hold' && !item.off ? 'bg-shade text-ink' : lookOf(item)
        // A name that is cut is read by pointing at it, or going to it: the drawing gives way.
        const give = x(item.start) > 70 ? 'band-box band-box-back' : 'band-box'
        const box = `${give} absolute rounded-[7px] px-1.5 text-[12px] ${
          compact ? 'truncate leading-[24px] font-bold' : 'overflow-hidden py-[3px] leading-[1.25]'
        } ${look} ${item.clash ? 'ring-2 ring-clay' : ''}`
        const line = item.clash ? `clash · ${item.line}` : item.line
        const name = `${item.title} ${line} ${timeAt(zone, item.start)} to ${timeAt(zone, item.end)}`
        // Among many, each clipped box costs the browser some time with every frame: one has to do.
        const inside = compact ? (
          item.title
        ) : (
          <>
            <span className="block truncate font-bold">{item.title}</span>{' '}
            <span className="block truncate text-[11px]">{line}</span>
          </>
        )
        const style = { ...place(item), ...stretch(item.start, item.end) }
        if (item.booking !== undefined) {
          return (
            // biome-ignore lint/a11y/noStaticElementInteractions: the link inside leads to the same by keyboard
            <div
              key={item.id}
              className={`absolute ${item.moves ? 'touch-none' : ''}`}
              style={style}
              onDragStart={(event) => event.preventDefault()}
              onPointerDown={(event) => item.moves && onGrab(item, event)}
            >
              {link(item.booking, `${box} inset-0`, name, inside)}
            </div>
          )
        }
        return item.opens ? (
          <button
            key={item.id}
            type="button"
            aria-label={name}
            className={`${box} cursor-pointer text-left`}
            style={style}
            onClick={() => onOpen(item)}
          >
            {inside}
          </button>
        ) : (
          <div key={item.id} className={box} style={style}>
            <span aria-hidden="true">{inside}</span>
            <span className="sr-only">{name}</span>
          </div>
        )
      })}
      {band.now > from && band.now < to && (
        <div
          className="dot pointer-events-none absolute -inset-y-[3px] w-0.5 bg-clay"
          style={{ left: `${x(band.now)}%` }}
        />
      )}
    </div>
  )
})
