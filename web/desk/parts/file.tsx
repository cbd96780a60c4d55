import type { ReactNode } from 'react'
import { ProblemNote, useAct } from './act.tsx'

/** A button that opens a file; the same file can be chosen again. */
export function FileButton({
  accept,
  onFile,
  children,
}: {
  accept: string
  onFile: (file: File) => unknown
  children: ReactNode
}) {
  const act = useAct()
  return (
    <>
      <label className="press justify-self-start has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-sun">
        {children}
        <input
          type="file"
          accept={accept}
          className="sr-only"
          onChange={(event) => {
            const file = event.target.files?.[0]
            event.target.value = ''
            if (file) act.run(() => onFile(file))
          }}
        />
      </label>
      <ProblemNote of={act} />
    </>
  )
}

/** A name for a file, of what it is about. */
export const fileNameOf = (about: string): string =>
  about
    .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
    .replaceAll(/^-|-$/g, '')
    .toLowerCase() || 'file'

/** Saves a text, or bytes, as a file. */
export function saveFile(name: string, type: string, content: string | Blob | Uint8Array<ArrayBuffer>): void {
  const url = URL.createObjectURL(new Blob([content], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
