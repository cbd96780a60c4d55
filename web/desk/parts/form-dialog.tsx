import type { ReactNode } from 'react'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'

/** A dialog with one thing to do: what is needed for it, what went wrong with it, and the button that does it and closes. */
export function FormDialog({
  title,
  go,
  does,
  close,
  ready = true,
  wide = false,
  children,
}: {
  title: string
  /** What the button says. */
  go: string
  does: () => unknown
  close: () => void
  /** Whether it can be done. */
  ready?: boolean
  wide?: boolean
  children: ReactNode
}) {
  const act = useAct()
  return (
    <Dialog title={title} close={close} wide={wide}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          act.run(does, close)
        }}
      >
        {children}
        <ProblemNote of={act} />
        <button type="submit" className="press press-go mt-4" disabled={act.busy || !ready}>
          {go}
        </button>
      </form>
    </Dialog>
  )
}
