import { type Closure, closurePlace } from '@acolhida/core/openings'

const set = (setting: string | undefined): string =>
  setting === undefined ? '' : `?set=${encodeURIComponent(setting)}`

/** Where the rule that causes a closure is changed, and what that is called; nothing where there is no such place. */
export function closureLink(closure: Closure): { to: string; words: string } | undefined {
  const place = closurePlace(closure)
  switch (place?.at) {
    case undefined:
      return undefined
    case 'hours':
      return {
        to: `/hours${set(place.day === undefined ? 'away' : `weekly[${place.day}]`)}`,
        words: 'See the hours',
      }
    case 'calendars':
      return { to: '/calendars', words: 'See the calendar' }
    case 'people':
      return { to: '/people', words: 'See the rule' }
    case 'request':
      return { to: `/arrivals/${place.id}`, words: 'See it' }
    case 'service':
      return { to: `/services/${place.id}${set(place.setting)}`, words: 'See the rule' }
    case 'limits':
      return { to: `/limits${set(place.setting)}`, words: 'See the rule' }
  }
}
