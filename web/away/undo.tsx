import type { Instant } from '@acolhida/core/time'
import { useAt } from '../relay-client/clock.ts'

/** Takes the decision back, while it can be. */
export function Undo({
  undo,
  busy,
  onUndo,
}: {
  undo: { of: number; until: Instant } | undefined
  busy: boolean
  onUndo: (of: number) => void
}) {
  const left = useAt((now) => (undo ? Math.ceil((undo.until - now) / 1_000) : 0))
  if (!undo || left <= 0) return null
  return (
    <button type="button" className="press" disabled={busy} onClick={() => onUndo(undo.of)}>
      Undo<span aria-hidden="true"> ({left} s)</span>
    </button>
  )
}
