import type { Extension } from 'fhir/r4'

/** Extensions of HL7 FHIR R4 that say what has no element of its own, besides those that a kind of question writes. */
export const ITEM_CONTROL = 'http://hl7.org/fhir/StructureDefinition/questionnaire-itemControl'
export const CONTROLS = 'http://hl7.org/fhir/questionnaire-item-control'

/** What has no place in the standard, as JSON, under a name of our own. */
export const OWN = 'https://acolhida.example/fhir/StructureDefinition'
export const OWN_QUESTION = `${OWN}/question`
export const OWN_SHEET = `${OWN}/questionnaire`

export const own = (url: string, value: object): Extension[] =>
  Object.keys(value).length > 0 ? [{ url, valueString: JSON.stringify(value) }] : []

/** What an extension of our own says; nothing where there is none or it is not JSON. */
export function readOwn(extensions: readonly Extension[] | undefined, url: string): Record<string, unknown> {
  const text = extensions?.find((extension) => extension.url === url)?.valueString
  if (text === undefined) return {}
  try {
    const value: unknown = JSON.parse(text)
    return value && typeof value === 'object' && !Array.isArray(value)
      ? (value as Record<string, unknown>)
      : {}
  } catch {
    return {}
  }
}
