import type { Closure } from '@acolhida/core/openings'

/** Where the rule that causes a closure is changed. */
export function closureHref(closure: Closure): string | undefined {
  switch (closure.rule) {
    case 'past':
      return undefined
    case 'away':
    case 'hours':
      return '/hours'
    case 'overlap':
    case 'clear':
      if (closure.entry.kind === 'outside') return '/calendars'
      return closure.entry.request
        ? `/arrivals/${closure.entry.request}`
        : closure.entry.service
          ? `/services/${closure.entry.service}`
          : undefined
    case 'person':
      return '/people'
    case 'notice':
    case 'reach':
    case 'grid':
    case 'day-edge':
    case 'day-limit':
    case 'week-limit':
    case 'full':
    case 'untidy':
      return `/services/${closure.service}`
  }
}

/** What the place is called where it is changed. */
export function closureLinkWords(closure: Closure): string {
  const href = closureHref(closure) ?? ''
  if (href.startsWith('/arrivals')) return 'See it'
  if (href === '/hours') return 'See the hours'
  if (href === '/calendars') return 'See the calendar'
  return 'See the rule'
}
