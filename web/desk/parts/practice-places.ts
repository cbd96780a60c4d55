/** A page on which something of the practice is set. */
export interface PracticePlace {
  to: string
  name: string
  key: string
  group: 'At the door' | 'When and where' | 'Behind it'
}

/** Everything the practice consists of, in the order in which it is set up. */
export const PRACTICE_PLACES = [
  { to: '/profile', name: 'Who I am', key: 'w', group: 'At the door' },
  { to: '/services', name: 'Services', key: 's', group: 'At the door' },
  { to: '/questions', name: 'Questions', key: 'q', group: 'At the door' },
  { to: '/terms', name: 'Terms', key: 'm', group: 'At the door' },
  { to: '/rules', name: 'House rules', key: 'r', group: 'At the door' },
  { to: '/sent', name: 'What is sent', key: 'g', group: 'At the door' },
  { to: '/preparations', name: 'What clients prepare', key: 'j', group: 'At the door' },
  { to: '/paths', name: 'Paths', key: 'z', group: 'At the door' },
  { to: '/words', name: 'Words and languages', key: 'v', group: 'At the door' },
  { to: '/services/codes', name: 'Price codes', key: 'e', group: 'At the door' },
  { to: '/hours', name: 'Hours', key: 'h', group: 'When and where' },
  { to: '/places', name: 'Places', key: 'o', group: 'When and where' },
  { to: '/limits', name: 'Limits', key: 'l', group: 'When and where' },
  { to: '/calendars', name: 'Other calendars', key: 'c', group: 'When and where' },
  { to: '/try', name: 'Try it', key: 'y', group: 'Behind it' },
  { to: '/hand-out', name: 'Hand out the link', key: 'k', group: 'Behind it' },
  { to: '/desk', name: 'This desk', key: 'b', group: 'Behind it' },
] as const satisfies readonly PracticePlace[]
