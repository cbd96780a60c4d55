import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeBackup, writePracticeFile } from '@acolhida/core/formats'
import type { Path } from '@acolhida/core/practice'
import { givenPath } from '@acolhida/core/preparing'
import { type Condition, sheetOf } from '@acolhida/core/questions'
import { parseInstant, zone } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { describe, expect, it } from 'vitest'
import { samplePractice } from '../core/tests/sample.ts'
import { runTerminal } from './terminal.ts'

const folder = mkdtempSync(join(tmpdir(), 'acolhida-terminal-'))
const put = (name: string, text: string): string => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}
const at = (from: string, minutes: number, id: string) => ({
  id,
  kind: 'session' as const,
  start: parseInstant(from),
  end: (parseInstant(from) + minutes * 60_000) as never,
  clearBefore: 15,
  clearAfter: 15,
})
const FILE = put(
  'practice.json',
  writePracticeFile({
    format: 'acolhida-practice',
    version: 1,
    practice: samplePractice(),
    people: [{ id: 'p', name: 'P', emails: ['p@example.org'], invited: [], blocked: true, note: '' }],
    sessions: [at('2026-11-25T10:00Z', 50, 'a'), at('2026-11-25T17:00Z', 50, 'b')],
  }),
)
const NOW = ['--now', '2026-11-24T11:00Z']
const run = (...args: string[]) => {
  const { output, error, code } = runTerminal(args)
  return { answer: output ? JSON.parse(output) : undefined, error, code }
}

describe('the terminal', () => {
  it('gives the openings of the worked example', () => {
    const { answer } = run('openings', FILE, '--service', 's', '--from', '2026-11-25', '--days', '1', ...NOW)
    expect(answer.openings).toHaveLength(10)
    expect(answer.openings[0]).toEqual({ start: '2026-11-25T11:15:00Z', local: '2026-11-25T11:15' })
  })

  it('plans sessions after a rhythm, and says why one is not where it was meant', () => {
    const ask = ['series', FILE, '--service', 's', '--from', '2026-11-25', '--count', '3', ...NOW]
    const { answer, code } = run(...ask, '--rhythm', 'week', '--time', '10:00')
    expect(code).toBe(0)
    expect(answer.sessions).toEqual([
      {
        ...{ meant: '2026-11-25', local: '2026-11-25T11:15', minutes: 75 },
        because: ['It would run until 11:15, into a (10:00 – 10:50).'],
      },
      { meant: '2026-12-02', local: '2026-12-02T10:00' },
      { meant: '2026-12-09', local: '2026-12-09T10:00' },
    ])
    expect(run(...ask, '--rhythm', 'daily', '--time', '10:00').error).toContain('none of week, fortnight')
    expect(run(...ask, '--rhythm', 'week', '--time', '10').code).toBe(2)
  })

  it('plans the sessions of a path, and says how a path stands with somebody', () => {
    const path: Path = {
      ...{ id: 'half-a-year', name: 'Half a year', text: '', price: 300_000 },
      stations: [
        { id: 'long', does: 'sessions', service: 's', minutes: 60, many: 1 },
        { id: 'short', does: 'sessions', service: 's', minutes: 30, many: 2, least: 10 },
      ],
    }
    const practice = samplePractice({ paths: [path] })
    const file = put('paths.json', writePracticeFile({ format: 'acolhida-practice', version: 1, practice }))
    const { answer } = run('series', file, '--path', 'half-a-year', '--from', '2026-11-30', ...NOW)
    expect(answer.sessions.map((one: object) => Object.values(one).slice(0, 4))).toEqual([
      ['s', 60, '2026-11-30', '2026-11-30T10:00'],
      // Ten days apart at least: each a fortnight after the one before, on the same weekday.
      ['s', 30, '2026-12-14', '2026-12-14T10:00'],
      ['s', 30, '2026-12-28', '2026-12-28T10:00'],
    ])
    expect(run('series', file, '--path', 'none', '--from', '2026-11-30', ...NOW).error).toContain('no path')
    const now = parseInstant('2026-11-24T11:00Z')
    const person = { name: 'P', email: 'P@example.org', zone: 'Europe/Lisbon' }
    const backup = put(
      'backup.json',
      writeBackup({
        ...{ format: 'acolhida-backup', version: 1, practice, bookings: [], enquiries: [], mails: [] },
        ...{ sessions: [], salt: 'a salt of tests', revision: 0, cursor: 0 },
        people: [{ id: 'p', name: 'P', emails: ['p@example.org'], invited: [], blocked: false, note: '' }],
        courses: [
          {
            id: 'course-one',
            events: [
              { type: 'given', at: now, person, ...givenPath(practice, path, now, zone('Europe/Lisbon')) },
              { type: 'paid', at: now, amount: 100_000, way: 'cash' },
            ],
          },
        ],
      }),
    )
    const { answer: balance } = run('balance', backup, '--person', 'p', ...NOW)
    expect(balance.paths).toMatchObject([
      { path: 'half-a-year', used: 0, planned: 0, left: 3, price: 300_000, paid: 100_000, open: 200_000 },
    ])
    expect(balance.paths[0].sessions.map(({ worth }: { worth: number }) => worth)).toEqual([
      150_000, 75_000, 75_000,
    ])
    expect(run('balance', backup, '--person', 'nobody', ...NOW).error).toContain('nobody "nobody"')
  })

  it('fills a freed time with those who wait, and says why others are not chosen', () => {
    const waits = (id: string, change: object = {}) => ({
      ...{ id, person: 'q', service: 's', place: samplePractice().services[0]!.places[0], minutes: 60 },
      ...{ price: 5_500, windows: [] },
      ...{ zone: 'Europe/Lisbon', since: parseInstant('2026-11-20T11:00Z') },
      ...change,
    })
    const line = put(
      'line.json',
      writePracticeFile({
        format: 'acolhida-practice',
        version: 1,
        practice: samplePractice(),
        people: [
          { id: 'q', name: 'Q', emails: ['q@example.org'], invited: [], blocked: false, note: '' },
          { id: 'p', name: 'P', emails: ['p@example.org'], invited: [], blocked: true, note: '' },
        ],
        waiting: [
          waits('a'),
          waits('b', { minutes: 45, price: 9_000 }),
          waits('c', { person: 'p' }),
        ] as never,
      }),
    )
    const freed = ['--from', '2026-11-26T14:00Z', '--to', '2026-11-26T16:00Z', ...NOW]
    const { answer, code } = run('fill', line, ...freed, '--prefer', 'fullest')
    expect(code).toBe(0)
    expect(answer).toMatchObject({ value: 14_500, bound: 14_500, proven: true })
    expect(answer.chosen.map(({ waiting }: { waiting: string }) => waiting).sort()).toEqual(['a', 'b'])
    expect(answer.others).toMatchObject([{ waiting: 'c', why: 'closed', closures: [{ rule: 'person' }] }])
    expect(run('fill', line, ...freed, '--prefer', 'loudest').error).toContain('none of longest-wait')
    expect(run('fill', line, ...freed.toReversed(), '--prefer', 'fullest').code).toBe(2)
  })

  it('proves the agreements of a backup, and names the one that was changed', () => {
    const backup = demoBackup(parseInstant('2026-11-24T11:00Z'))
    const whole = put('whole.json', writeBackup(backup))
    const { answer, code } = run('verify', whole)
    expect([code, answer.valid, answer.faults]).toEqual([0, true, []])
    expect(answer.agreements).toBeGreaterThan(3)
    expect(run('verify', whole, '--number', answer.number).code).toBe(0)
    expect(run('verify', whole, '--number', 'f'.repeat(64)).answer.faults[0].what).toBe('number')
    const changed = put(
      'changed.json',
      writeBackup(backup).replace('"name":"Rhys Penhallow","previous"', '"name":"Rhys Penhallov","previous"'),
    )
    const found = run('verify', changed)
    expect([found.code, found.answer.valid]).toEqual([1, false])
    expect(found.answer.faults[0].after.name).toBe('Rhys Penhallov')
  })

  it('keeps the ledger of a file, of everybody or of one', () => {
    const backup = demoBackup(parseInstant('2026-11-24T11:00Z'))
    const file = put('ledger.json', writeBackup(backup))
    const { answer } = run('ledger', file)
    const { owed, paid, givenBack, open } = answer.sums.EUR
    expect(owed).toBeGreaterThan(0)
    expect(open).toBe(owed - paid + givenBack)
    const sum = answer.bookings.reduce((total: number, one: { open: number }) => total + one.open, 0)
    expect(sum).toBe(open)
    const { id } = backup.people[0]!
    const one = run('ledger', file, '--person', id).answer
    expect(one.bookings.length).toBeLessThan(answer.bookings.length)
    expect(run('ledger', file, '--person', 'nobody').error).toContain('nobody "nobody"')
  })

  it('tells what counts against somebody, and what follows', () => {
    const now = parseInstant('2026-11-24T11:00Z')
    const backup = demoBackup(now)
    const past = backup.bookings.find(({ events }) => events[0]?.type === 'asked' && events[0].start < now)!
    const [asked, ...rest] = past.events
    if (asked?.type !== 'asked') throw new Error('A record begins with asking.')
    const missed = { type: 'missed' as const, at: now, settles: now }
    const kept = rest.filter(({ type }) => type !== 'attended')
    const bookings = [{ ...past, events: [asked, ...kept, missed] }]
    const person = { id: 'p', name: 'P', emails: [asked.person.email], invited: [], blocked: false, note: '' }
    const standing = (name: string, people: (typeof person & { exempt?: boolean })[], when: string) => {
      const file = put(name, writeBackup({ ...backup, people, bookings }))
      return run('standing', file, '--person', 'p', '--now', when)
    }
    const { answer } = standing('missed.json', [person], '2026-11-24T11:00Z')
    expect(answer).toMatchObject({ counted: [{ booking: past.id, why: 'missed', points: 2 }], exempt: false })
    expect(answer.holds).toEqual([{ to: 'ask', since: expect.any(String), until: expect.any(String) }])
    expect(standing('later.json', [person], '2027-11-24T11:00Z').answer.holds).toEqual([])
    expect(standing('exempt.json', [{ ...person, exempt: true }], '2026-11-24T11:00Z').answer.holds).toEqual(
      [],
    )
    expect(run('standing', FILE, '--person', 'nobody', ...NOW).error).toContain('nobody "nobody"')
  })

  it('shows times in another zone, with another length, for a person, beside other calendars', () => {
    const args = ['openings', FILE, '--service', 's', '--from', '2026-11-25', '--days', '1', ...NOW]
    expect(run(...args, '--zone', 'America/Sao_Paulo').answer.openings[0].local).toBe('2026-11-25T08:15')
    expect(run(...args, '--minutes', '120').answer.openings).toHaveLength(4)
    expect(run(...args, '--person', 'p').answer.openings).toEqual([])
    const busy = put(
      'busy.ics',
      'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:20261125\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n',
    )
    expect(run(...args, '--busy', busy).answer.openings).toEqual([])
  })

  it('reads the tags of a person, and asks without answers for the shortest a client could book', () => {
    const practice = samplePractice()
    const tagged: Condition = { tag: 'choir' }
    const [questionnaire] = practice.questionnaires
    const sheet = {
      ...questionnaire!,
      questions: [{ id: 'long', kind: 'yesno' as const, text: 'Long?', required: true }],
      rules: [
        { id: 'tag', name: 'Choir', when: tagged, effect: { do: 'look' as const, note: '' } },
        {
          id: 'less',
          name: 'Shorter',
          when: { question: 'long', is: '=' as const, value: false },
          effect: { do: 'minutes' as const, minutes: -45 },
        },
      ],
      bands: [],
    }
    const file = put(
      'tagged.json',
      writePracticeFile({
        format: 'acolhida-practice',
        version: 1,
        practice: {
          ...practice,
          questionnaires: [sheet],
          services: [{ ...practice.services[0]!, questionnaire: sheet.id }],
        },
        people: [
          {
            id: 't',
            name: 'T',
            emails: ['t@example.org'],
            invited: [],
            blocked: false,
            note: '',
            tags: ['choir'],
          },
        ],
        sessions: [],
      }),
    )
    const answers = put('long.json', JSON.stringify({ long: true }))
    expect(run('read', file, '--service', 's', '--answers', answers)).toMatchObject({
      error: '',
      answer: { outcome: 'fits' },
    })
    expect(run('read', file, '--service', 's', '--answers', answers, '--person', 't').answer.outcome).toBe(
      'look',
    )
    const day = ['--service', 's', '--from', '2026-11-25', '--days', '1', ...NOW]
    expect(run('openings', file, ...day).answer.minutes).toBe(30)
    expect(run('openings', file, ...day, '--answers', answers).answer.minutes).toBe(75)
  })

  it('says why a start is closed', () => {
    const { answer } = run('why', FILE, '--service', 's', '--start', '2026-11-25T16:45Z', ...NOW)
    expect(answer.open).toBe(false)
    expect(answer.closures.map((closure: { rule: string }) => closure.rule)).toEqual(['overlap'])
    expect(answer.closures[0].words).toContain('It would run until 18:00')
  })

  it('reads answers and gives deadlines', () => {
    const demo = put('demo.json', writeBackup(demoBackup(parseInstant('2026-11-24T11:00Z'))))
    const answers = put(
      'answers.json',
      JSON.stringify({
        brings: 'My voice gives out every day.',
        uses: ['singing'],
        hoarse: 'long',
        doctor: false,
        strain: 3,
        price: 'fine',
        summary: true,
      }),
    )
    const { answer } = run('read', demo, '--service', 'voice-assessment', '--answers', answers)
    expect(answer).toMatchObject({ outcome: 'look', problems: [], quote: { minutes: 90, price: 11_300 } })
    const openings = run(
      'openings',
      demo,
      '--service',
      'voice-assessment',
      '--answers',
      answers,
      '--from',
      '2026-11-30',
      '--days',
      '1',
      ...NOW,
    ).answer
    expect(openings.minutes).toBe(90)
    const { answer: dates } = run(
      'deadlines',
      demo,
      '--service',
      'voice-assessment',
      '--start',
      '2026-11-30T10:30Z',
      ...NOW,
    )
    expect(dates.hold.at).toBe('2026-11-25T11:00:00Z')
    expect(dates.deadlines.map((deadline: { at: string }) => deadline.at)).toEqual([
      '2026-11-29T10:30:00Z',
      '2026-11-29T10:30:00Z',
      '2026-11-30T06:30:00Z',
    ])
  })

  it('gives the busy times of a calendar', () => {
    const file = put(
      'own.ics',
      'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART:20261125T090000\r\nDURATION:PT1H\r\nRRULE:FREQ=DAILY;COUNT=9\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n',
    )
    const { answer } = run(
      'calendar',
      file,
      '--from',
      '2026-11-26',
      '--days',
      '2',
      '--zone',
      'America/Sao_Paulo',
    )
    expect(answer.busy.map((opening: { local: string }) => opening.local)).toEqual([
      '2026-11-26T09:00/2026-11-26T10:00',
      '2026-11-27T09:00/2026-11-27T10:00',
    ])
    expect(answer.busy[0].start).toBe('2026-11-26T12:00:00Z')
  })

  it('reckons with extras, travel and starts that keep the day whole', () => {
    const base = samplePractice()
    const service = {
      ...base.services[0]!,
      places: ['video', 'home'],
      price: { kind: 'fixed' as const, amount: 9_500, whole: 8_500 },
      extras: [{ id: 'more', name: 'More', minutes: 30, price: 1_000 }],
    }
    const round = { id: 'round', name: 'Round', surcharge: 1_500, clear: 60, postalCodes: [] }
    const home = {
      id: 'home',
      kind: 'client' as const,
      name: 'at yours',
      told: 'door' as const,
      travel: [round],
    }
    const file = put(
      'offers.json',
      writePracticeFile({
        format: 'acolhida-practice',
        version: 1,
        practice: { ...base, services: [service], places: [...base.places, home] },
        people: [],
        sessions: [at('2026-11-25T10:00Z', 50, 'a')],
      }),
    )
    const args = ['openings', file, '--service', 's', '--from', '2026-11-26', '--days', '1', ...NOW]
    const { answer } = run(...args, '--extras', 'more')
    expect([answer.minutes, answer.price]).toEqual([105, 10_500])
    const lower = answer.openings.filter((opening: { price?: number }) => opening.price === 9_500)
    // 105 minutes between 9 and 13, and between 14 and 18: whole at the edges of both.
    expect(lower.map((opening: { local: string }) => opening.local.slice(11))).toEqual([
      '09:00',
      '11:15',
      '14:00',
      '16:15',
    ])
    expect(run(...args, '--extras', 'gold').error).toContain('has no "gold"; it has more')
    expect(run(...args, '--place', 'home', '--travel', 'moon').error).toContain('there are round')
    const wednesday = ['openings', file, '--service', 's', '--from', '2026-11-25', '--days', '1', ...NOW]
    const near = run(...wednesday, '--place', 'home').answer.openings.length
    const far = run(...wednesday, '--place', 'home', '--travel', 'round').answer.openings.length
    expect(far).toBeLessThan(near)
    const answers = put('nothing-said.json', '{}')
    const reading = run(
      'read',
      file,
      '--service',
      's',
      '--answers',
      answers,
      '--place',
      'home',
      '--travel',
      'round',
    )
    expect(reading.answer.quote.price).toBe(11_000)
  })

  it('tells what the rules cost and what easier ones would open', () => {
    const { answer } = run('cost', FILE, '--service', 's', '--from', '2026-11-25', '--days', '1', ...NOW)
    expect(answer.open).toBe(10)
    expect(answer.closed.map((closure: { rule: string }) => closure.rule)).toContain('notice')
    expect(answer.easier).toEqual([])
    const free = put(
      'free.json',
      writePracticeFile({
        format: 'acolhida-practice',
        version: 1,
        practice: samplePractice(),
        people: [],
        sessions: [],
      }),
    )
    const easier = run('cost', free, '--service', 's', '--from', '2026-11-25', '--days', '1', ...NOW).answer
      .easier
    expect(easier).toEqual([
      { change: { rule: 'notice', notice: 'PT12H' }, more: 8, words: 'with a notice of 12 h' },
    ])
  })

  it('writes hours as a calendar that can be read again', () => {
    const { output, code } = runTerminal(['hours', FILE, ...NOW])
    expect(code).toBe(0)
    expect(output).toContain('BEGIN:VAVAILABILITY')
    const path = put('hours.ics', output)
    const { answer } = run('calendar', path, '--from', '2026-11-25', '--days', '1', '--zone', 'Europe/Lisbon')
    expect(answer.busy.map((opening: { local: string }) => opening.local)).toEqual([
      '2026-11-25T00:00/2026-11-25T09:00',
      '2026-11-25T13:00/2026-11-25T14:00',
      '2026-11-25T18:00/2026-11-26T00:00',
    ])
    expect(run('hours', FILE, ...NOW, '--place', 'moon').error).toContain('there is no place "moon"')
  })

  it('proves every way through a questionnaire, and names what is broken', () => {
    const demo = put('demo.json', writeBackup(demoBackup(parseInstant('2026-11-24T11:00Z'))))
    const { answer, code } = run('check', demo, '--questionnaire', 'first-questions')
    expect(code).toBe(0)
    expect(answer).toMatchObject({ proven: true, ways: 152, findings: [], shortest: 5, longest: 6 })
    expect(answer.asked['for-whom']).toBe(1)
    const both: Condition = { all: [{ person: 'new' }, { not: { person: 'new' } }] }
    const practice = samplePractice()
    const [first] = practice.questionnaires
    const broken = put(
      'broken.json',
      writePracticeFile({
        format: 'acolhida-practice',
        version: 1,
        practice: {
          ...practice,
          questionnaires: [
            {
              ...first!,
              draft: {
                ...sheetOf(first!),
                questions: [{ id: 'x', kind: 'short', text: 'X', required: true, when: both }],
              },
            },
          ],
        },
        people: [],
        sessions: [],
      }),
    )
    expect(run('check', broken, '--questionnaire', first!.id, '--draft', 'yes').code).toBe(1)
    expect(run('check', demo, '--questionnaire', 'none').error).toContain('there is none named "none"')
  })

  it('reads earlier answers with what is being written', () => {
    const practice = samplePractice()
    const [first] = practice.questionnaires
    const { questions, bands } = first!
    const draft = {
      questions,
      bands,
      rules: [{ id: 'all', name: 'All', when: { all: [] }, effect: { do: 'look', note: '' } }],
    }
    const file = put(
      'drafted.json',
      writePracticeFile({
        format: 'acolhida-practice',
        version: 1,
        practice: { ...practice, questionnaires: [{ ...first!, draft: draft as never }] },
        people: [],
        sessions: [],
      }),
    )
    const answers = mkdtempSync(join(tmpdir(), 'acolhida-answers-'))
    writeFileSync(join(answers, 'a.json'), '{}')
    writeFileSync(join(answers, 'note.txt'), 'not answers')
    const { answer } = run('replay', file, '--questionnaire', first!.id, '--answers', answers)
    expect(answer).toMatchObject({
      draft: true,
      read: 1,
      changed: 1,
      answers: [{ file: 'a.json', now: { outcome: 'fits' }, draft: { outcome: 'look' } }],
    })
    expect(run('replay', file, '--questionnaire', first!.id, '--answers', '/nowhere').error).toContain(
      "can't be read",
    )
  })

  it('validates', () => {
    expect(run('validate', FILE)).toMatchObject({ code: 0, answer: { valid: true, sessions: 2 } })
    const text = JSON.parse(runTerminal(['validate', FILE]).output)
    expect(text.warnings).toEqual([])
    const broken = put(
      'broken.json',
      JSON.stringify({
        format: 'acolhida-practice',
        version: 1,
        practice: { ...samplePractice(), space: 'none' },
      }),
    )
    expect(run('validate', broken)).toMatchObject({
      code: 1,
      answer: { valid: false, faults: [{ path: 'practice.space' }] },
    })
  })

  it.each([
    [['openings', FILE, '--nope'], "Unknown option '--nope'"],
    [['open', FILE], 'there is no command "open"'],
    [['openings', FILE], '--now is missing'],
    [
      ['openings', FILE, '--service', 'x', '--from', '2026-11-25', '--days', '1', ...NOW],
      'there is no service "x"; there are s',
    ],
    [
      ['openings', FILE, '--service', 's', '--from', '2026-13-01', '--days', '1', ...NOW],
      '--from: "2026-13-01" is not a date',
    ],
    [
      ['openings', FILE, '--service', 's', '--from', '2026-11-25', '--days', '0', ...NOW],
      '--days: "0" is not a whole number',
    ],
    [
      [
        'openings',
        FILE,
        '--service',
        's',
        '--from',
        '2026-11-25',
        '--days',
        '1',
        ...NOW,
        '--zone',
        'Nowhere',
      ],
      '--zone: "Nowhere" is not a time zone',
    ],
    [
      ['why', FILE, '--service', 's', '--start', '2026-11-25T10:00', ...NOW],
      '--start: "2026-11-25T10:00" is not an instant',
    ],
    [['validate', join(folder, 'none.json')], "none.json can't be read: ENOENT"],
    [['validate', put('text.json', 'hello')], 'is not JSON'],
    [['validate', FILE, FILE], '"validate" takes one file'],
  ])('%j is refused with exit 2', (args, message) => {
    const { error, code } = run(...args)
    expect(code).toBe(2)
    expect(error).toContain(message)
  })
})
