import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { ArrowDown, ArrowUp } from 'lucide-react'
import { Fragment, type ReactNode, useLayoutEffect, useRef, useState } from 'react'

/** A column of a table. */
export interface Column<R> {
  id: string
  name: string
  /** Tailwind classes of its width. */
  width?: string
  /** Shown only where there is room. */
  wide?: boolean
  /** Whether the table can be put in its order. */
  sorts?: boolean
  cell: (row: R) => ReactNode
}

export interface Order {
  by: string
  down: boolean
}

const ROW = 52
/** Rows drawn beyond what is seen, on either side. */
const BEYOND = 8

/**
 * A table of which only what is seen is drawn. Rows are known by their keys; what stands in one is asked for when it
 * comes into sight.
 */
export function WindowTable<R>({
  label,
  columns,
  keys,
  rowOf,
  headingOf,
  onSeen,
  order,
  onOrder,
}: {
  label: string
  columns: readonly Column<R>[]
  keys: readonly string[]
  /** Nothing while it loads. */
  rowOf: (key: string) => R | undefined
  /** A line across the table instead of a row. */
  headingOf?: (key: string) => ReactNode | undefined
  /** Which keys are in sight, so that their rows can be asked for. */
  onSeen?: (first: number, end: number) => void
  order?: Order
  onOrder?: (order: Order) => void
}) {
  const ref = useRef<HTMLTableElement>(null)
  const [top, setTop] = useState(0)
  useLayoutEffect(() => setTop(ref.current?.offsetTop ?? 0), [])
  const list = useWindowVirtualizer({
    count: keys.length,
    estimateSize: () => ROW,
    overscan: BEYOND,
    scrollMargin: top,
    getItemKey: (i) => keys[i] ?? i,
  })
  const seen = list.getVirtualItems()
  const first = seen[0]?.index ?? 0
  const end = (seen.at(-1)?.index ?? -1) + 1
  useLayoutEffect(() => onSeen?.(first, end), [onSeen, first, end])
  const before = (seen[0]?.start ?? top) - top
  const after = list.getTotalSize() - ((seen.at(-1)?.end ?? top) - top)
  return (
    <table
      ref={ref}
      aria-label={label}
      aria-rowcount={keys.length + 1}
      className="sheet w-full table-fixed border-separate border-spacing-0"
    >
      <thead>
        <tr aria-rowindex={1} className="text-left text-[14px] text-soft">
          {columns.map((column) => (
            <Head key={column.id} column={column} order={order} onOrder={onOrder} />
          ))}
        </tr>
      </thead>
      <tbody>
        <Gap height={before} columns={columns.length} />
        {seen.map(({ index, key }) => {
          const of = keys[index]!
          const heading = headingOf?.(of)
          const row = heading === undefined ? rowOf(of) : undefined
          return (
            <tr key={key} ref={list.measureElement} data-index={index} aria-rowindex={index + 2}>
              {heading !== undefined ? (
                <th scope="colgroup" colSpan={columns.length} className="px-3 pt-5 pb-1.5 text-left">
                  {heading}
                </th>
              ) : (
                columns.map((column) => (
                  <td
                    key={column.id}
                    className={`h-[52px] border-t border-line px-2 py-1.5 first:pl-3 md:px-3 wrap-anywhere ${column.wide ? 'hidden md:table-cell' : ''}`}
                  >
                    {row !== undefined && column.cell(row)}
                  </td>
                ))
              )}
            </tr>
          )
        })}
        <Gap height={after} columns={columns.length} />
      </tbody>
    </table>
  )
}

function Head<R>({
  column: { id, name, width = '', wide, sorts },
  order,
  onOrder,
}: {
  column: Column<R>
  order: Order | undefined
  onOrder: ((order: Order) => void) | undefined
}) {
  const own = order?.by === id ? order : undefined
  const Arrow = own?.down ? ArrowDown : ArrowUp
  return (
    <th
      scope="col"
      aria-sort={own ? (own.down ? 'descending' : 'ascending') : undefined}
      className={`px-2 py-2.5 font-semibold first:pl-3 md:px-3 ${width} ${wide ? 'hidden md:table-cell' : ''}`}
    >
      {sorts && onOrder ? (
        <button
          type="button"
          className="flex min-h-[24px] items-center gap-1 underline-offset-3 hover:underline"
          onClick={() => onOrder({ by: id, down: own ? !own.down : false })}
        >
          {name}
          {own && <Arrow size={14} aria-hidden="true" />}
        </button>
      ) : (
        name
      )}
    </th>
  )
}

/** The room of the rows that are not drawn. */
const Gap = ({ height, columns }: { height: number; columns: number }) =>
  height > 0 ? (
    <tr>
      <td colSpan={columns} style={{ height: `${height}px` }} />
    </tr>
  ) : (
    <Fragment />
  )
