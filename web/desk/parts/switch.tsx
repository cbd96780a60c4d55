import { ProblemNote } from './act.tsx'
import { useToggle } from './use-toggle.ts'

/** Something on or off. */
export function Switch({
  label,
  on,
  onChange,
}: {
  label: string
  on: boolean
  onChange: (on: boolean) => unknown
}) {
  const { shown, press, act } = useToggle(on, onChange)
  return (
    <>
      <label className="flex min-h-[40px] cursor-pointer items-center gap-3 font-semibold">
        <input
          type="checkbox"
          className="toggle toggle-primary"
          checked={shown}
          onChange={(event) => press(event.target.checked)}
        />
        {label}
      </label>
      <ProblemNote of={act} className="" />
    </>
  )
}
