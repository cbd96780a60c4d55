import { describe, expect, it } from 'vitest'
import { sampleService } from '../tests/sample.ts'
import {
  type Condition,
  conditionWords,
  depthsOf,
  differencesBetween,
  draftFaults,
  draftOf,
  effectWords,
  freeId,
  lookingAt,
  publishDraft,
  type Question,
  type Questionnaire,
  questionsIn,
  questionsOf,
  removeQuestion,
  replayAnswers,
  type Sheet,
  sheetOf,
} from './index.ts'

const yes = (id: string, when?: Condition): Question => ({
  id,
  kind: 'yesno',
  text: id.toUpperCase(),
  required: true,
  ...(when ? { when } : {}),
})
const is = (question: string, value: boolean): Condition => ({ question, is: '=', value })
const first: Questionnaire = {
  id: 'q',
  name: 'Q',
  version: 1,
  questions: [yes('a'), yes('b', is('a', true))],
  rules: [{ id: 'r', name: 'R', when: is('b', true), effect: { do: 'look', note: 'Look.' } }],
  bands: [],
}

describe('versions', () => {
  it('keep what earlier ones asked, and leave the door alone until the next is whole', () => {
    expect(draftOf(first)).toEqual(sheetOf(first))
    expect(publishDraft(first)).toBe(first)
    const drafted = { ...first, draft: { ...sheetOf(first), questions: [yes('c')], rules: [] } }
    expect(drafted.questions).toEqual(first.questions)
    const second = publishDraft(drafted)
    expect(second).toMatchObject({ version: 2, questions: [yes('c')], rules: [] })
    expect(second.draft).toBeUndefined()
    expect(questionsOf(second, 1)).toEqual(first.questions)
    expect(questionsOf(second, 2)).toEqual([yes('c')])
    expect(questionsOf(second, 9)).toBeUndefined()
  })

  it('lose nothing that a removed value said: no bound stays behind from the version before', () => {
    const bounded = { ...first, lookAbove: 5_000, draft: sheetOf(first) }
    expect(publishDraft(bounded).lookAbove).toBeUndefined()
  })

  it('are read over earlier answers, and tell for whom it would have been otherwise', () => {
    const service = sampleService({ price: { kind: 'fixed', amount: 5_000 } })
    const given = [
      { id: 'one', answers: { a: true, b: true } },
      { id: 'two', answers: { a: false } },
    ].map((answered) => ({ ...answered, service }))
    expect(replayAnswers(first, sheetOf(first), given)).toEqual([])
    const next: Sheet = {
      ...sheetOf(first),
      rules: [
        { id: 's', name: 'S', when: is('a', false), effect: { do: 'minutes', minutes: 15 } },
        { id: 't', name: 'T', when: is('a', false), effect: { do: 'item', name: 'More', price: 700 } },
      ],
    }
    expect(replayAnswers(first, next, given)).toEqual([
      { id: 'one', outcome: { from: 'look', to: 'fits' } },
      { id: 'two', minutes: { from: 75, to: 90 }, price: { from: 5_000, to: 5_700 } },
    ])
    // What else counted then counts the same in both: a code takes all of either price off.
    const code = { id: 'c', code: 'C', off: { kind: 'share', percent: 100 } } as const
    const free = given.map((answered) => ({ ...answered, choices: { extras: [], whole: false, code } }))
    expect(replayAnswers(first, next, free).map((replayAnswer) => replayAnswer.price)).toEqual([
      undefined,
      undefined,
    ])
    // Nor does a value stay behind that only the version before had.
    expect(replayAnswers({ ...first, lookAbove: 1 }, sheetOf(first), given)).toEqual([
      { id: 'two', outcome: { from: 'look', to: 'fits' } },
    ])
  })
})

describe('differences between versions', () => {
  it('are what came, what went, what is otherwise and what stands elsewhere', () => {
    const before: Sheet = {
      questions: [yes('a'), yes('b'), yes('c'), yes('d')],
      rules: first.rules,
      bands: [],
    }
    const after: Sheet = {
      questions: [yes('c'), yes('a'), { ...yes('b'), text: 'B, anew' }, yes('e')],
      rules: [],
      bands: [{ from: 1, outcome: 'look' }],
      lookAbove: 100,
    }
    const words = (from: Sheet, to: Sheet) =>
      differencesBetween(from, to).map(
        (difference) => `${difference.how} ${difference.what} ${difference.id ?? difference.name}`,
      )
    expect(words(before, before)).toEqual([])
    expect(words(before, after)).toEqual([
      'moved question c',
      'changed question b',
      'added question e',
      'removed question d',
      'removed rule r',
      'changed bands What points come to',
      'changed values The prices above which you look, or talk first',
    ])
  })
})

describe('what stands in the way of publishing', () => {
  it.each<[string, Partial<Sheet>, string]>([
    [
      'a later question',
      { questions: [yes('a', is('b', true)), yes('b')] },
      'Its condition looks at “B”, which is asked later.',
    ],
    ['itself', { questions: [yes('a', is('a', true))] }, 'Its condition looks at itself.'],
    [
      'a question that is gone',
      { questions: [yes('b', is('a', true))] },
      'Its condition looks at a question that is gone.',
    ],
    [
      'what the door does not know',
      { questions: [yes('a', { any: [{ person: 'new' }, { not: { tag: 't' } }] })] },
      'Whether it is asked can’t depend on tags or earlier attempts: only rules can look at them.',
    ],
    [
      'bounds that exclude everything',
      { questions: [{ ...yes('n'), kind: 'number', least: 9, most: 3 } as Question] },
      'No answer is possible: it must be at least 9 and at most 3.',
    ],
    [
      'more choices than there are',
      {
        questions: [
          { ...yes('s'), kind: 'several', least: 2, choices: [{ id: 'x', text: 'X' }] } as Question,
        ],
      },
      'No answer is possible: there is only one choice.',
    ],
    [
      'more items than there are',
      {
        questions: [
          { ...yes('i'), kind: 'items', least: 5, items: [{ id: 'x', text: 'X', most: 2 }] } as Question,
        ],
      },
      'No answer is possible: at least 5 and at most 2 together.',
    ],
    [
      'a price below zero',
      { rules: [{ id: 'r', name: 'R', when: { all: [] }, effect: { do: 'item', name: 'I', price: -5 } }] },
      'A price can’t be below zero; use a code to take something off.',
    ],
    [
      'an item that is gone',
      {
        questions: [{ ...yes('i'), kind: 'items', items: [{ id: 'x', text: 'X', most: 2 }] } as Question],
        rules: [
          {
            id: 'r',
            name: 'R',
            when: { all: [] },
            effect: { do: 'minutes', minutes: 5, times: 'i', of: 'y' },
          },
        ],
      },
      'It multiplies by an item that is gone.',
    ],
    [
      'a close without words',
      {
        rules: [
          {
            id: 'r',
            name: 'R',
            when: { all: [] },
            effect: { do: 'close', message: ' ', services: [], enquiry: true },
          },
        ],
      },
      'Please write what they read when they are closed.',
    ],
  ])('%s', (_, change, message) => {
    const faults = draftFaults({ questions: [], rules: [], bands: [], ...change })
    expect(faults.map((fault) => fault.message)).toEqual([message])
    expect(faults[0]!.question ?? faults[0]!.rule).toBeDefined()
  })

  it('is a comparison with what an answer can never be', () => {
    const when = (is: string, value: unknown): Condition => ({ question: 'a', is, value }) as Condition
    const faulty = (question: object, when: Condition): string[] =>
      draftFaults({
        questions: [{ id: 'a', text: 'A', required: true, ...question } as Question],
        rules: [{ id: 'r', name: 'R', when, effect: { do: 'tag', tag: 't' } }],
        bands: [],
      }).map(({ message }) => message)
    const choices = [{ id: 'x', text: 'X' }]
    expect(faulty({ kind: 'number' }, when('=', '5'))).toEqual([
      '“A” is compared with something that is no number.',
    ])
    expect(faulty({ kind: 'date' }, when('<', '2027-02-30'))).toEqual([
      '“A” is compared with something that is no date.',
    ])
    expect(faulty({ kind: 'time' }, when('≤', '24:00'))).toEqual([
      '“A” is compared with something that is no time of day.',
    ])
    expect(faulty({ kind: 'yesno' }, when('=', 'yes'))).toEqual([
      '“A” is compared with something other than yes or no.',
    ])
    expect(faulty({ kind: 'short' }, when('<', 'b'))).toEqual(["“A” can't be compared by “<”."])
    expect(faulty({ kind: 'several', choices }, when('=', 'x'))).toEqual(["“A” can't be compared by “=”."])
    expect(faulty({ kind: 'one', choices }, when('=', 'gone'))).toEqual([
      'It looks for an answer that “A” no longer has.',
    ])
    const right: [object, Condition][] = [
      [{ kind: 'number' }, when('≠', 0.5)],
      [{ kind: 'date' }, when('≥', '2028-02-29')],
      [{ kind: 'time' }, when('<', '23:59')],
      [{ kind: 'yesno' }, when('≠', true)],
      [{ kind: 'one', choices }, when('≠', 'x')],
      [{ kind: 'several', choices }, when('includes', 'x')],
      [{ kind: 'items', items: [{ id: 'x', text: 'X', most: 2 }] }, when('<', 2)],
      [
        { kind: 'file', accepts: ['pdf'], mostBytes: 2_000 },
        { question: 'a', is: 'answered' },
      ],
    ]
    for (const [question, condition] of right) expect(faulty(question, condition)).toEqual([])
  })

  it('is nothing for five hundred questions in a row, each after the one before', () => {
    const many = Array.from({ length: 500 }, (_, i) =>
      yes(`q${i}`, i > 0 ? is(`q${i - 1}`, true) : undefined),
    )
    expect(draftFaults({ questions: many, rules: [], bands: [] })).toEqual([])
  })
})

describe('taking a question away', () => {
  it('widens no rule and no condition: what looked at it is unfinished', () => {
    const either: Condition = { any: [is('a', true), is('b', true)] }
    const sheet: Sheet = {
      questions: [yes('a'), yes('b'), yes('c', either)],
      rules: [
        {
          id: 'r',
          name: 'R',
          when: { all: [is('a', true), is('b', true)] },
          effect: { do: 'look', note: '' },
        },
      ],
      bands: [],
    }
    expect(lookingAt(sheet, 'a')).toMatchObject({ questions: [{ id: 'c' }], rules: [{ id: 'r' }] })
    const left = removeQuestion(sheet, 'a')
    expect(left.rules).toEqual(sheet.rules)
    expect(draftFaults(left)).toEqual([
      { question: 'c', message: 'Its condition looks at a question that is gone.' },
      { rule: 'r', message: 'It looks at a question that is gone.' },
    ])
  })

  it('a new rule does nothing until it is said when it acts', () => {
    const fresh: Sheet = {
      questions: [yes('a')],
      rules: [{ id: 'r', name: 'R', when: { any: [] }, effect: { do: 'look', note: '' } }],
      bands: [],
    }
    expect(draftFaults(fresh)).toEqual([{ rule: 'r', message: 'It does nothing yet: say when it acts.' }])
  })

  it('finds names that are free', () => {
    expect(freeId(['a', 'a-2'], 'a')).toBe('a-3')
    expect(freeId([], 'a')).toBe('a')
  })
})

describe('rules in words', () => {
  const around = {
    questions: [
      ...first.questions,
      {
        id: 'i',
        kind: 'items',
        text: 'Pieces',
        required: false,
        items: [{ id: 's', text: 'Song', most: 3 }],
      },
      { id: 'p', kind: 'number', text: 'Pages', required: false, unit: 'pages' },
    ] as Question[],
    services: [{ id: 'x', name: 'The group' }],
    currency: { code: 'EUR', decimals: 2 },
  }

  it('read as clauses', () => {
    const words = (condition: Condition) => conditionWords(condition, around.questions)
    expect(words({ any: [is('a', true), { all: [{ person: 'new' }, { not: is('b', false) }] }] })).toBe(
      '“A” is yes or (the person is new and not: “B” is no)',
    )
    expect(words({ question: 'i', is: 'includes', value: 's' })).toBe('“Pieces” includes Song')
    expect(words({ question: 'p', is: '≥', value: 3 })).toBe('“Pages” is at least 3 pages')
    expect(words({ question: 'gone', is: 'answered' })).toBe('a question that is gone has an answer')
    expect(words({ all: [] })).toBe('in any case')
  })

  it('say what follows', () => {
    const words = (effect: Parameters<typeof effectWords>[0]) => effectWords(effect, around)
    expect(words({ do: 'minutes', minutes: 12, times: 'p' })).toBe('12 min longer for each of “Pages”')
    expect(words({ do: 'item', name: 'A song', price: 4_000, times: 'i', of: 's' })).toBe(
      'A song, €40.00 for each “Song”',
    )
    expect(words({ do: 'suggest', service: 'x' })).toBe('suggest The group')
  })

  it('tell how deep a question lies in the follow-ups', () => {
    const questions = [yes('a'), yes('b', is('a', true)), yes('c', is('b', true)), yes('d')]
    expect(depthsOf(questions, (question) => (question.when ? questionsIn(question.when) : []))).toEqual([
      0, 1, 2, 0,
    ])
  })
})
