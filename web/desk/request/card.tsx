import type { ReactNode } from 'react'

/** One thing about a request. */
export const Card = ({
  title,
  children,
  aside,
}: {
  title: string
  children: ReactNode
  aside?: ReactNode
}) => (
  <section className="sheet px-[18px] py-4">
    <div className="flex items-baseline justify-between gap-3">
      <h2>{title}</h2>
      {aside && <span className="text-[13px] text-soft">{aside}</span>}
    </div>
    {children}
  </section>
)
