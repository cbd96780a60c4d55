import { describe, expect, it } from 'vitest'
import { sampleService } from '../tests/sample.ts'
import { type Wrong, wrongWords } from '../words/index.ts'
import {
  addressAnswer,
  addressOf,
  answerWords,
  asked,
  atDesk,
  kindOfFile,
  newcomer,
  partsOf,
  problemsIn,
  problemWith,
  type Question,
  type Questionnaire,
  readAnswers,
} from './index.ts'
import { readPhone } from './phone.ts'

const said = (wrong: Wrong | undefined): string | undefined => wrong && wrongWords(wrong)

const base = { id: 'q', text: 'Q', required: true }
const items: Question = {
  ...base,
  kind: 'items',
  items: [
    { id: 'song', text: 'Song', most: 3 },
    { id: 'poem', text: 'Poem', most: 10 },
  ],
  least: 2,
  most: 5,
}
const file: Question = { ...base, kind: 'file', accepts: ['picture', 'pdf'], mostBytes: 2_048 }

describe('answers of each kind', () => {
  it.each<[Question, unknown, string | undefined]>([
    [{ ...base, kind: 'time' }, '14:30', undefined],
    [{ ...base, kind: 'time' }, '25:00', 'Please give a time of day, as 14:30.'],
    [{ ...base, kind: 'email' }, 'ana@example.org', undefined],
    [{ ...base, kind: 'email' }, 'ana@', 'Please give a mail address, as name@example.org.'],
    [{ ...base, kind: 'phone' }, '+44 7700 900123', undefined],
    [{ ...base, kind: 'phone' }, '12', 'Please give a phone number with its country, as +351 239 555 0100.'],
    [{ ...base, kind: 'address' }, 'Rua 1\n3000\nCoimbra', undefined],
    [{ ...base, kind: 'address' }, 'Rua 1\n\n', 'Please write the postal code and the town, too.'],
    [items, { song: 1, poem: 1 }, undefined],
    [items, { song: 1 }, 'At least 2 together, please (1 so far).'],
    [items, { song: 3, poem: 3 }, 'At most 5 together, please (6 now).'],
    [items, { song: 4 }, 'At most 3 of “Song”, please.'],
    [items, { gone: 2 }, 'Please say how many, in whole numbers.'],
    [items, 2, 'Please say how many.'],
    [items, {}, 'Please answer this one.'],
    [file, { file: 'f', name: 'a.pdf', type: 'pdf', size: 2_048 }, undefined],
    [
      file,
      { file: 'f', name: 'a.pdf', type: 'pdf', size: 2_049 },
      '“a.pdf” has 2 KB; at most 2 KB can be sent.',
    ],
    [
      file,
      { file: 'f', name: 'a.mp3', type: 'sound', size: 9 },
      '“a.mp3” is a recording (MP3, M4A, Ogg, WAV); asked for is a picture (PNG, JPEG, WebP) or a PDF.',
    ],
    [file, 'a.pdf', 'Please choose a file.'],
    [{ ...base, kind: 'passage' }, undefined, undefined],
    [{ ...base, kind: 'section' }, undefined, undefined],
  ])('$kind: %#', (question, value, problem) => {
    expect(said(problemWith(question, value as never))).toBe(problem)
  })

  it('takes what people write: right to left, emoji, ten thousand words', () => {
    const long: Question = { ...base, kind: 'long', mostWords: 200 }
    expect(problemWith(long, 'שלום, אני רוצה ללמוד לשיר 🎶')).toBeUndefined()
    expect(said(problemWith(long, 'word '.repeat(10_000)))).toBe('Please keep it under 20,000 characters.')
    const sentences: Question = { ...base, kind: 'long', leastSentences: 2, mostSentences: 3 }
    expect(said(problemWith(sentences, 'I sing at 7.30 in a choir'))).toBe(
      'A little more, please: at least 2 sentences (1 so far).',
    )
    expect(problemWith(sentences, 'I sing. Do you?! “Yes.”')).toBeUndefined()
    expect(said(problemWith(sentences, 'A. B. C. D.'))).toBe(
      'A little shorter, please: at most 3 sentences (4 now).',
    )
    expect(said(problemWith(long, 'ab '.repeat(300)))).toBe(
      'A little shorter, please: at most 200 words (300 now).',
    )
  })

  it('is written as people read it', () => {
    expect(answerWords(items, { song: 2, poem: 0 })).toBe('2 × Song')
    expect(answerWords(file, { file: 'f', name: 'a.pdf', type: 'pdf', size: 1_572_864 })).toBe(
      'a.pdf (1.5 MB)',
    )
  })

  it('keeps an address in its parts', () => {
    const address = { street: 'Rua das Flores 3', postalCode: '3000-123', town: 'Coimbra' }
    expect(addressOf(addressAnswer(address))).toEqual(address)
    expect(addressAnswer({ street: '', postalCode: '', town: '' })).toBe('')
  })
})

describe('phone numbers', () => {
  // Numbers set aside for fiction: Ofcom's +44 7700 900xxx, NANPA's 555-01xx.
  it('are written out with their country, and refused where they can not be', () => {
    expect(readPhone('07700 900123', 'GB')).toBe('+44 7700 900123')
    expect(readPhone('+1 (202) 555-0143')).toBe('+1 202 555 0143')
    expect(readPhone('12')).toBeUndefined()
    expect(readPhone('07700 900123')).toBeUndefined()
  })
})

describe('files', () => {
  const bytes = (...parts: (string | number)[]): Uint8Array =>
    Uint8Array.from(
      parts.flatMap((part) => (typeof part === 'number' ? [part] : [...part].map((c) => c.charCodeAt(0)))),
    )
  it.each([
    ['picture', bytes(0x89, 'PNG\r\n', 0x1a, 0x0a)],
    ['picture', bytes(0xff, 0xd8, 0xff, 0xe0)],
    ['picture', bytes('RIFF', 1, 2, 3, 4, 'WEBPVP8 ')],
    ['pdf', bytes('%PDF-1.7\n')],
    ['sound', bytes('ID3', 4, 0)],
    ['sound', bytes('RIFF', 1, 2, 3, 4, 'WAVEfmt ')],
    ['sound', bytes(0, 0, 0, 0x20, 'ftypM4A ')],
    ['text', bytes('Olá, sou eu.\n')],
    [undefined, bytes('MZ', 0x90, 0, 3)],
    [undefined, bytes('PK', 3, 4, 0)],
    [undefined, bytes()],
  ])('of the kind %s are told by how they begin', (kind, content) => {
    expect(kindOfFile(content)).toBe(kind)
  })
})

describe('parts', () => {
  const questions: Question[] = [
    { ...base, id: 'a', kind: 'yesno' },
    { ...base, id: 's', kind: 'section', required: false, when: { question: 'a', is: '=', value: true } },
    { ...base, id: 'b', kind: 'short' },
    { ...base, id: 'c', kind: 'short', when: { question: 'b', is: 'answered' } },
    { ...base, id: 't', kind: 'section', required: false },
    { ...base, id: 'd', kind: 'short', required: false, requiredAtDesk: true },
  ]

  it('are shown with all that stands in them, or not at all', () => {
    const shown = (a: boolean) =>
      partsOf(asked(questions, { a, b: 'x', c: 'y' }, newcomer).questions).map((part) => [
        part.section?.id,
        ...part.questions.map((question) => question.id),
      ])
    expect(shown(true)).toEqual([
      [undefined, 'a'],
      ['s', 'b', 'c'],
      ['t', 'd'],
    ])
    expect(shown(false)).toEqual([
      [undefined, 'a'],
      ['t', 'd'],
    ])
    // An answer in a part that is no longer shown is dropped.
    expect(asked(questions, { a: false, b: 'x' }, newcomer).answers).toEqual({ a: false })
  })

  it('must be filled by the client as they say, and by the practitioner as they say', () => {
    const given = { a: false }
    expect(problemsIn(questions, given, newcomer)).toEqual([])
    expect(problemsIn(atDesk(questions), given, newcomer).map((problem) => problem.question)).toEqual(['d'])
  })
})

describe('items in a quote', () => {
  const service = sampleService({ minutes: 30, lengthStep: 5, price: { kind: 'fixed', amount: 10_000 } })
  const questionnaire: Questionnaire = {
    id: 'q',
    name: 'Q',
    version: 1,
    questions: [items],
    rules: [
      { id: 'r1', name: 'R1', when: { all: [] }, effect: { do: 'minutes', minutes: 10, times: 'q' } },
      {
        id: 'r2',
        name: 'R2',
        when: { question: 'q', is: 'includes', value: 'song' },
        effect: { do: 'item', name: 'Song', price: 4_000, times: 'q', of: 'song' },
      },
      {
        id: 'r3',
        name: 'R3',
        when: { question: 'q', is: '≥', value: 4 },
        effect: { do: 'enquiry' },
      },
    ],
    bands: [],
  }

  it('count one by one or together', () => {
    const { quote, enquiryInstead } = readAnswers(
      service,
      questionnaire,
      { q: { song: 2, poem: 1 } },
      newcomer,
    )
    expect(quote.minutes).toBe(60)
    expect(quote.lines[1]).toEqual({ name: 'Song', quantity: 2, amount: 8_000 })
    expect(quote.price).toBe(18_000)
    expect(enquiryInstead).toBe(false)
    expect(readAnswers(service, questionnaire, { q: { song: 2, poem: 2 } }, newcomer).enquiryInstead).toBe(
      true,
    )
    expect(readAnswers(service, questionnaire, { q: { poem: 2 } }, newcomer).quote.lines).toHaveLength(1)
  })
})
