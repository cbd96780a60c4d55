import { useEffect, useState } from 'react'

/** Something on or off. It moves at once; what is kept follows, and counts. */
export function Switch({
  label,
  on,
  onChange,
}: {
  label: string
  on: boolean
  onChange: (on: boolean) => Promise<unknown>
}) {
  const [shown, setShown] = useState(on)
  useEffect(() => setShown(on), [on])
  return (
    <label className="flex min-h-[40px] cursor-pointer items-center gap-3 font-semibold">
      <input
        type="checkbox"
        className="toggle toggle-primary"
        checked={shown}
        onChange={(event) => {
          const next = event.target.checked
          setShown(next)
          onChange(next).catch(() => setShown(on))
        }}
      />
      {label}
    </label>
  )
}
