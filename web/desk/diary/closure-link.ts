import { type Closure, closurePlace } from '@acolhida/core/openings'

/** Where the rule that causes a closure is changed, and what that is called; nothing where there is no such place. */
export function closureLink(closure: Closure): { to: string; words: string } | undefined {
  const place = closurePlace(closure)
  switch (place?.at) {
    case undefined:
      return undefined
    case 'hours':
      return { to: '/hours', words: 'See the hours' }
    case 'calendars':
      return { to: '/calendars', words: 'See the calendar' }
    case 'people':
      return { to: '/people', words: 'See the rule' }
    case 'request':
      return { to: `/arrivals/${place.id}`, words: 'See it' }
    case 'service':
      return { to: `/services/${place.id}`, words: 'See the rule' }
  }
}
