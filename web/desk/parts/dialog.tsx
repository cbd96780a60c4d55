import { X } from 'lucide-react'
import { type ReactNode, useEffect, useId, useRef } from 'react'

/** A sheet over the page; Escape closes it, and the keyboard stays inside. */
export function Dialog({
  title,
  children,
  close,
  wide = false,
}: {
  title: string
  children: ReactNode
  close: () => void
  wide?: boolean
}) {
  const ref = useRef<HTMLDialogElement>(null)
  const id = useId()
  useEffect(() => {
    ref.current?.showModal()
    // Opening it puts the focus on its first button; where the work begins elsewhere, it goes on there.
    ref.current?.querySelector<HTMLElement>('[data-first]')?.focus()
  }, [])
  return (
    <dialog
      ref={ref}
      aria-labelledby={id}
      onClose={close}
      className={`sheet m-auto max-h-[90dvh] w-[calc(100%-2rem)] overflow-y-auto p-5 text-ink backdrop:bg-black/40 ${wide ? 'max-w-[760px]' : 'max-w-[520px]'}`}
    >
      <div className="mb-3 flex items-start justify-between gap-4">
        <h2 id={id}>{title}</h2>
        <button
          type="button"
          className="press press-quiet px-2"
          aria-label="Close"
          onClick={() => ref.current?.close()}
        >
          <X size={18} aria-hidden="true" />
        </button>
      </div>
      {children}
    </dialog>
  )
}
