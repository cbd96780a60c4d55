import { useEffect, useRef, useState } from 'react'
import type { FileRead, MoveInAs, MoveInTold, MoveInWish, Tried } from './told.ts'

/** How far a moving in has come. */
export interface MovingIn {
  read?: FileRead
  tried?: Tried
  writing?: { done: number; of: number }
  taken?: number
  problem?: string
  open(file: File): void
  /** Tries it, and changes nothing. */
  tryIt(as: MoveInAs): void
  take(as: MoveInAs): void
  /** Ends it; whoever is not all in is not in. */
  stop(): void
}

type Stage = Pick<MovingIn, 'read' | 'tried' | 'writing' | 'taken' | 'problem'>

/** Reads and takes people in, in a worker. */
export function useMoveIn(): MovingIn {
  const [stage, setStage] = useState<Stage>({})
  const worker = useRef<Worker>(undefined)
  const stop = (): void => {
    worker.current?.terminate()
    worker.current = undefined
  }
  useEffect(() => () => worker.current?.terminate(), [])
  const say = (wish: MoveInWish): void => worker.current?.postMessage(wish)
  return {
    ...stage,
    open: (file) => {
      stop()
      setStage({})
      const next = new Worker(new URL('./move-in.worker.ts', import.meta.url), { type: 'module' })
      next.addEventListener('message', ({ data }: MessageEvent<MoveInTold>) => {
        if ('read' in data) setStage({ read: data.read })
        else if ('tried' in data) setStage((now) => ({ ...now, tried: data.tried }))
        else if ('done' in data) setStage((now) => ({ ...now, writing: data }))
        else if ('taken' in data) setStage({ taken: data.taken })
        else setStage(({ read }) => ({ ...(read ? { read } : {}), problem: data.problem }))
      })
      next.addEventListener('error', () =>
        setStage({ problem: 'This file can’t be read here: there is too little memory for it.' }),
      )
      worker.current = next
      say({ do: 'read', file })
    },
    tryIt: (as) => say({ do: 'try', ...as }),
    take: (as) => say({ do: 'take', ...as }),
    stop: () => {
      stop()
      setStage({})
    },
  }
}
