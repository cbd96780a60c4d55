import { useState } from 'react'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { type GoesWith, goingWith, Silently } from './word.tsx'

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
  send: (said: GoesWith) => Promise<void>
  close: () => void
}) {
  const act = useAct()
  const [said, setSaid] = useState<GoesWith>({ text: begin })
  return (
    <Dialog title={`Turn ${whom} down`} close={close}>
      <p className="text-soft">{says}</p>
      <label className="sr-only" htmlFor="turn-down-text">
        What {readers} will read
      </label>
      <textarea
        id="turn-down-text"
        className="field mt-2 min-h-36"
        disabled={said.silent}
        maxLength={5_000}
        value={said.text}
        onChange={(event) => setSaid({ ...said, text: event.target.value })}
      />
      <Silently said={said} onChange={setSaid} />
      <button
        type="button"
        className="press press-go mt-3"
        onClick={() => act.run(() => send(goingWith(said)), close)}
      >
        {said.silent ? 'Turn down and send nothing' : 'Turn down and send this'}
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
