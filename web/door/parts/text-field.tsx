import { useId } from 'react'
import { say } from './say.ts'

/** One labelled line to fill in, with what is wrong with it. */
export function TextField<F extends string>({
  field,
  label,
  optional = false,
  type = 'text',
  autoComplete,
  value,
  problem,
  onChange,
}: {
  field: F
  label: string
  optional?: boolean
  type?: string
  autoComplete: string
  value: string
  problem: string | undefined
  onChange: (field: F, value: string) => void
}) {
  const id = useId()
  return (
    <div>
      <label className="ask" htmlFor={`field-${field}`}>
        {label}
        {optional && (
          <>
            {' '}
            <span className="ml-1 text-[13px] font-normal text-soft">{say('optional')}</span>
          </>
        )}
      </label>
      <input
        id={`field-${field}`}
        className="field mt-1"
        type={type}
        autoComplete={autoComplete}
        value={value}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(event) => onChange(field, event.target.value)}
      />
      {problem && (
        <p id={`${id}-problem`} className="mt-1 text-[14px] font-semibold text-clay">
          {problem}
        </p>
      )}
    </div>
  )
}
