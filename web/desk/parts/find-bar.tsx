import { type ReactNode, useEffect, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'

/** How long after the last key a search begins, in ms. */
const PAUSE = 150

/** What a list shows, as it stands in the address: it can be gone back to, and kept. */
export function useFilters<K extends string>(
  usual: Record<K, string>,
): {
  filters: Record<K, string>
  set: (changes: Partial<Record<K, string>>) => void
} {
  const [search, setSearch] = useSearchParams()
  const names = Object.keys(usual) as K[]
  const filters = Object.fromEntries(names.map((name) => [name, search.get(name) ?? usual[name]])) as Record<
    K,
    string
  >
  const set = (changes: Partial<Record<K, string>>): void =>
    setSearch(
      (before) => {
        for (const name of names) {
          const value = changes[name]
          if (value === undefined) continue
          if (value === usual[name]) before.delete(name)
          else before.set(name, value)
        }
        return before
      },
      { replace: true },
    )
  return { filters, set }
}

/** A field that looks for what is typed, a moment after the last key. */
export function SearchField({
  label,
  value,
  onSearch,
}: {
  label: string
  value: string
  onSearch: (text: string) => void
}) {
  const [typed, setTyped] = useState(value)
  // What the address says since: by what was typed here, or otherwise (the way back, the list from its beginning).
  const [seen, setSeen] = useState(value)
  const [sent, setSent] = useState(value)
  if (value !== seen) {
    setSeen(value)
    if (value !== sent) {
      setTyped(value)
      setSent(value)
    }
  }
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const newest = useRef(onSearch)
  newest.current = onSearch
  useEffect(() => () => clearTimeout(timer.current), [])
  return (
    <label>
      <span className="sr-only">Search by {label.toLowerCase()}</span>
      <input
        type="search"
        className="field w-64 max-w-full"
        placeholder={label}
        value={typed}
        onChange={(event) => {
          const text = event.target.value
          setTyped(text)
          clearTimeout(timer.current)
          timer.current = setTimeout(() => {
            setSent(text.trim())
            newest.current(text.trim())
          }, PAUSE)
        }}
      />
    </label>
  )
}

/** A choice of what is shown. */
export const FilterChoice = ({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: Readonly<Record<string, string>>
  onChange: (value: string) => void
}) => (
  <label>
    <span className="sr-only">{label}</span>
    <select className="field w-auto" value={value} onChange={(event) => onChange(event.target.value)}>
      {Object.entries(options).map(([key, name]) => (
        <option key={key} value={key}>
          {name}
        </option>
      ))}
    </select>
  </label>
)

/** What stands above a list: what it shows, and how many there are. */
export const FindBar = ({ children, count }: { children: ReactNode; count: string }) => (
  <div className="mt-5 mb-3 flex flex-wrap items-center gap-2.5">
    {children}
    <span role="status" className="ml-auto text-[14px] text-soft">
      {count}
    </span>
  </div>
)

/** One of the values a filter may have: what an address says that is none of them counts as the usual one. */
export const among = <T extends string>(options: Readonly<Record<T, unknown>>, value: string, usual: T): T =>
  Object.hasOwn(options, value) ? (value as T) : usual
