import { Card } from '../request/card.tsx'
import { many as counted } from './found.tsx'

/** What each column of a table is: guessed by its heading, and chosen otherwise. */
export function ColumnsMatched<C extends string>({
  headings,
  some,
  many,
  columns,
  names,
  onChange,
}: {
  headings: readonly string[]
  /** Some of its lines. */
  some: readonly (readonly string[])[]
  many: number
  columns: readonly (C | undefined)[]
  /** What a column can be, and how that is called. */
  names: Readonly<Record<C, string>>
  onChange: (columns: (C | undefined)[]) => void
}) {
  const all = Object.keys(names) as C[]
  return (
    <Card title="What its columns are" aside={`${counted(many)} lines`}>
      <ul className="mt-2 grid gap-x-5 gap-y-2 sm:grid-cols-2">
        {headings.map((heading, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns have no names of their own
          <li key={at} className="min-w-0">
            <label className="ask">
              {heading || `Column ${at + 1}`}
              <select
                className="field mt-1"
                value={columns[at] ?? ''}
                onChange={({ target }) =>
                  onChange(
                    columns.map((one, i) => (i === at ? all.find((column) => column === target.value) : one)),
                  )
                }
              >
                <option value="">left out</option>
                {all.map((column) => (
                  <option key={column} value={column}>
                    {names[column]}
                  </option>
                ))}
              </select>
            </label>
            <span className="block truncate text-[13px] text-soft">
              {some
                .map((row) => row[at])
                .filter(Boolean)
                .join(' · ') || 'empty'}
            </span>
          </li>
        ))}
      </ul>
    </Card>
  )
}
