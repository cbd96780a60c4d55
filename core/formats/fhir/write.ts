import type {
  Extension,
  Questionnaire as FhirQuestionnaire,
  QuestionnaireItem,
  QuestionnaireItemAnswerOption,
} from 'fhir/r4'
import {
  type Condition,
  FILE_KINDS,
  type FileKind,
  type Question,
  type Questionnaire,
} from '../../questions/index.ts'
import { toEnableWhen } from './conditions.ts'
import {
  CONTROLS,
  ITEM_CONTROL,
  MAX_OCCURS,
  MAX_SIZE,
  MAX_VALUE,
  MIME_TYPE,
  MIN_OCCURS,
  MIN_VALUE,
  ORDINAL,
  OWN_QUESTION,
  OWN_SHEET,
  own,
  UNIT,
} from './names.ts'

/** Kinds of files as media types (RFC 6838). */
export const MEDIA_TYPES: Record<FileKind, string[]> = {
  picture: ['image/png', 'image/jpeg', 'image/webp'],
  pdf: ['application/pdf'],
  sound: ['audio/mpeg', 'audio/mp4', 'audio/ogg', 'audio/wav'],
  text: ['text/plain'],
}

/**
 * A questionnaire as HL7 FHIR R4 `Questionnaire`. What the standard has a place for stands there; rules, bands and all
 * else go along as JSON in extensions under our own name, so that nothing is lost on the way back.
 */
export function toFhir(questionnaire: Questionnaire): FhirQuestionnaire {
  const { id, name, version, questions, rules, bands, lookAbove, enquiryAbove } = questionnaire
  const items: QuestionnaireItem[] = []
  let inside = items
  for (const question of questions) {
    const item = itemOf(question, questions)
    if (question.kind === 'section') {
      item.item = [...(item.item ?? [])]
      items.push(item)
      inside = item.item
    } else inside.push(item)
  }
  // A section without anything in it would be an empty group, which the standard does not allow (que-1).
  for (const item of items) if (item.type === 'group' && item.item?.length === 0) item.type = 'display'
  for (const item of items) if (item.type === 'display') delete item.item
  const extension = own(OWN_SHEET, {
    ...(rules.length > 0 ? { rules } : {}),
    ...(bands.length > 0 ? { bands } : {}),
    ...(lookAbove === undefined ? {} : { lookAbove }),
    ...(enquiryAbove === undefined ? {} : { enquiryAbove }),
  })
  return {
    resourceType: 'Questionnaire',
    id: id.replaceAll('_', '-'),
    ...(extension.length > 0 ? { extension } : {}),
    version: String(version),
    name: machineName(name),
    title: name,
    status: 'active',
    subjectType: ['Person'],
    ...(items.length > 0 ? { item: items } : {}),
  }
}

/** A name for programs: letters and digits, the first a capital (invariant que-0). */
const machineName = (name: string): string => {
  const plain = name
    .normalize('NFKD')
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
    .map((word) => word[0]!.toUpperCase() + word.slice(1))
    .join('')
  return /^[A-Z]/.test(plain) ? plain.slice(0, 250) : `Questions${plain}`.slice(0, 250)
}

const integer = (url: string, value: number | undefined): Extension[] =>
  value === undefined ? [] : [{ url, valueInteger: value }]

const bound = (url: string, value: number | undefined): Extension[] =>
  value === undefined
    ? []
    : [Number.isInteger(value) ? { url, valueInteger: value } : { url, valueDecimal: value }]

/** The options of a choice, with what they are worth as ordinal values. */
const optionsOf = (
  question: Extract<Question, { kind: 'one' | 'several' }>,
): QuestionnaireItemAnswerOption[] =>
  question.choices.map(({ id, text, points }) => ({
    valueCoding: {
      ...(points === undefined ? {} : { extension: [{ url: ORDINAL, valueDecimal: points }] }),
      code: id,
      display: text,
    },
  }))

/** The item of one question: what the standard says of it, and the rest under our own name. */
function itemOf(question: Question, questions: readonly Question[]): QuestionnaireItem {
  const { id, text, help, required, when, kind } = question
  const kept: Record<string, unknown> = {}
  const extension: Extension[] = []
  const item: QuestionnaireItem = { linkId: id, text, type: 'string' }
  switch (question.kind) {
    case 'short':
      break
    case 'long':
      item.type = 'text'
      Object.assign(kept, pick(question, ['leastWords', 'mostWords', 'leastSentences', 'mostSentences']))
      break
    case 'one':
    case 'several':
      item.type = 'choice'
      item.answerOption = optionsOf(question)
      if (question.kind === 'several') {
        item.repeats = true
        extension.push(...integer(MIN_OCCURS, question.least), ...integer(MAX_OCCURS, question.most))
      }
      break
    case 'yesno':
      item.type = 'boolean'
      break
    case 'number':
      item.type = question.whole ? 'integer' : 'decimal'
      extension.push(...bound(MIN_VALUE, question.least), ...bound(MAX_VALUE, question.most))
      if (question.unit) extension.push({ url: UNIT, valueCoding: { display: question.unit } })
      break
    case 'scale':
      item.type = 'integer'
      extension.push(...bound(MIN_VALUE, question.least), ...bound(MAX_VALUE, question.most))
      Object.assign(kept, { kind, ...pick(question, ['leastName', 'mostName']) })
      break
    case 'date':
    case 'time':
    case 'url':
      item.type = question.kind
      break
    case 'email':
    case 'phone':
      kept.kind = kind
      break
    case 'address':
      item.type = 'text'
      Object.assign(kept, { kind, ...pick(question, ['travel']) })
      break
    case 'items':
      item.type = 'group'
      item.item = question.items.map((one) => ({
        linkId: `${id}/${one.id}`,
        text: one.text,
        type: 'integer' as const,
        extension: [
          { url: MIN_VALUE, valueInteger: 0 },
          { url: MAX_VALUE, valueInteger: one.most },
        ],
      }))
      Object.assign(kept, { kind, ...pick(question, ['least', 'most', 'unit']) })
      break
    case 'file':
      item.type = 'attachment'
      extension.push(
        { url: MAX_SIZE, valueDecimal: question.mostBytes / 1_048_576 },
        ...question.accepts.flatMap((one) =>
          MEDIA_TYPES[one].map((type) => ({ url: MIME_TYPE, valueCode: type })),
        ),
      )
      Object.assign(kept, pick(question, ['accepts', 'mostBytes']))
      break
    case 'passage':
      item.type = 'display'
      Object.assign(kept, pick(question, ['help']))
      break
    case 'section':
      item.type = 'group'
      Object.assign(kept, { kind, ...pick(question, ['help']) })
      break
  }
  if (required && item.type !== 'display' && item.type !== 'group') item.required = true
  else if (required) kept.required = true
  if (help && item.type !== 'display' && kind !== 'section')
    item.item = [helpOf(id, help), ...(item.item ?? [])]
  if (when) {
    const said = toEnableWhen(when, questions)
    if (said) Object.assign(item, said)
    // What the standard says otherwise, or not at all, goes along as it is.
    if (!said || JSON.stringify(said).includes('"exists"') || !isFlat(when)) kept.when = when
  }
  Object.assign(kept, pick(question, ['private', 'requiredAtDesk', 'shownAgain', 'eachTime']))
  const all = [...extension, ...own(OWN_QUESTION, kept)]
  return all.length > 0 ? { ...item, extension: all } : item
}

/** Whether the standard says a condition so that it is read back as it was. */
const isFlat = (when: Condition): boolean => {
  if ('all' in when || 'any' in when) return false
  return !('not' in when) && !('question' in when && when.is === '≠')
}

const helpOf = (id: string, help: string): QuestionnaireItem => ({
  linkId: `${id}/help`,
  text: help,
  type: 'display',
  extension: [{ url: ITEM_CONTROL, valueCodeableConcept: { coding: [{ system: CONTROLS, code: 'help' }] } }],
})

/** Some properties of a question, those that are there. */
const pick = (question: Question, keys: readonly string[]): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(question).filter(([key, value]) => keys.includes(key) && value !== undefined),
  )

/** The kinds of files that some media types stand for. */
export const fileKindsOf = (types: readonly string[]): FileKind[] =>
  (Object.keys(FILE_KINDS) as FileKind[]).filter((kind) =>
    MEDIA_TYPES[kind].some((type) => types.includes(type)),
  )
