import { useEffect, useState } from 'react'
import { type Acting, useAct } from './act.tsx'

/**
 * Something on or off that moves at once; what is kept follows, and counts. Where that fails, it goes back, and says
 * so.
 */
export function useToggle(
  on: boolean,
  onChange: (on: boolean) => unknown,
): { shown: boolean; press: (next: boolean) => void; act: Acting } {
  const [shown, setShown] = useState(on)
  const act = useAct()
  useEffect(() => setShown(on), [on])
  const press = (next: boolean): void => {
    setShown(next)
    act.run(async () => {
      try {
        await onChange(next)
      } catch (error) {
        setShown(on)
        throw error
      }
    })
  }
  return { shown, press, act }
}
