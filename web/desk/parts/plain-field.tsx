import { useId } from 'react'
import type { Option } from '../settings/setting.ts'

/** One function for all, so that a field is focused once and not each time it is drawn. */
const focus = (field: HTMLInputElement | null): void => field?.focus()

/** A labelled field of a form that is sent as a whole. */
export function PlainField({
  label,
  value,
  onChange,
  type = 'text',
  rows,
  required = false,
  focused = false,
}: {
  label: string
  value: string
  onChange: (value: string) => void
  type?: 'text' | 'email'
  rows?: number
  required?: boolean
  /** Whether it has the focus as soon as it is there. */
  focused?: boolean
}) {
  const id = useId()
  return (
    <div>
      <label className="ask" htmlFor={id}>
        {label}
      </label>
      {rows ? (
        <textarea
          id={id}
          className="field mt-1"
          dir="auto"
          rows={rows}
          maxLength={5_000}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      ) : (
        <input
          id={id}
          className="field mt-1"
          type={type}
          required={required}
          ref={focused ? focus : undefined}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </div>
  )
}

/** One of several, in a form that is sent as a whole. */
export function PlainChoice({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly Option[]
  onChange: (value: string) => void
}) {
  const id = useId()
  return (
    <div>
      <label className="ask" htmlFor={id}>
        {label}
      </label>
      <select id={id} className="field mt-1" value={value} onChange={(event) => onChange(event.target.value)}>
        {options.map(({ value, name }) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </div>
  )
}
