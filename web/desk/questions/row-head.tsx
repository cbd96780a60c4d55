import { GripVertical } from 'lucide-react'
import type { ReactNode } from 'react'
import type { useSortableRow } from '../parts/sortable-list.tsx'

/** The head of a row that is dragged by its handle and opened by a press. */
export function RowHead({
  what,
  number,
  handle,
  open,
  onOpen,
  acts,
  children,
}: {
  /** "question" or "rule". */
  what: string
  number: number
  handle: ReturnType<typeof useSortableRow>['handle']
  open: boolean
  onOpen: (open: boolean) => void
  /** What can be done with it, while it is open. */
  acts: ReactNode
  children: ReactNode
}) {
  return (
    <div className="flex items-start gap-1.5">
      <button
        type="button"
        className="press press-quiet shrink-0 cursor-grab touch-none px-1"
        aria-label={`Drag ${what} ${number}`}
        {...handle}
      >
        <GripVertical size={17} aria-hidden="true" />
      </button>
      <button
        type="button"
        className="min-w-0 grow cursor-pointer py-1 text-left"
        aria-expanded={open}
        onClick={() => onOpen(!open)}
      >
        {children}
      </button>
      {open && acts}
    </div>
  )
}
