import { CircleAlert } from 'lucide-react'
import type { ReactNode } from 'react'

/** Something the reader must know now: said at once to those who listen, too. */
export function Notice({
  children,
  tone = 'closed',
}: {
  children: ReactNode
  tone?: 'closed' | 'look' | 'info'
}) {
  return (
    <div role="alert" className={`note tag-${tone} flex items-start gap-2`}>
      <CircleAlert size={18} className="mt-0.5 shrink-0" aria-hidden="true" />
      <div>{children}</div>
    </div>
  )
}
