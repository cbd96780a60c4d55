import { useId } from 'react'

/** A labelled field of a form that is sent as a whole. */
export function PlainField({
  label,
  value,
  onChange,
  type = 'text',
  rows,
}: {
  label: string
  value: string
  onChange: (value: string) => void
  type?: 'text' | 'email'
  rows?: number
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
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </div>
  )
}
