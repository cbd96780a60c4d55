import { useEffect, useState } from 'react'
import { ProblemNote, useAct } from './act.tsx'

/** Something on or off. It moves at once; what is kept follows, and counts. */
export function Switch({
  label,
  on,
  onChange,
}: {
  label: string
  on: boolean
  onChange: (on: boolean) => unknown
}) {
  const [shown, setShown] = useState(on)
  const act = useAct()
  useEffect(() => setShown(on), [on])
  return (
    <>
      <label className="flex min-h-[40px] cursor-pointer items-center gap-3 font-semibold">
        <input
          type="checkbox"
          className="toggle toggle-primary"
          checked={shown}
          onChange={(event) => {
            const next = event.target.checked
            setShown(next)
            act.run(async () => {
              try {
                await onChange(next)
              } catch (error) {
                setShown(on)
                throw error
              }
            })
          }}
        />
        {label}
      </label>
      <ProblemNote of={act} className="" />
    </>
  )
}
