import { type RowsOf, useRows } from './use-rows.ts'
import { type Column, type Order, WindowTable } from './window-table.tsx'

const NONE: readonly string[] = []

/** A table of what a search and its filters have found, or what to say where that is nothing. */
export function FoundTable<R extends { id: string }>({
  label,
  columns,
  keys,
  rowsOf,
  order,
  onOrder,
  nothing,
}: {
  label: string
  columns: readonly Column<R>[]
  /** Nothing while it is looked for. */
  keys: readonly string[] | undefined
  rowsOf: RowsOf<R>
  order: Order
  onOrder: (order: Order) => void
  nothing: string
}) {
  const { rowOf, onSeen } = useRows(rowsOf, keys ?? NONE)
  if (!keys) return null
  if (keys.length === 0) return <p className="sheet p-5">{nothing}</p>
  return (
    <WindowTable
      label={label}
      columns={columns}
      keys={keys}
      rowOf={rowOf}
      onSeen={onSeen}
      order={order}
      onOrder={onOrder}
    />
  )
}
