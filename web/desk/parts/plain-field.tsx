import type { Option } from '../settings/setting.ts'
import { Labelled } from './labelled.tsx'

/** One function for all, so that a field is focused once and not each time it is drawn. */
const focus = (field: HTMLInputElement | null): void => field?.focus()

/** A labelled field of a form that is sent as a whole. */
export function PlainField({
  label,
  value,
  onChange,
  type = 'text',
  inputMode,
  rows,
  required = false,
  focused = false,
}: {
  label: string
  value: string
  onChange: (value: string) => void
  type?: 'text' | 'email'
  /** What a small keyboard offers. */
  inputMode?: 'numeric'
  rows?: number
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
          <textarea id={id} dir="auto" rows={rows} maxLength={5_000} {...common} />
        ) : (
          <input
            id={id}
            type={type}
            inputMode={inputMode}
            required={required}
            ref={focused ? focus : undefined}
            {...common}
          />
        )
      }
    />
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
