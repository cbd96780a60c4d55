import { CircleAlert } from 'lucide-react'
import type { ReactNode } from 'react'

/**
 * Something the reader must know. What has just happened is said at once to those who listen, too; what stands on the
 * page from the beginning is read in its place (`still`).
 */
export function Notice({
  children,
  tone = 'closed',
  still = false,
}: {
  children: ReactNode
  tone?: 'closed' | 'look' | 'info'
  still?: boolean
}) {
  return (
    <div {...(still ? {} : { role: 'alert' })} className={`note tag-${tone} flex items-start gap-2`}>
      <CircleAlert size={18} className="mt-0.5 shrink-0" aria-hidden="true" />
      <div>{children}</div>
    </div>
  )
}
