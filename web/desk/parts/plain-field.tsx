import type { Option } from '../settings/setting.ts'
import { Labelled } from './labelled.tsx'

/** One function for all, so that a field is focused once and not each time it is drawn. */
const focus = (field: HTMLElement | null): void => field?.focus()

/** A labelled field of a form that is sent as a whole. */
export function PlainField({
  label,
  value,
  onChange,
  type = 'text',
  inputMode,
  rows,
  longest = 5_000,
  required = false,
  focused = false,
}: {
  label: string
  value: string
  onChange: (value: string) => void
  type?: 'text' | 'email' | 'tel'
  /** What a small keyboard offers. */
  inputMode?: 'numeric'
  rows?: number
  /** What a field of several rows takes, in characters. */
  longest?: number
  required?: boolean
  /** Whether it has the focus as soon as it is there. */
  focused?: boolean
}) {
  const common = {
    className: 'field mt-1',
    value,
    onChange: (event: { target: { value: string } }) => onChange(event.target.value),
  }
  return (
    <Labelled
      label={label}
      field={(id) =>
        rows ? (
          <textarea
            id={id}
            dir="auto"
            rows={rows}
            maxLength={longest}
            data-first={focused || undefined}
            ref={focused ? focus : undefined}
            {...common}
          />
        ) : (
          <input
            id={id}
            type={type}
            inputMode={inputMode}
            required={required}
            data-first={focused || undefined}
            ref={focused ? focus : undefined}
            {...common}
          />
        )
      }
    />
  )
}

/** Things with names, as `PlainChoice` offers them. */
export const asOptions = (things: readonly { id: string; name: string }[]): Option[] =>
  things.map(({ id, name }) => ({ value: id, name }))

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
  return (
    <Labelled
      label={label}
      field={(id) => (
        <select
          id={id}
          className="field mt-1"
          value={value}
          onChange={(event) => onChange(event.target.value)}
        >
          {options.map(({ value, name }) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </select>
      )}
    />
  )
}
