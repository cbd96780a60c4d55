import { useEffect, useRef, useState } from 'react'
import { FileButton } from '../parts/file.tsx'
import { Restore, type RestoreStage } from './restore.ts'

/** What is said after the page has been loaded anew on the desk that was restored. */
export const RESTORED = 'acolhida-restored'

/**
 * Opens a backup: how far it is, what is in it, and the way to stop.
 * @param replaces whether there is something that it would replace; if so, it asks first
 */
export function Restoring({
  replaces,
  outstanding = 0,
  label,
}: {
  replaces: boolean
  /** How many decisions have not gone out yet: they would be lost. */
  outstanding?: number
  label: string
}) {
  const [stage, setStage] = useState<RestoreStage>()
  const restore = useRef<Restore>(undefined)
  useEffect(() => () => restore.current?.stop(), [])
  const follow = (next: RestoreStage): void => {
    setStage(next)
    if (next.is === 'read' && !replaces) restore.current?.replace()
    if (next.is === 'restored') {
      if (replaces) sessionStorage.setItem(RESTORED, '1')
      location.assign(replaces ? '/desk' : '/')
    }
  }
  const leave = (): void => {
    restore.current?.stop()
    setStage(undefined)
  }
  if (stage?.is === 'read' && replaces) {
    return (
      <div className="note bg-clay-soft text-clay-ink">
        <p className="font-semibold">
          “{stage.file}” holds {stage.name} with {stage.people.toLocaleString('en')} people and{' '}
          {stage.bookings.toLocaleString('en')} requests. It replaces all that is here; save a backup first if
          you may want it back.
          {outstanding > 0 &&
            ` ${outstanding === 1 ? 'A decision that has' : `${outstanding} decisions that have`} not gone out yet would be lost.`}
        </p>
        <div className="mt-2 flex gap-2">
          <button type="button" className="press" onClick={() => restore.current?.replace()}>
            Replace it
          </button>
          <button type="button" className="press press-quiet" onClick={leave}>
            Leave it
          </button>
        </div>
      </div>
    )
  }
  if (stage && stage.is !== 'failed') {
    return (
      <div role="status">
        {stage.is === 'writing' ? (
          <>
            <p>{stage.done < stage.of ? 'Putting it in place …' : 'One moment …'}</p>
            <progress
              className="mt-1 w-full accent-leaf"
              aria-label="How much is in place"
              value={stage.done}
              max={stage.of}
            />
          </>
        ) : (
          <p>{stage.is === 'reading' ? `Reading “${stage.name}” …` : 'One moment …'}</p>
        )}
        {(stage.is === 'reading' || (stage.is === 'writing' && stage.done < stage.of)) && (
          <button type="button" className="press mt-2" onClick={leave}>
            Stop
          </button>
        )}
      </div>
    )
  }
  return (
    <>
      <FileButton
        accept=".json,application/json"
        onFile={(file) => {
          restore.current?.stop()
          restore.current = new Restore(file, follow)
        }}
      >
        {label}
      </FileButton>
      {stage && (
        <p role="alert" className="mt-2 font-semibold whitespace-pre-line text-clay wrap-anywhere">
          {stage.problem} Everything is as it was.
        </p>
      )}
    </>
  )
}
