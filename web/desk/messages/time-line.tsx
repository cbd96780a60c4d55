import type { Practice, Sequence, SequenceStep } from '@acolhida/core/practice'
import { withStep } from '@acolhida/core/practice'
import { duration, inOneUnit } from '@acolhida/core/time'
import { type KeyboardEvent, type PointerEvent, useRef } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { KNOTS, whenWords } from './step-words.ts'
import { stepTitle } from './titles.ts'

/** The distances that a mark can be dragged to, in hours from the session: usual ones, nearer together near it. */
const NEAR = [0, 1, 2, 4, 12, 24, 48, 72, 168, 336]
const AFTER = [0, 1, 2, 12, 24, 48, 72, 168, 336, 672, 1_344]

const HOURS = { minutes: 1 / 60, hours: 1, days: 24, weeks: 168, months: 720 } as const

/** How far a step lies from what it hangs on, in hours, on an ordinary day. */
function hoursOf({ by }: SequenceStep): number {
  const one = inOneUnit(by)
  return one ? one.amount * HOURS[one.unit] : 24
}

/** A distance as a duration: days and weeks keep the wall time. */
const byOf = (hours: number) =>
  duration(
    hours >= 168 && hours % 168 === 0 ? `P${hours / 168}W` : hours >= 24 ? `P${hours / 24}D` : `PT${hours}H`,
  )

/** Where something lies on the line, in per cent of its width: the session in the middle, the last hours widest. */
const MIDDLE = 56
const side = (hours: number, most: number, room: number): number =>
  (Math.log1p(hours) / Math.log1p(most)) * room
const beforeAt = (hours: number): number => MIDDLE - 3 - side(hours, 336, 30)
const afterAt = (hours: number): number => MIDDLE + 4 + side(hours, 1_344, 36)

/** Where what is no session hangs: what comes before it is booked on the left, then along the line. */
const KNOT_AT: Readonly<Record<Exclude<SequenceStep['anchor'], 'start' | 'end'>, number>> = {
  quoted: 2,
  asked: 5,
  offered: 8,
  declined: 11,
  booked: 15,
  moved: 18,
  payment: 21,
  preparation: 24,
  missed: MIDDLE + 2,
  cancelled: MIDDLE + 3,
}

const spotOf = (step: SequenceStep): number => {
  const hours = hoursOf(step)
  if (step.anchor === 'start') return step.before ? beforeAt(hours) : afterAt(hours)
  if (step.anchor === 'end') return step.before ? MIDDLE : afterAt(hours)
  return Math.min(98, KNOT_AT[step.anchor] + (hours > 0 ? (step.before ? -1 : 1) * side(hours, 336, 6) : 0))
}

/** Whether a step can be dragged along the line. */
const isMovable = ({ anchor, before }: SequenceStep): boolean =>
  (anchor === 'start' && before === true) || anchor === 'end'

const nearest = (list: readonly number[], at: number, spot: (hours: number) => number): number =>
  list.reduce((a, b) => (Math.abs(spot(b) - at) < Math.abs(spot(a) - at) ? b : a))

/**
 * A sequence as one line whose middle is the session. Marks before and after it are dragged, or moved by the arrow
 * keys; what always goes (the receipt, the confirmation) stands on it, too.
 */
export function TimeLine({
  practice,
  sequence,
  chosen,
  onChoose,
}: {
  practice: Practice
  sequence: Sequence
  chosen: string | undefined
  onChoose: (step: string) => void
}) {
  const line = useRef<HTMLDivElement>(null)
  const act = useAct()
  const moveTo = (step: SequenceStep, hours: number): void => {
    if (hours === hoursOf(step)) return
    act.run(() =>
      changePractice(db, 'when a message goes', (p) =>
        withStep(
          p,
          sequence.id,
          step.id,
          ({ at, ...one }) => ({
            ...one,
            by: byOf(hours),
            // A time of day belongs to what is days away.
            ...(at !== undefined && hours >= 24 ? { at } : {}),
          }),
          relayNow(),
        ),
      ),
    )
  }
  const placed = sequence.steps.map((step) => ({ step, at: spotOf(step) })).sort((a, b) => a.at - b.at)
  const rows = rowsFor(placed.map(({ at }) => at))
  const most = Math.max(0, ...rows)
  const height = 118 + most * 58
  return (
    <div className="overflow-x-auto">
      <div ref={line} className="relative min-w-[760px]" style={{ height }}>
        <div className="absolute inset-x-0 h-[3px] bg-line" style={{ top: height - 44 }} />
        <Always at={5} top={height - 44} name="Receipt" />
        <Always at={15} top={height - 44} name="Confirmation" />
        <div
          className="absolute -translate-x-1/2 rounded-lg bg-leaf px-3 py-1 text-[13px] font-semibold text-white"
          style={{ left: `${MIDDLE}%`, top: height - 58 }}
        >
          Session
        </div>
        <ol className="contents">
          {placed.map(({ step, at }, i) => (
            <Mark
              key={step.id}
              practice={practice}
              step={step}
              at={at}
              row={rows[i] ?? 0}
              ground={height - 44}
              isChosen={chosen === step.id}
              line={line}
              onChoose={() => onChoose(step.id)}
              onMove={(hours) => moveTo(step, hours)}
            />
          ))}
        </ol>
      </div>
      <ProblemNote of={act} />
    </div>
  )
}

/** What goes whatever the sequence says. */
const Always = ({ at, top, name }: { at: number; top: number; name: string }) => (
  <div className="absolute" style={{ left: `${at}%`, top }} title={`${name}: always goes`}>
    <span className="absolute -top-[4px] -left-[5px] size-[11px] rounded-full border-2 border-soft bg-card" />
    <span className="absolute top-[10px] -translate-x-1/2 text-[12px] whitespace-nowrap text-soft">
      {name}
    </span>
  </div>
)

/** How wide a label is, in per cent of the line. */
const WIDE = 15
/** From where on labels stand to the left of their mark, so that they stay on the line. */
const EDGE = 86

/** In which row each label stands, from the line up, so that none lies on another. */
function rowsFor(spots: readonly number[]): number[] {
  const ends: number[] = []
  return spots.map((at) => {
    const from = at > EDGE ? at - WIDE : at
    const row = ends.findIndex((end) => end <= from)
    const found = row < 0 ? ends.length : row
    ends[found] = from + WIDE
    return found
  })
}

function Mark({
  practice,
  step,
  at,
  row,
  ground,
  isChosen,
  line,
  onChoose,
  onMove,
}: {
  practice: Practice
  step: SequenceStep
  at: number
  row: number
  ground: number
  isChosen: boolean
  line: { current: HTMLDivElement | null }
  onChoose: () => void
  onMove: (hours: number) => void
}) {
  const movable = isMovable(step)
  const list = step.anchor === 'end' ? AFTER : NEAR
  const spot = step.anchor === 'end' ? afterAt : beforeAt
  const dragged = useRef(false)
  const onPointerDown = (event: PointerEvent<HTMLButtonElement>): void => {
    if (!movable || event.button !== 0) return
    event.currentTarget.setPointerCapture(event.pointerId)
    dragged.current = false
  }
  const onPointerMove = (event: PointerEvent<HTMLButtonElement>): void => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const box = line.current?.getBoundingClientRect()
    if (!box) return
    dragged.current = true
    event.currentTarget.parentElement!.style.left = `${((event.clientX - box.left) / box.width) * 100}%`
  }
  const onPointerUp = (event: PointerEvent<HTMLButtonElement>): void => {
    const box = line.current?.getBoundingClientRect()
    if (!dragged.current || !box) return
    event.currentTarget.parentElement!.style.left = `${at}%`
    onMove(nearest(list, ((event.clientX - box.left) / box.width) * 100, spot))
  }
  const onKeyDown = (event: KeyboardEvent): void => {
    const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
    if (!movable || way === undefined) return
    event.preventDefault()
    const outwards = step.anchor === 'end' ? way : -way
    const now = hoursOf(step)
    const next = outwards > 0 ? list.find((one) => one > now) : list.findLast((one) => one < now)
    if (next !== undefined) onMove(next)
  }
  const labelTop = ground - 62 - row * 58
  return (
    <li className="absolute" style={{ left: `${at}%`, top: labelTop }}>
      <span
        className={`absolute top-[40px] left-0 w-px ${step.channel === 'text' ? 'bg-tile' : 'bg-leaf'}`}
        style={{ height: ground - labelTop - 40 }}
        aria-hidden="true"
      />
      <button
        type="button"
        aria-pressed={isChosen}
        title={movable ? 'Drag it, or move it by the arrow keys' : undefined}
        className={`absolute z-10 w-[136px] rounded-lg border bg-card px-2 py-1 text-left text-[12.5px] leading-tight ${at > EDGE ? '-right-[6px]' : '-left-[6px]'} ${
          isChosen ? 'border-leaf ring-2 ring-leaf' : 'border-line hover:bg-shade'
        } ${step.draft ? 'border-dashed' : ''} ${movable ? 'cursor-grab touch-none' : ''}`}
        onClick={() => {
          if (!dragged.current) onChoose()
          dragged.current = false
        }}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onKeyDown={onKeyDown}
      >
        <b className="block truncate">{stepTitle(practice, `step:${step.id}`)}</b>
        <span className="block truncate text-soft">
          {step.channel === 'text' ? 'text' : 'mail'} · {shortWhen(step)}
        </span>
      </button>
    </li>
  )
}

/** When a step goes, as short as on the line. */
const shortWhen = (step: SequenceStep): string =>
  step.anchor === 'start' || step.anchor === 'end' ? whenWords(step) : KNOTS[step.anchor].toLowerCase()
