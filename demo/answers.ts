import type { Answers } from '@acolhida/core/questions'
import { BRINGS } from './people.ts'
import type { Seeded } from './seeded.ts'

/** What somebody answers to the questions of a service. */
export function answersTo(service: string, by: Seeded): Answers {
  switch (service) {
    case 'first-conversation': {
      const whom = by.pick(['mine', 'mine', 'mine', 'mine', 'team', 'child'])
      return {
        brings: by.pick(BRINGS),
        'for-whom': whom,
        ...(whom === 'child' ? { age: by.whole(7, 16) } : {}),
      }
    }
    case 'voice-assessment': {
      const hoarse = by.pick(['not', 'not', 'short', 'long'])
      return {
        brings: by.pick(BRINGS),
        uses: [by.pick(['teaching', 'stage', 'calls', 'singing', 'elsewhere'])],
        hoarse,
        ...(hoarse === 'long' ? { doctor: by.chance(0.6) } : {}),
        strain: by.whole(2, 9),
        price: by.pick(['fine', 'fine', 'fine', 'fine', 'parts', 'too-much']),
        ...(by.chance(0.3) ? { summary: true } : {}),
      }
    }
    case 'reading-aloud':
      return { 'to-whom': by.pick(['children', 'grown', 'nobody']), ease: by.whole(2, 8) }
    default:
      return {}
  }
}
