import { useEffect, useState } from 'react'
import { ProblemNote, useAct } from './act.tsx'

/** Something of several that belongs to it or not. It shows at once; what is kept follows, and counts. */
export function Tick({
  label,
  on,
  last = false,
  onChange,
}: {
  label: string
  on: boolean
  /** The last one left can not be taken away. */
  last?: boolean
  onChange: (on: boolean) => unknown
}) {
  const [shown, setShown] = useState(on)
  const act = useAct()
  useEffect(() => setShown(on), [on])
  return (
    <>
      <label className="flex min-h-[32px] cursor-pointer items-center gap-3">
        <input
          type="checkbox"
          className="checkbox checkbox-primary checkbox-sm"
          checked={shown}
          disabled={on && last}
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
