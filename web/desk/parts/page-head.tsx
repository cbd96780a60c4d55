import type { ReactNode } from 'react'

/** The head of a page: its title, also in the window's, a line about it, and what leads on from it. */
export function PageHead({
  title,
  heading = title,
  line,
  children,
}: {
  title: string
  /** Where the page is headed otherwise than the window. */
  heading?: string
  line: string
  children?: ReactNode
}) {
  return (
    <>
      <title>{`${title} · Acolhida`}</title>
      <header className="flex flex-wrap items-start justify-between gap-4">
        <div className="max-w-[640px]">
          <h1>{heading}</h1>
          <p className="mt-1 text-[14px] text-soft">{line}</p>
        </div>
        {children && <div className="flex flex-wrap gap-2.5">{children}</div>}
      </header>
    </>
  )
}
