import type { Block } from '@acolhida/core/practice'
import { minutesOf, wallTime } from '@acolhida/core/time'
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import { DrawnTimes } from './drawn-times.tsx'

const FROM = 0
const TO = 24 * 60
/** Where the band is marked, in minutes of the day. */
const MARKS = [3, 6, 9, 12, 15, 18, 21].map((hour) => hour * 60)
const STEP = 15

interface Stretch {
  from: number
  to: number
}

type Grip = 'from' | 'to' | 'whole'

const snap = (minutes: number): number => Math.round(minutes / STEP) * STEP
const within = (minutes: number): number => Math.min(Math.max(minutes, 0), 1440)

/** What a stretch becomes when one of its grips is moved by a number of minutes. */
export function movedBlock(stretch: Stretch, grip: Grip, by: number): Stretch {
  if (grip === 'whole') {
    const shift = Math.min(Math.max(by, -stretch.from), 1440 - stretch.to)
    return { from: stretch.from + shift, to: stretch.to + shift }
  }
  if (grip === 'from') return { ...stretch, from: Math.min(within(stretch.from + by), stretch.to - STEP) }
  return { ...stretch, to: Math.max(within(stretch.to + by), stretch.from + STEP) }
}

/**
 * A day of hours as a band that can be drawn on: drag on free ground for a new block, drag a block to move it,
 * its ends to stretch it. With the keyboard: arrows move, with Shift they stretch the end, Delete removes.
 * Usual hours can lie under it as a ghost outline.
 */
export function HoursBand({
  name,
  blocks,
  ghost = [],
  ghostCounts = false,
  said = { draw: (band) => `${band}, to draw on`, stretch: (band, from, to) => `${band}, ${from} to ${to}` },
  onChange,
}: {
  name: string
  blocks: readonly Block[]
  ghost?: readonly Block[]
  /** What lies under it holds as well as what is drawn. */
  ghostCounts?: boolean
  /** How it is read out. */
  said?: {
    draw(band: string): string
    stretch(band: string, from: string, to: string): string
  }
  onChange: (blocks: Block[]) => void
}) {
  const field = useRef<HTMLFieldSetElement>(null)
  const [drag, setDrag] = useState<{
    at: number
    grip: Grip | 'new'
    origin: number
    start: Stretch
    now: Stretch
  }>()
  const stretches = blocks.map((block): Stretch => ({ from: minutesOf(block.from), to: minutesOf(block.to) }))
  const x = (minutes: number): number => ((Math.min(Math.max(minutes, FROM), TO) - FROM) / (TO - FROM)) * 100
  const minutesAt = (clientX: number): number => {
    const box = field.current!.getBoundingClientRect()
    return FROM + ((clientX - box.left) / box.width) * (TO - FROM)
  }
  const commit = (at: number, next: Stretch | undefined): void => {
    const changed = blocks.map((block, i) =>
      i === at && next ? { ...block, from: wallTime(next.from), to: wallTime(next.to) } : block,
    )
    if (at >= blocks.length && next) changed.push({ from: wallTime(next.from), to: wallTime(next.to) })
    const kept = next ? changed : changed.filter((_, i) => i !== at)
    onChange(kept.sort((a, b) => minutesOf(a.from) - minutesOf(b.from)))
  }
  const press = (event: PointerEvent, at: number, grip: Grip | 'new'): void => {
    if (event.button !== 0) return
    event.stopPropagation()
    field.current?.setPointerCapture(event.pointerId)
    const origin = minutesAt(event.clientX)
    const start = stretches[at] ?? { from: snap(origin), to: snap(origin) }
    setDrag({ at, grip, origin, start, now: start })
  }
  const move = (event: PointerEvent): void => {
    if (!drag) return
    const by = snap(minutesAt(event.clientX) - drag.origin)
    const { start, grip } = drag
    // New ground is drawn in either direction from where it was begun.
    const drawn = { from: within(start.from + Math.min(by, 0)), to: within(start.to + Math.max(by, 0)) }
    setDrag({ ...drag, now: grip === 'new' ? drawn : movedBlock(start, grip, by) })
  }
  const drop = (): void => {
    if (!drag) return
    setDrag(undefined)
    const same = drag.now.from === drag.start.from && drag.now.to === drag.start.to
    if (drag.grip === 'new' ? drag.now.to - drag.now.from >= 2 * STEP : !same) commit(drag.at, drag.now)
  }
  const keys = (event: KeyboardEvent, at: number): void => {
    const by = event.key === 'ArrowRight' ? STEP : event.key === 'ArrowLeft' ? -STEP : 0
    if (event.key === 'Delete' || event.key === 'Backspace') commit(at, undefined)
    else if (by !== 0) commit(at, movedBlock(stretches[at]!, event.shiftKey ? 'to' : 'whole', by))
    else return
    event.preventDefault()
  }
  const shown = drag
    ? [
        ...stretches.map((stretch, i) => (i === drag.at ? drag.now : stretch)),
        ...(drag.grip === 'new' ? [drag.now] : []),
      ]
    : stretches
  return (
    <div className="relative">
      <fieldset
        ref={field}
        className="hatch relative h-7 touch-none overflow-hidden rounded-lg"
        onPointerDown={(event) => press(event, blocks.length, 'new')}
        onPointerMove={move}
        onPointerUp={drop}
        onPointerCancel={() => setDrag(undefined)}
      >
        <legend className="sr-only">{said.draw(name)}</legend>
        {MARKS.map((minutes) => (
          <span
            key={minutes}
            aria-hidden="true"
            className="absolute inset-y-0 border-l border-line"
            style={{ left: `${x(minutes)}%` }}
          />
        ))}
        {ghost.map((block) => (
          <span
            key={block.from}
            aria-hidden="true"
            className={`absolute inset-y-0.5 rounded-md border border-dashed border-soft ${ghostCounts ? 'bg-leaf-soft' : ''}`}
            style={{
              left: `${x(minutesOf(block.from))}%`,
              width: `${x(minutesOf(block.to)) - x(minutesOf(block.from))}%`,
            }}
          />
        ))}
        {shown.map((stretch, i) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: a block keeps its place while it is dragged
            key={i}
            className="absolute inset-y-0.5"
            style={{
              left: `${x(stretch.from)}%`,
              width: `${Math.max(0.5, x(stretch.to) - x(stretch.from))}%`,
            }}
          >
            <button
              type="button"
              className={`figures absolute inset-0 cursor-grab overflow-hidden rounded-md text-[11px] ${blocks[i]?.reservedFor ? 'bg-tile text-secondary-content' : 'bg-leaf text-primary-content'} ${drag?.at === i ? 'cursor-grabbing ring-2 ring-sun' : ''}`}
              aria-label={`${said.stretch(name, wallTime(stretch.from), wallTime(stretch.to))}${blocks[i]?.reservedFor ? ', kept for somebody' : ''}`}
              onPointerDown={(event) => press(event, i, 'whole')}
              onKeyDown={(event) => keys(event, i)}
            >
              {blocks[i]?.reservedFor ? 'kept' : ''}
            </button>
            <span
              className="absolute inset-y-0 left-0 w-2 cursor-ew-resize"
              onPointerDown={(event) => press(event, i, 'from')}
            />
            <span
              className="absolute inset-y-0 right-0 w-2 cursor-ew-resize"
              onPointerDown={(event) => press(event, i, 'to')}
            />
          </span>
        ))}
      </fieldset>
      {drag && (
        <DrawnTimes at={x(drag.now.to)}>{`${wallTime(drag.now.from)} – ${wallTime(drag.now.to)}`}</DrawnTimes>
      )}
    </div>
  )
}
