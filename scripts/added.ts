/** What is added where, and how many files it may ask for besides its own module and its tests. */
export const ADDED: readonly [what: string, path: string, before: string, added: string, most: number][] = [
  ['a kind of question', 'core/questions/kinds/index.ts', '  section: object\n}', '  colour: object\n}', 3],
  ['an effect', 'core/questions/effects.ts', '  enquiry: object\n}', '  nudge: { text: string }\n}', 2],
  ['a closure', 'core/openings/closures.ts', "'link-only' | 'blocked' }\n}", '  moon: object\n}', 2],
  [
    'a message',
    'core/messages/letter.ts',
    "'running-late' | 'agree' | 'invoice' | 'given-back'",
    " | 'thanks'",
    2,
  ],
  ['a due thing', 'core/agenda/doing.ts', '  forget: object\n}', '  count: object\n}', 2],
  [
    'an event',
    'core/booking/happening.ts',
    "'taken-back': { of: number }\n}",
    '  attended: { late: number }\n}',
    2,
  ],
  [
    'a command',
    'core/booking/command.ts',
    'number: string; text: string }\n',
    '  attend: { late: number }\n}',
    2,
  ],
  ['a setting', 'core/practice/types.ts', "'clay' | 'sun'\n}", '  shade?: string\n}', 3],
]
