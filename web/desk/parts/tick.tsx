import { ProblemNote } from './act.tsx'
import { useToggle } from './use-toggle.ts'

/** Something of several that belongs to it or not. */
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
  const { shown, press, act } = useToggle(on, onChange)
  return (
    <>
      <label className="flex min-h-[32px] cursor-pointer items-center gap-3">
        <input
          type="checkbox"
          className="checkbox checkbox-primary checkbox-sm"
          checked={shown}
          disabled={on && last}
          onChange={(event) => press(event.target.checked)}
        />
        {label}
      </label>
      <ProblemNote of={act} className="" />
    </>
  )
}
