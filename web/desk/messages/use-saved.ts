import { useEffect, useRef, useState } from 'react'
import { problemWords } from '../parts/problem-words.ts'

/** How long after the last key what is typed is kept, in ms. */
const PAUSE = 500

/**
 * Keeps what is typed as it is typed, where the field is no plain one: the last is kept when one goes, too.
 * @returns what is wrong with it, where it can't be kept as it stands
 */
export function useSaved(save: (text: string) => Promise<unknown>) {
  const [problem, setProblem] = useState<string>()
  const pending = useRef<string>(undefined)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const how = useRef(save)
  how.current = save
  const keep = async (): Promise<void> => {
    clearTimeout(timer.current)
    const text = pending.current
    if (text === undefined) return
    try {
      await how.current(text)
      if (pending.current === text) pending.current = undefined
      setProblem(undefined)
    } catch (error) {
      setProblem(problemWords(error))
    }
  }
  const keepRef = useRef(keep)
  keepRef.current = keep
  useEffect(() => () => void keepRef.current(), [])
  const type = (text: string): void => {
    pending.current = text
    clearTimeout(timer.current)
    timer.current = setTimeout(() => void keepRef.current(), PAUSE)
  }
  return { type, problem }
}
