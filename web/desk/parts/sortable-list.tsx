import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import type { ReactNode } from 'react'
import { ProblemNote, useAct } from './act.tsx'

/** A list whose rows can be put in another order: by dragging, or by Space and the arrow keys on a handle. */
export function SortableList({
  items,
  onMove,
  children,
}: {
  items: readonly { id: string; name: string }[]
  onMove: (from: number, to: number) => unknown
  children: ReactNode
}) {
  const act = useAct()
  const ids = items.map((item) => item.id)
  const at = (id: string | number | undefined): number => ids.indexOf(String(id))
  const said = (id: string | number, over: string | number | undefined, words: string): string =>
    `${items[at(id)]?.name ?? ''} ${words} place ${at(over ?? id) + 1} of ${ids.length}.`
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{
        screenReaderInstructions: {
          draggable: 'Space picks it up, the arrow keys move it, Space puts it down, Escape leaves it.',
        },
        announcements: {
          onDragStart: ({ active }) => said(active.id, undefined, 'is picked up from'),
          onDragOver: ({ active, over }) => said(active.id, over?.id, 'would come to'),
          onDragEnd: ({ active, over }) => said(active.id, over?.id, 'is put down at'),
          onDragCancel: ({ active }) => said(active.id, undefined, 'stays at'),
        },
      }}
      onDragEnd={({ active, over }) => {
        if (!over || active.id === over.id) return
        act.run(() => onMove(at(active.id), at(over.id)))
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ul className="grid max-w-[900px] gap-3">{children}</ul>
      </SortableContext>
      <ProblemNote of={act} />
    </DndContext>
  )
}

/** What a row of a sortable list, and the handle in it, must carry. */
export function useSortableRow(id: string) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id })
  return {
    box: {
      ref: setNodeRef,
      style: { transform: CSS.Translate.toString(transform), transition },
      className: isDragging ? 'relative z-10 opacity-90' : '',
    },
    handle: { ...attributes, ...listeners },
  }
}
