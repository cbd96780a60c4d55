import type { ReactNode } from 'react'

/** The times of what is being drawn or stretched, beside its moving end. @param at in percent of the band */
export const DrawnTimes = ({ at, children }: { at: number; children: ReactNode }) => (
  <span
    className="figures pointer-events-none absolute bottom-full z-10 mb-1 rounded-md bg-neutral px-2 py-0.5 text-[13px] whitespace-nowrap text-neutral-content"
    style={at > 50 ? { right: `${100 - Math.min(100, at)}%` } : { left: `${Math.max(0, at)}%` }}
  >
    {children}
  </span>
)
