import { describe, expect, it } from 'vitest'
import { begin } from '../booking/index.ts'
import { queries, schemas } from '../contract/schemas.ts'
import { type Backup, writeBackup, writePracticeFile } from '../formats/index.ts'
import { checkPractice, type Practice } from '../practice/index.ts'
import { sampleAsked } from '../tests/asked.ts'
import { samplePractice, sampleService } from '../tests/sample.ts'
import { wallTime } from '../time/index.ts'
import {
  BadData,
  bookingEvent,
  letIn,
  practice as practiceSchema,
  readBackup,
  readPracticeFile,
} from './index.ts'

const faultsOf = (work: () => unknown): { path: string; message: string }[] => {
  try {
    work()
  } catch (error) {
    if (error instanceof BadData) return error.faults
    throw error
  }
  return []
}
const practiceFaults = (change: (draft: Record<string, never>) => void) => {
  const draft = structuredClone(samplePractice()) as unknown as Record<string, never>
  change(draft)
  return faultsOf(() => letIn(practiceSchema, draft, 'The practice'))
}
const file = (practice: Practice): string =>
  writePracticeFile({ format: 'acolhida-practice', version: 1, practice, sessions: [], people: [] })
const backup = (): Backup => ({
  format: 'acolhida-backup',
  version: 1,
  practice: samplePractice(),
  people: [{ id: 'p', name: 'P', emails: ['p@example.org'], invited: [], blocked: false, note: '' }],
  bookings: [
    { id: 'b2', events: [sampleAsked()] },
    { id: 'b1', events: [sampleAsked(), { type: 'withdrawn', at: sampleAsked().at }] },
  ],
  enquiries: [],
  mails: [],
  sessions: [],
  salt: 'salt-of-the-sample',
  revision: 3,
  cursor: 12,
})

describe('a practice', () => {
  it('passes as it is begun', () => {
    expect(practiceFaults(() => {})).toEqual([])
    expect(checkPractice(samplePractice())).toEqual([])
  })

  // biome-ignore lint/suspicious/noExplicitAny: the drafts are broken on purpose
  const broken: [string, (draft: any) => void, string, RegExp][] = [
    [
      'a date that does not exist',
      (d) => d.away.push({ id: 'x', from: '2026-02-30T00:00', to: '2026-03-01T00:00' }),
      'away[0].from',
      /not a date/,
    ],
    [
      'a repetition that none can follow',
      (d) =>
        d.away.push({
          id: 'x',
          from: '2026-12-01T00:00',
          to: '2026-12-02T00:00',
          repeat: 'FREQ=WEEKLY;BYDAY=XX',
        }),
      'away[0].repeat',
      /not a rule of repetition/,
    ],
    [
      'a zone that does not exist',
      (d) => {
        d.profile.zone = 'Europe/Atlantis'
      },
      'profile.zone',
      /not a time zone/,
    ],
    [
      'a currency that does not exist',
      (d) => {
        d.profile.currency = 'XYZ'
      },
      'profile.currency',
      /ISO 4217/,
    ],
    [
      'an hour after midnight',
      (d) => {
        d.hours.weekly[0][0].to = '24:30'
      },
      'hours.weekly[0][0].to',
      /not a time of day/,
    ],
    [
      'a notice that is no duration',
      (d) => {
        d.services[0].notice = '24 hours'
      },
      'services[0].notice',
      /is not a duration/,
    ],
    [
      'a price of no kind',
      (d) => {
        d.services[0].price = { kind: 'fixed', amount: -1 }
      },
      'services[0].price.amount',
      /must be at least 0/,
    ],
    [
      'a limit of zero',
      (d) => {
        d.services[0].perDay = 0
      },
      'services[0].perDay',
      /must be at least 1/,
    ],
    ['two services of one id', (d) => d.services.push(d.services[0]), 'services[1]', /same id/],
    [
      'a rule that does nothing known',
      (d) => {
        d.questionnaires[0].rules = [{ id: 'r', name: 'R', when: { all: [] }, effect: { do: 'look' } }]
      },
      'questionnaires[0].rules[0].effect.note',
      /is missing/,
    ],
    [
      'a condition that is none',
      (d) => {
        d.questionnaires[0].questions[0].when = { question: 'x', is: 'like', value: 1 }
      },
      'questionnaires[0].questions[0].when.is',
      /one of/,
    ],
    [
      'an unknown word',
      (d) => {
        d.services[0].colour = 'gold'
      },
      'services[0].colour',
      /one of/,
    ],
    [
      'something extra',
      (d) => {
        d.extra = 1
      },
      'extra',
      /is not known here/,
    ],
  ]
  it.each(broken)('with %s is refused, and the place is named', (_, change, path, message) => {
    const faults = practiceFaults(change)
    expect(faults.map((fault) => fault.path)).toContain(path)
    expect(faults.find((fault) => fault.path === path)?.message).toMatch(message)
  })

  it('is checked beyond its shape', () => {
    const block = (from: number, to: number) => ({ from: wallTime(from * 60), to: wallTime(to * 60) })
    const weekly = [[block(13, 9)], [block(9, 12), block(11, 14)], [], [], [], [], []] as never
    const found = checkPractice(
      samplePractice({
        hours: { weekly, changedDays: [] },
        services: [
          sampleService({ minutes: 240, places: ['nowhere'], questionnaire: 'none', terms: ['none'] }),
        ],
      }),
    )
    expect(found.map((fault) => [fault.path, fault.grade])).toEqual([
      ['hours.weekly[0][0]', 'error'],
      ['hours.weekly[1][1]', 'error'],
      ['services[0].places[0]', 'error'],
      ['services[0].terms[0]', 'error'],
      ['services[0].questionnaire', 'error'],
      ['services[0].minutes', 'warning'],
    ])
    expect(found[1]?.message).toBe('It overlaps with 09:00 – 12:00.')
  })

  it('says that nobody can ever book what is longer than every block', () => {
    const [fault] = checkPractice(samplePractice({ services: [sampleService({ minutes: 300 })] }))
    expect(fault).toMatchObject({
      grade: 'warning',
      message: 'Nobody can ever book this: the longest block of hours is 4 h.',
    })
  })

  it('refuses conditions on questions that do not exist or come later', () => {
    const practice = samplePractice()
    practice.questionnaires[0]!.questions = [
      { id: 'a', kind: 'short', text: 'A', required: false, when: { question: 'b', is: 'answered' } },
      { id: 'b', kind: 'short', text: 'B', required: false, when: { question: 'gone', is: 'answered' } },
    ]
    expect(checkPractice(practice).map((fault) => fault.message)).toEqual([
      'Its condition looks at “B”, which is asked later.',
      'Its condition looks at a question that is gone.',
    ])
  })
})

describe('files', () => {
  it('come back as they went out', () => {
    const practice = samplePractice()
    expect(readPracticeFile(file(practice)).practice).toEqual(practice)
  })

  it('give the same bytes for the same data, in whatever order it lay', () => {
    const kept = backup()
    const text = writeBackup(kept)
    expect(writeBackup({ ...kept, bookings: [...kept.bookings].reverse() })).toBe(text)
    expect(writeBackup(readBackup(text))).toBe(text)
  })

  it('also hand their practice to the computation', () => {
    const read = readPracticeFile(writeBackup(backup()))
    expect(read.bookings.map((booking) => booking.status).sort()).toEqual(['requested', 'withdrawn'])
    expect(begin('b2', sampleAsked()).status).toBe('requested')
  })

  it.each([
    ['{', 'is not JSON'],
    ['[]', 'holds no JSON object'],
    ['{"format":"acolhida-practice","version":99}', 'this program reads up to 1'],
    ['{"format":"acolhida-practice","version":1}', '“practice” is missing'],
    ['{"format":"something-else","version":1}', '“format” must be one of acolhida-practice'],
  ])('%s is refused: %s', (text, message) => {
    expect(() => readPracticeFile(text, 'It')).toThrow(message)
  })

  it('are refused when a record does not hold together', () => {
    const kept = backup()
    kept.bookings[0]!.events = [{ type: 'withdrawn', at: sampleAsked().at }]
    expect(faultsOf(() => readBackup(writeBackup(kept)))).toEqual(
      [{ path: 'bookings[0]', message: 'Booking b2: a record begins with asking.' }].map((fault) => ({
        ...fault,
        path: 'bookings[1]',
      })),
    )
  })

  it('are refused when the practice in them can not work', () => {
    const practice = samplePractice({ services: [sampleService({ places: ['nowhere'] })] })
    expect(faultsOf(() => readPracticeFile(file(practice)))[0]?.path).toBe('practice.services[0].places[0]')
  })
})

describe('records and requests', () => {
  it('let in every kind of event that is made, and nothing else', () => {
    expect(letIn(bookingEvent, sampleAsked(), 'An event')).toEqual(sampleAsked())
    expect(faultsOf(() => letIn(bookingEvent, { type: 'exploded', at: 1 }, 'An event'))).not.toEqual([])
    expect(
      faultsOf(() => letIn(bookingEvent, { type: 'declined', at: 1, text: 'x' }, 'An event'))[0]?.path,
    ).toBe('settles')
  })

  it('refuse names of several lines and addresses that are none', () => {
    const body = {
      visit: 'v'.repeat(22),
      clock: 1,
      shown: '0'.repeat(64),
      service: 's',
      place: 'p',
      start: 1,
      answers: {},
      agreed: [],
      person: {
        name: 'A\nBcc: b@example.org',
        email: 'a@example.org\r\nBcc: b@example.org',
        zone: 'Europe/Lisbon',
      },
    }
    expect(faultsOf(() => letIn(schemas.send, body, 'It')).map((fault) => fault.path)).toEqual([
      'person.name',
      'person.email',
    ])
  })
})

/** Words that are the validator's, and nobody else's. */
const VALIDATOR =
  /allowed to be|is required|less than or equal|greater than or equal|must be (a|an|of) |["[\]{}]/

it('what is wrong is never said in the validator’s words', () => {
  const hostile = [
    undefined,
    null,
    '',
    ' ',
    'x',
    -1,
    1.5,
    1e300,
    true,
    [],
    {},
    { a: 1 },
    [null],
    'y'.repeat(300_000),
  ]
  const taken = Object.entries({ ...schemas, ...queries }).filter(
    (entry): entry is [string, (typeof schemas)['enter']] => typeof entry[1]?.make === 'function',
  )
  expect(taken.length).toBeGreaterThan(20)
  let faults = 0
  for (const [name, schema] of taken) {
    const whole = { start: 1, place: 'a', service: 'a', person: { name: '' }, id: '', code: 5, practice: {} }
    for (const value of [
      ...hostile,
      whole,
      ...Object.keys(whole).map((key) => ({ ...whole, [key]: [[]] })),
    ]) {
      for (const { path, message } of faultsOf(() => letIn(schema as never, value, 'It')) ?? []) {
        faults++
        expect(message, `${name} ${path}`).not.toMatch(VALIDATOR)
      }
    }
  }
  expect(faults).toBeGreaterThan(500)
})
