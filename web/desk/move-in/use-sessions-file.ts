import type { PeopleTable } from '@acolhida/core/move-in'
import { useEffect, useRef, useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import type { SessionsTold, SessionsWish } from './sessions.worker.ts'

/** A file that was read: its table, and as which file it was. */
export interface SessionsFile {
  name: string
  table: PeopleTable
  /** How many have been read. */
  n: number
}

/** Reads a file in a worker of its own. @param home by whose clock a calendar without zones is meant */
export function useSessionsFile(home: string) {
  const [state, setState] = useState<{ read?: SessionsFile; problem?: string }>({})
  const worker = useRef<Worker>(undefined)
  const n = useRef(0)
  useEffect(() => () => worker.current?.terminate(), [])
  return {
    ...state,
    close: () => setState({}),
    open: (file: File) => {
      worker.current?.terminate()
      setState({})
      const next = new Worker(new URL('./sessions.worker.ts', import.meta.url), { type: 'module' })
      next.addEventListener('message', ({ data }: MessageEvent<SessionsTold>) => {
        n.current++
        setState('problem' in data ? data : { read: { ...data, n: n.current } })
        next.terminate()
      })
      next.addEventListener('error', () =>
        setState({ problem: 'This file can’t be read here: there is too little memory for it.' }),
      )
      worker.current = next
      const wish: SessionsWish = { file, now: relayNow(), home }
      next.postMessage(wish)
    },
  }
}
