import type { Terms } from '@acolhida/core/terms'

/** What Iria Montalvar's clients agree to: the version before was one text, this one is made of clauses. */
export const demoTerms: Terms[] = [
  {
    id: 'studio-terms',
    versions: [
      {
        number: 3,
        title: 'Studio terms',
        text: [
          'Your time with {practitioner} is yours alone. It is kept once it has been confirmed.',
          'You can cancel it free of charge until the moment shown with your booking. After that half of the price is due, and in the last hours all of it.',
          'If you are more than fifteen minutes late, the session counts as missed.',
          'What you tell me stays between us. Voice work does not replace a doctor.',
        ].join('\n\n'),
      },
      {
        number: 4,
        title: 'Studio terms',
        text: '',
        again: 'next',
        clauses: [
          {
            id: 'your-time',
            title: 'Your time',
            short: 'It is yours once I have confirmed it.',
            text: [
              {
                p: [
                  { text: 'Your time with ' },
                  { field: 'practitioner' },
                  { text: ' is yours alone. It is kept once it has been confirmed. You can move it ' },
                  { field: 'moves' },
                  { text: '.' },
                ],
              },
            ],
          },
          {
            id: 'cancelling',
            title: 'Cancelling',
            short: 'Free at first; later it costs part of the price, in the end all of it.',
            text: [
              {
                p: [
                  { text: 'You can cancel ' },
                  { text: 'free of charge', bold: true },
                  { text: ' ' },
                  { field: 'free-until' },
                  { text: '. After that cancelling costs ' },
                  { field: 'late-cost' },
                  { text: '. The moments stand with your booking as dates.' },
                ],
              },
            ],
          },
          {
            id: 'late',
            title: 'Coming late',
            short: 'The session ends when it was to end.',
            text: [
              {
                p: [
                  { text: 'If you are more than ' },
                  { field: 'grace' },
                  { text: ' late, the session counts as missed.' },
                ],
              },
            ],
          },
          {
            id: 'between-us',
            title: 'Between us',
            short: 'What you tell me stays with me.',
            text: [
              {
                list: [
                  [{ text: 'What you tell me stays between us.' }],
                  [{ text: 'Voice work does not replace a doctor.' }],
                ],
              },
            ],
          },
        ],
      },
    ],
  },
  {
    id: 'recording-consent',
    separate: true,
    versions: [
      {
        number: 1,
        title: 'Consent to a recording',
        text: '',
        clauses: [
          {
            id: 'what-for',
            title: 'What is recorded, and what for',
            short: 'Your voice, for our work alone.',
            text: [
              {
                p: [
                  {
                    text: 'I record your voice during the session, so that we can listen to it together. Nobody else hears it, and I delete it when our work has ended, or when you ask me to.',
                  },
                ],
              },
            ],
          },
        ],
      },
    ],
  },
]
