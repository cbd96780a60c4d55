/** The marks of services. */
export type ServiceMark = 'leaf' | 'tile' | 'clay' | 'sun'

const MARK: Record<ServiceMark, string> = {
  leaf: 'bg-leaf text-primary-content',
  tile: 'bg-tile text-secondary-content',
  clay: 'bg-clay text-error-content',
  sun: 'bg-sun text-accent-content',
}

/** How something looks: a session in the mark of its service, a hold dashed, what is over or called off pale. */
export function lookOf({
  look,
  mark = 'leaf',
  off,
}: {
  look: 'session' | 'hold' | 'outside'
  mark?: ServiceMark
  off?: boolean
}): string {
  if (off) return 'border border-soft bg-card text-soft line-through'
  if (look === 'hold') return 'border-[1.6px] border-dashed border-sun bg-sun-soft text-sun-ink'
  return look === 'outside' ? 'bg-shade text-ink' : MARK[mark]
}
