import { type ReactNode, useId } from 'react'

/** A field below its label. @param field draws it, with the id that the label is for */
export function Labelled({ label, field }: { label: ReactNode; field: (id: string) => ReactNode }) {
  const id = useId()
  return (
    <div>
      <label className="ask" htmlFor={id}>
        {label}
      </label>
      {field(id)}
    </div>
  )
}
