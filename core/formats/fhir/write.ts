import type { Questionnaire as FhirQuestionnaire, QuestionnaireItem } from 'fhir/r4'
import { type Condition, kindOf, type Question, type Questionnaire } from '../../questions/index.ts'
import { toEnableWhen } from './conditions.ts'
import { CONTROLS, ITEM_CONTROL, OWN_QUESTION, OWN_SHEET, own } from './names.ts'

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

/** The item of one question: what the standard says of it, and the rest under our own name. */
function itemOf(question: Question, questions: readonly Question[]): QuestionnaireItem {
  const { id, text, help, required, when, kind } = question
  const written = kindOf(question).fhir.write(question)
  const extension = written.extension ?? []
  const item: QuestionnaireItem = { linkId: id, text, ...written.item }
  const kept: Record<string, unknown> = {
    ...(written.named ? { kind } : {}),
    ...pick(question, [...(written.kept ?? []), ...(kindOf(question).asks ? [] : ['help'])]),
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
