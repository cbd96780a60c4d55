import { type Instant, MINUTE, timeAt, type Zone } from '@acolhida/core/time'
import { type CSSProperties, type PointerEvent, type ReactNode, useRef } from 'react'

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
  /** It meets another session. */
  clash?: boolean
  /** Whether it can be dragged to another start. */
  moves?: boolean
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
  onChoose,
  onDrag,
  describe,
  link,
}: {
  band: Band
  /** The start under the cursor, if it is on this band. */
  cursor: Instant | undefined
  /** Minutes between two starts the cursor stops at. */
  step: number
  onCursor: (at: Instant | undefined) => void
  /** The start under the cursor was chosen, by a click or Enter. */
  onChoose: (at: Instant) => void
  /** An item was dragged to another start. */
  onDrag: (item: BandItem, to: Instant) => void
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

  const at = (clientX: number): Instant => {
    const box = field.current!.getBoundingClientRect()
    return snap(from + ((clientX - box.left) / box.width) * (to - from))
  }
  const move = (clientX: number): void => onCursor(at(clientX))
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
        onClick={(event) => {
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
        const box = `absolute overflow-hidden rounded-[7px] px-1.5 py-[3px] text-[12px] leading-[1.25] ${look} ${item.clash ? 'ring-2 ring-clay' : ''}`
        const inside = (
          <>
            <span className="block truncate font-bold">{item.title}</span>{' '}
            <span className="block truncate text-[11px]">
              {item.clash ? `clash · ${item.line}` : item.line}
            </span>{' '}
            <span className="sr-only">
              {timeAt(zone, item.start)} to {timeAt(zone, item.end)}
            </span>
          </>
        )
        return item.href ? (
          <Draggable
            key={item.id}
            moves={item.moves ?? false}
            box={stretch(item.start, item.end)}
            onDrop={(by) =>
              onDrag(item, snap(item.start + (by / (field.current?.clientWidth ?? 1)) * (to - from)))
            }
          >
            {link(item.href, `${box} inset-0`, {}, inside)}
          </Draggable>
        ) : (
          <div key={item.id} className={`${box} top-1 h-[38px]`} style={stretch(item.start, item.end)}>
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

/** How far the pointer must go before a press becomes a drag, in pixels. */
const SLACK = 6

/**
 * Something on a band that can be dragged along it. While it is dragged only its own transform changes, so that
 * nothing else is laid out or drawn anew; the keyboard has the same through its page.
 */
function Draggable({
  children,
  moves,
  box,
  onDrop,
}: {
  children: ReactNode
  moves: boolean
  box: CSSProperties
  onDrop: (pixels: number) => void
}) {
  const own = useRef<HTMLDivElement>(null)
  const by = useRef(0)
  if (!moves) {
    return (
      <div className="absolute top-1 h-[38px]" style={box}>
        {children}
      </div>
    )
  }
  const press = (down: PointerEvent): void => {
    if (down.button !== 0) return
    by.current = 0
    // The window listens, so that a quick pointer may leave the narrow thing it drags.
    const stop = new AbortController()
    const { signal } = stop
    const end = (): void => {
      stop.abort()
      if (own.current) own.current.style.transform = ''
    }
    window.addEventListener(
      'pointermove',
      (event) => {
        by.current = event.clientX - down.clientX
        if (Math.abs(by.current) >= SLACK && own.current)
          own.current.style.transform = `translateX(${by.current}px)`
      },
      { signal },
    )
    window.addEventListener(
      'pointerup',
      () => {
        end()
        if (Math.abs(by.current) >= SLACK) onDrop(by.current)
      },
      { signal },
    )
    window.addEventListener('pointercancel', end, { signal })
  }
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the link inside leads to the same by keyboard
    <div
      ref={own}
      className="absolute top-1 h-[38px] touch-none"
      style={box}
      onDragStart={(event) => event.preventDefault()}
      onPointerDown={press}
      onClickCapture={(event) => {
        // A drag is no click.
        if (Math.abs(by.current) >= SLACK) {
          event.preventDefault()
          event.stopPropagation()
        }
      }}
    >
      {children}
    </div>
  )
}
