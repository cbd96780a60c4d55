import { type Instant, MINUTE } from '@acolhida/core/time'
import type { PointerEvent } from 'react'
import { SLACK } from '../../drawings/day-band.tsx'

/** A day band as it lies on the page, in pixels of the page. */
export interface Lane {
  from: number
  to: number
  left: number
  right: number
  top: number
  bottom: number
}

/**
 * The start that something dragged would have: on the nearest lane, snapped to its starts, whole on its day.
 * @param grabbed how far behind its start it was grabbed, in ms
 * @param length of what is dragged, in ms
 * @param step minutes between two starts
 */
export function startAt(
  lanes: readonly Lane[],
  point: { x: number; y: number },
  grabbed: number,
  length: number,
  step: number,
): Instant | undefined {
  let lane: Lane | undefined
  let away = Number.POSITIVE_INFINITY
  for (const reached of lanes) {
    const distance = point.y < reached.top ? reached.top - point.y : Math.max(0, point.y - reached.bottom)
    if (distance < away) {
      away = distance
      lane = reached
    }
  }
  if (!lane) return undefined
  const stop = step * MINUTE
  const under = lane.from + ((point.x - lane.left) / (lane.right - lane.left)) * (lane.to - lane.from)
  const start = lane.from + Math.round((under - grabbed - lane.from) / stop) * stop
  return Math.max(lane.from, Math.min(start, lane.to - Math.min(length, lane.to - lane.from))) as Instant
}

function lanesIn(root: HTMLElement): Lane[] {
  return [...root.querySelectorAll<HTMLElement>('[data-lane]')].map((element) => {
    const [from, to] = element.dataset.lane!.split(' ').map(Number) as [number, number]
    const box = element.getBoundingClientRect()
    return {
      from,
      to,
      left: box.left + scrollX,
      right: box.right + scrollX,
      top: box.top + scrollY,
      bottom: box.bottom + scrollY,
    }
  })
}

/** How near the edge of the window the page begins to scroll, and how far with each frame, in pixels. */
const EDGE = 48
const PACE = 14

/**
 * Drags something from day to day. While it is dragged only the transforms of its likeness and of a label change,
 * once a frame; nothing else of the page is laid out anew. The label says what would follow before anything is dropped.
 */
export function drag(
  event: PointerEvent<HTMLElement>,
  about: {
    root: HTMLElement
    label: HTMLElement
    start: Instant
    length: number
    step: number
    /** What would follow from a start, in words, and how it is to be taken. */
    consequences: (start: Instant) => { words: string; look: 'fits' | 'look' | 'closed' }
    onDrop: (start: Instant) => void
  },
): void {
  if (event.button !== 0) return
  const { root, label, length, step } = about
  const item = event.currentTarget
  const stop = new AbortController()
  const { signal } = stop
  const down = { x: event.pageX, y: event.pageY }
  const grip = { x: event.clientX, y: event.clientY }
  // What moves is a likeness in a layer of its own, so that the many bands under it stay as they are drawn.
  const ghost = item.cloneNode(true) as HTMLElement
  let point = grip
  let lanes: Lane[] | undefined
  let grabbed = 0
  let target: Instant | undefined
  let frame = 0

  const begin = (): Lane[] => {
    const found = lanesIn(root)
    const lane = found.find((lane) => down.y >= lane.top && down.y <= lane.bottom)
    if (lane) {
      const at = lane.from + ((down.x - lane.left) / (lane.right - lane.left)) * (lane.to - lane.from)
      grabbed = at - about.start
    }
    const box = item.getBoundingClientRect()
    ghost.inert = true
    ghost.className = 'drag-ghost'
    ghost.style.cssText = `left:${box.left}px;top:${box.top}px;width:${box.width}px;height:${box.height}px`
    document.body.append(ghost)
    item.style.opacity = '0.35'
    // The rest of the page hears nothing of the pointer, and has nothing to draw anew.
    item.setPointerCapture(event.pointerId)
    label.hidden = false
    return found
  }
  const draw = (): void => {
    frame = 0
    lanes ??= begin()
    if (point.y < EDGE) scrollBy(0, -PACE)
    else if (point.y > innerHeight - EDGE) scrollBy(0, PACE)
    const here = { x: point.x + scrollX, y: point.y + scrollY }
    ghost.style.transform = `translate(${point.x - grip.x}px, ${point.y - grip.y}px)`
    label.style.transform = `translate(${Math.min(point.x + 14, innerWidth - 350)}px, ${point.y + 18}px)`
    const next = startAt(lanes, here, grabbed, length, step)
    if (next !== target && next !== undefined) {
      target = next
      const { words, look } = about.consequences(next)
      label.textContent = words
      label.dataset.look = look
    }
    // At an edge the page goes on scrolling while the pointer rests there.
    if (point.y < EDGE || point.y > innerHeight - EDGE) frame = requestAnimationFrame(draw)
  }
  const end = (): void => {
    stop.abort()
    cancelAnimationFrame(frame)
    ghost.remove()
    item.style.opacity = ''
    label.hidden = true
  }
  const moved = (): boolean => lanes !== undefined

  window.addEventListener(
    'pointermove',
    (move) => {
      point = { x: move.clientX, y: move.clientY }
      const far = Math.hypot(move.pageX - down.x, move.pageY - down.y) >= SLACK
      if ((far || moved()) && frame === 0) frame = requestAnimationFrame(draw)
    },
    { signal },
  )
  window.addEventListener(
    'pointerup',
    () => {
      const dropped = moved() ? target : undefined
      if (moved()) {
        // A drag is no click: the one that follows is swallowed, if there is one.
        const swallow = (click: MouseEvent): void => {
          click.preventDefault()
          click.stopPropagation()
        }
        window.addEventListener('click', swallow, { capture: true, once: true })
        setTimeout(() => window.removeEventListener('click', swallow, { capture: true }), 0)
      }
      end()
      if (dropped !== undefined && dropped !== about.start) about.onDrop(dropped)
    },
    { signal },
  )
  window.addEventListener('pointercancel', end, { signal })
  window.addEventListener('keydown', (key) => key.key === 'Escape' && end(), { signal })
}
