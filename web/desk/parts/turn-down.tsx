import { useState } from 'react'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'

/** Turns one down, or several, in words that can be changed. */
export function TurnDownWords({
  whom,
  readers,
  says,
  begin,
  send,
  close,
}: {
  /** In the title, and as the field is called. */
  whom: string
  readers: string
  says: string
  begin: string
  send: (text: string) => Promise<void>
  close: () => void
}) {
  const act = useAct()
  const [text, setText] = useState(begin)
  return (
    <Dialog title={`Turn ${whom} down`} close={close}>
      <p className="text-soft">{says}</p>
      <label className="sr-only" htmlFor="turn-down-text">
        What {readers} will read
      </label>
      <textarea
        id="turn-down-text"
        className="field mt-2 min-h-36"
        maxLength={5_000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <button type="button" className="press press-go mt-3" onClick={() => act.run(() => send(text), close)}>
        Turn down and send this
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
