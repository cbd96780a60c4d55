import type { Desk } from '../data/live.ts'
import { PlainField } from './plain-field.tsx'

/** A field for a price code, where any can be used. */
export function CodeField({
  desk,
  value,
  problem,
  onChange,
}: {
  desk: Desk
  value: string
  /** Why it can't be used. */
  problem: string | undefined
  onChange: (value: string) => void
}) {
  if ((desk.practice.codes ?? []).every(({ idle }) => idle)) return null
  return (
    <div>
      <PlainField label="Code" value={value} onChange={onChange} />
      {problem !== undefined && (
        <p role="alert" className="mt-1 text-[14px] font-semibold text-clay">
          {problem}
        </p>
      )}
    </div>
  )
}
