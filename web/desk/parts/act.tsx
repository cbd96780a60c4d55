import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react'
import { WouldHurt } from '../data/would-hurt.ts'
import { HurtDialog } from './hurt-dialog.tsx'
import { problemWords } from './problem-words.ts'

/** A change that waits for a yes or a no. */
export interface Asks {
  hurt: WouldHurt['hurt']
  yes(): void
  no(): void
}

/** Something being done at the desk, and what went wrong with it. */
export interface Acting {
  busy: boolean
  problem: string | undefined
  /** What would be taken from what is booked: asked about before it is done, with `ProblemNote`. */
  asks?: Asks | undefined
  /**
   * Does it; when it fails, `problem` says why, to be shown beside what was touched with `Problem`.
   * @param then what follows when it is done: closing a dialog, for one
   */
  run(work: () => unknown, then?: () => void): void
}

/** The one way to act at the desk: nothing that is written can fail unseen. */
export function useAct(): Acting {
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string>()
  const [asks, setAsks] = useState<Asks>()
  const here = useRef(true)
  useEffect(() => {
    here.current = true
    return () => {
      here.current = false
    }
  }, [])
  const run = useCallback((work: () => unknown, then?: () => void): void => {
    const done = async (): Promise<void> => {
      setProblem(undefined)
      setAsks(undefined)
      setBusy(true)
      try {
        await work()
        then?.()
      } catch (error) {
        if (error instanceof WouldHurt && here.current) {
          const yes = (): void => {
            error.agree()
            run(work, then)
          }
          setAsks({ hurt: error.hurt, yes, no: () => setAsks(undefined) })
          return
        }
        console.error(error)
        if (here.current) setProblem(problemWords(error))
      } finally {
        if (here.current) setBusy(false)
      }
    }
    void done()
  }, [])
  return { busy, problem, asks, run }
}

/** What went wrong with an act, beside what was touched; or what it would take from what is booked, to be agreed to. */
export function ProblemNote({
  of,
  className = 'mt-2',
}: {
  of: Pick<Acting, 'problem' | 'asks'>
  className?: string
}) {
  if (of.asks) return <HurtDialog {...of.asks} />
  if (of.problem === undefined) return null
  return (
    <p role="alert" className={`text-[14px] font-semibold whitespace-pre-line text-clay ${className}`}>
      {of.problem}
    </p>
  )
}

/** A button that does something at the desk; when that fails, it says so beside itself. */
export function ActButton({
  onAct,
  then,
  className = 'press',
  disabled = false,
  children,
  ...rest
}: {
  onAct: () => unknown
  then?: () => void
  className?: string
  disabled?: boolean
  'aria-label'?: string
  title?: string | undefined
  children: ReactNode
}) {
  const act = useAct()
  return (
    <>
      <button
        type="button"
        className={className}
        disabled={disabled || act.busy}
        onClick={() => act.run(onAct, then)}
        {...rest}
      >
        {children}
      </button>
      <ProblemNote of={act} className="" />
    </>
  )
}
