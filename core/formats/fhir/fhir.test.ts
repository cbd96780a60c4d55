import fc from 'fast-check'
import type { Questionnaire as FhirQuestionnaire } from 'fhir/r4'
import { describe, expect, it } from 'vitest'
import { BEGINNINGS } from '../../questions/beginnings/index.ts'
import { asked, newcomer, type Question, type Questionnaire } from '../../questions/index.ts'
import { fhirQuestionnaire, readFhirQuestionnaire } from '../../schemas/fhir.ts'
import { letIn } from '../../schemas/index.ts'
import { everyWay, questionnaireArb } from '../../tests/questionnaires.ts'
import { answersCsv } from '../answers-csv.ts'
import { fromFhirResponse, toFhir, toFhirResponse } from './index.ts'

const base = { text: 'Q', required: false }
/** One question of each kind, with everything that can be said about it. */
const everything: Questionnaire = {
  id: 'all',
  name: 'Everything, once',
  version: 4,
  questions: [
    { ...base, id: 'short', kind: 'short', required: true, help: 'Help.', shownAgain: true },
    {
      ...base,
      id: 'long',
      kind: 'long',
      leastWords: 3,
      mostWords: 90,
      mostSentences: 4,
      requiredAtDesk: true,
    },
    { ...base, id: 'part', kind: 'section', text: 'A part', help: 'Of it all.' },
    {
      ...base,
      id: 'one',
      kind: 'one',
      choices: [
        { id: 'x', text: 'X', points: 0 },
        { id: 'y', text: 'Y' },
      ],
    },
    { ...base, id: 'several', kind: 'several', choices: [{ id: 'x', text: 'X' }], least: 1, most: 1 },
    { ...base, id: 'yesno', kind: 'yesno', private: true },
    { ...base, id: 'number', kind: 'number', least: 1.5, most: 9, unit: 'm' },
    { ...base, id: 'whole', kind: 'number', whole: true },
    {
      ...base,
      id: 'scale',
      kind: 'scale',
      least: 0,
      most: 10,
      leastName: 'no',
      mostName: 'yes',
      eachTime: true,
    },
    { ...base, id: 'date', kind: 'date' },
    { ...base, id: 'time', kind: 'time' },
    { ...base, id: 'email', kind: 'email' },
    { ...base, id: 'phone', kind: 'phone' },
    { ...base, id: 'url', kind: 'url' },
    { ...base, id: 'address', kind: 'address', travel: true, required: true },
    {
      ...base,
      id: 'items',
      kind: 'items',
      required: true,
      items: [{ id: 's', text: 'Song', most: 3 }],
      least: 1,
    },
    { ...base, id: 'file', kind: 'file', accepts: ['pdf', 'sound'], mostBytes: 1_500_000, help: 'A file.' },
    { ...base, id: 'passage', kind: 'passage', help: 'Words to read.' },
    { ...base, id: 'last', kind: 'section', when: { question: 'one', is: '≠', value: 'x' } },
    {
      ...base,
      id: 'deep',
      kind: 'short',
      when: { any: [{ not: { all: [{ tag: 't' }] } }, { attempts: 2 }] },
    },
  ],
  rules: [
    {
      id: 'r',
      name: 'R',
      when: { question: 'yesno', is: '=', value: true },
      effect: { do: 'look', note: '' },
    },
  ],
  bands: [{ from: 3, outcome: 'look', name: 'much' }],
  lookAbove: 9_000,
}

const again = (questionnaire: Questionnaire) =>
  readFhirQuestionnaire(JSON.stringify(toFhir(questionnaire)), 'The file', questionnaire.id)

describe('questionnaires as HL7 FHIR R4', () => {
  it('come back as they were, whatever they hold', () => {
    expect(again(everything)).toEqual({ questionnaire: everything, unread: [] })
    for (const { questionnaire } of BEGINNINGS)
      expect(again(questionnaire).questionnaire).toEqual(questionnaire)
    fc.assert(
      fc.property(questionnaireArb(6), (questionnaire) => {
        expect(again(questionnaire)).toEqual({ questionnaire, unread: [] })
      }),
      { numRuns: 300 },
    )
  })

  it('have the shape of the standard: unique link ids, options with choices only, no empty group', () => {
    // Invariants que-0 to que-7 and que-12 of the R4 structure, as far as they can be broken here (from memory).
    const check = (items: FhirQuestionnaire['item'], seen = new Set<string>()): Set<string> => {
      for (const item of items ?? []) {
        expect(seen.has(item.linkId)).toBe(false)
        seen.add(item.linkId)
        if (item.type === 'group') expect(item.item?.length).toBeGreaterThan(0)
        if (item.type === 'display') {
          expect(item.item).toBeUndefined()
          expect(item.required).toBeUndefined()
        }
        if (item.answerOption) expect(item.type).toBe('choice')
        if ((item.enableWhen?.length ?? 0) > 1) expect(item.enableBehavior).toBeDefined()
        check(item.item, seen)
      }
      return seen
    }
    for (const questionnaire of [everything, ...BEGINNINGS.map((beginning) => beginning.questionnaire)]) {
      const fhir = toFhir(questionnaire)
      expect(fhir.name).toMatch(/^[A-Z]([A-Za-z0-9_]){0,254}$/)
      expect(fhir.id).toMatch(/^[A-Za-z0-9\-.]{1,64}$/)
      check(fhir.item)
      expect(letIn(fhirQuestionnaire, fhir, 'It')).toEqual(fhir)
    }
  })

  it('carry points as ordinal values, and private marks with them', () => {
    const item = toFhir(everything).item!.find((item) => item.linkId === 'part')!.item![0]!
    expect(item.answerOption![0]!.valueCoding).toEqual({
      code: 'x',
      display: 'X',
      extension: [{ url: 'http://hl7.org/fhir/StructureDefinition/ordinalValue', valueDecimal: 0 }],
    })
  })
})

describe('a file of another program', () => {
  const foreign: FhirQuestionnaire = {
    resourceType: 'Questionnaire',
    status: 'draft',
    title: 'Elsewhere',
    item: [
      {
        linkId: '1',
        type: 'group',
        text: 'First group',
        item: [
          {
            linkId: '1.1',
            type: 'boolean',
            text: 'Do you smoke?',
            item: [
              {
                linkId: '1.1.1',
                type: 'integer',
                text: 'How many?',
                enableWhen: [{ question: '1.1', operator: '=', answerBoolean: true }],
              },
            ],
          },
          {
            linkId: '1.2',
            type: 'group',
            text: 'Inner group',
            enableWhen: [{ question: '1.1', operator: '!=', answerBoolean: true }],
            item: [
              {
                linkId: '/4648-3',
                type: 'open-choice',
                text: 'Which?',
                answerOption: [
                  { valueString: 'This one' },
                  { valueCoding: { code: 'a b', display: 'That' } },
                ],
              },
            ],
          },
          { linkId: '1.3', type: 'dateTime', text: 'When?' },
        ],
      },
      { linkId: '2', type: 'reference', text: 'Who?' },
      { linkId: '3', type: 'choice', text: 'From elsewhere?', answerValueSet: 'http://example.org/set' },
      {
        linkId: '4',
        type: 'string',
        text: 'Then?',
        maxLength: 20,
        enableWhen: [
          { question: '/4648-3', operator: '=', answerCoding: { code: 'a b' } },
          { question: '9', operator: 'exists', answerBoolean: true },
        ],
      },
    ],
  }

  it('is read as far as it can be, in parts one after the other, and what can not be is listed', () => {
    const { questionnaire, unread } = readFhirQuestionnaire(JSON.stringify(foreign), 'The file', 'x')
    expect(questionnaire.questions.map((question) => [question.id, question.kind, question.text])).toEqual([
      ['1', 'section', 'First group'],
      ['1.1', 'yesno', 'Do you smoke?'],
      ['1.1.1', 'number', 'How many?'],
      ['1.2', 'section', 'Inner group'],
      ['4648-3', 'one', 'Which?'],
      ['1-2', 'section', 'First group'],
      ['1.3', 'date', 'When?'],
      ['more', 'section', 'More questions'],
      ['3', 'short', 'From elsewhere?'],
      ['4', 'short', 'Then?'],
    ])
    expect(unread).toEqual([
      '“Which?”: only its choices can be answered, not other words.',
      '“When?”: the time of day is not asked.',
      '“Who?”: questions of the kind “reference” are not read.',
      '“From elsewhere?”: its choices stand in another file; it is asked in words.',
      '“Then?”: its greatest length is not taken over.',
      '“Then?”: a condition on “9”, which is not asked before is not read.',
    ])
    const shown = (answers: object) =>
      asked(questionnaire.questions, answers as never, newcomer).questions.map((question) => question.id)
    expect(shown({ '1.1': true })).not.toContain('4648-3')
    expect(shown({ '1.1': false })).toContain('4648-3')
    expect(shown({ '1.1': false, '4648-3': 'a-b' })).toContain('4')
    expect(questionnaire.questions[9]!.when).toEqual({ question: '4648-3', is: '=', value: 'a-b' })
  })

  it.each([
    ['not JSON', '{', 'is not JSON'],
    ['another resource', '{"resourceType":"Patient"}', 'resourceType'],
    ['an item without a link id', '{"resourceType":"Questionnaire","item":[{"type":"string"}]}', 'linkId'],
    ['an unknown type', '{"resourceType":"Questionnaire","item":[{"linkId":"a","type":"poem"}]}', 'type'],
  ])('that is %s is refused with its place', (_, text, words) => {
    expect(() => readFhirQuestionnaire(text, 'The file', 'x')).toThrow(words)
  })

  it('lists everything that is not taken over', () => {
    const sd = 'http://hl7.org/fhir/StructureDefinition'
    const foreign = {
      resourceType: 'Questionnaire',
      title: 'Foreign',
      contained: [{ resourceType: 'ValueSet', id: 'feelings' }],
      extension: [{ url: `${sd}/questionnaire-signatureRequired`, valueBoolean: true }],
      item: [
        {
          linkId: 'a',
          type: 'integer',
          text: 'A',
          prefix: '1.',
          readOnly: true,
          initial: [{ valueInteger: 1 }],
          code: [{ code: 'x' }],
          extension: [
            { url: `${sd}/questionnaire-hidden`, valueBoolean: true },
            { url: 'http://hl7.org/fhir/uv/sdc/StructureDefinition/sdc-questionnaire-calculatedExpression' },
            { url: 'https://example.org/own-thing' },
            { url: `${sd}/minValue`, valueInteger: 0 },
          ],
        },
        {
          linkId: 'b',
          type: 'choice',
          text: 'B',
          answerOption: [{ valueCoding: { code: 'x', display: 'X' }, initialSelected: true }],
        },
        {
          linkId: 'c',
          type: 'group',
          text: 'C',
          prefix: 'II',
          item: [{ linkId: 'd', type: 'choice', text: 'D', answerValueSet: '#feelings' }],
        },
      ],
    }
    expect(readFhirQuestionnaire(JSON.stringify(foreign), 'The file', 'x').unread).toEqual([
      'What stands in the file itself is not read: ValueSet “feelings”.',
      'The questionnaire: that it must be signed is not taken over.',
      '“A”: its prefix is not taken over.',
      '“A”: its initial value is not taken over.',
      '“A”: that it can only be read is not taken over.',
      '“A”: what it means elsewhere (its code) is not taken over.',
      '“A”: that it is hidden is not taken over.',
      '“A”: what it is calculated from is not taken over.',
      '“A”: the extension “own-thing” is not taken over.',
      '“B”: which choice is chosen to begin with is not taken over.',
      '“C”: its prefix is not taken over.',
      '“D”: its choices stand in another file; it is asked in words.',
    ])
  })
})

describe('answers', () => {
  it('come back from a QuestionnaireResponse as they were given', () => {
    fc.assert(
      fc.property(questionnaireArb(4), fc.nat(), (questionnaire, pick) => {
        const ways = everyWay(questionnaire)
        const { answers } = asked(questionnaire.questions, ways[pick % ways.length]!, newcomer)
        const response = toFhirResponse(questionnaire, { id: 'b', at: 0 as never, answers })
        const plain = (given: object) =>
          JSON.parse(JSON.stringify(given, (_, value) => (value === 0 ? undefined : value)))
        expect(plain(fromFhirResponse(questionnaire.questions, response))).toEqual(plain(answers))
      }),
      { numRuns: 300 },
    )
  })

  it('name the questionnaire and its version, and when they were given', () => {
    const answers = {
      short: 'Words',
      date: '2026-11-24',
      time: '14:30',
      url: 'https://example.org',
      scale: 3,
    }
    const response = toFhirResponse(everything, {
      id: 'b_1',
      at: Date.UTC(2026, 10, 24, 11) as never,
      answers,
      name: 'Ana',
    })
    expect(response).toMatchObject({
      resourceType: 'QuestionnaireResponse',
      id: 'b-1',
      questionnaire: 'Questionnaire/all|4',
      authored: '2026-11-24T11:00:00Z',
      source: { display: 'Ana' },
      item: [
        { linkId: 'short', answer: [{ valueString: 'Words' }] },
        {
          linkId: 'part',
          item: [
            { linkId: 'scale', answer: [{ valueInteger: 3 }] },
            { linkId: 'date', answer: [{ valueDate: '2026-11-24' }] },
            { linkId: 'time', answer: [{ valueTime: '14:30:00' }] },
            { linkId: 'url', answer: [{ valueUri: 'https://example.org' }] },
          ],
        },
      ],
    })
  })

  it('are written as a table by RFC 4180, and no field of it is a formula', () => {
    const questions: Question[] = [
      { ...base, id: 'a', kind: 'long', text: 'What, "really"?' },
      { ...base, id: 's', kind: 'section', text: 'Part' },
      {
        ...base,
        id: 'b',
        kind: 'several',
        text: 'Which',
        choices: [
          { id: 'x', text: 'X' },
          { id: 'y', text: 'Y' },
        ],
      },
    ]
    const rows = [
      { told: { Name: 'Ana, of Coimbra' }, answers: { a: 'two\nlines', b: ['x', 'y'] } },
      { told: { Name: '=1+1' }, answers: {} },
      { told: { Name: ' \n=1+1\nx' }, answers: { a: '  @SUM(1)' } },
    ]
    expect(answersCsv(questions, rows)).toBe(
      '\uFEFFName,"What, ""really""?",Which\r\n"Ana, of Coimbra","two\nlines","X, Y"\r\n"\'=1+1",,\r\n"\' \n=1+1\nx","\'  @SUM(1)",\r\n',
    )
  })
})
