import type { MessageFormatElement } from '@formatjs/icu-messageformat-parser'
import {
  isPluralElement,
  isPoundElement,
  isSelectElement,
  isTagElement,
  TYPE,
} from '@formatjs/icu-messageformat-parser/no-parser.js'
import { printAST } from '@formatjs/icu-messageformat-parser/printer.js'

/** A sentence as it stands for one case of what it depends on: as words with fields, to be changed. */
export interface Variant {
  /** Which case: "" where there is only one. */
  when: string
  text: string
}

/** What the number itself is called where it stands among the words. */
const POUND = 'number'

type Case = { when: string[]; elements: MessageFormatElement[] }

/** Every case of a sentence, each flat: what depends on something is said whole for each of its cases. */
function casesOf(elements: readonly MessageFormatElement[]): Case[] {
  const at = elements.findIndex((one) => isSelectElement(one) || isPluralElement(one))
  const found = elements[at]
  if (!found || !(isSelectElement(found) || isPluralElement(found)))
    return [{ when: [], elements: [...elements] }]
  return Object.entries(found.options).flatMap(([name, { value }]) =>
    casesOf([...elements.slice(0, at), ...value, ...elements.slice(at + 1)]).map((one) => ({
      when: [`${found.value} ${name}`, ...one.when],
      elements: one.elements,
    })),
  )
}

const written = (elements: readonly MessageFormatElement[]): string =>
  elements
    .map((one) => {
      if (one.type === TYPE.literal) return one.value
      if (isPoundElement(one)) return `{${POUND}}`
      if (isTagElement(one)) return `<${one.value}>${written(one.children)}</${one.value}>`
      return `{${one.value}}`
    })
    .join('')

/** A sentence in its cases. */
export const variantsOf = (message: readonly MessageFormatElement[]): Variant[] =>
  casesOf(message).map(({ when, elements }) => ({ when: when.join(', '), text: written(elements) }))

/** The fields of a sentence. */
export const fieldsOfMessage = (message: readonly MessageFormatElement[]): string[] => [
  ...new Set(
    variantsOf(message).flatMap(({ text }) => [...text.matchAll(/\{(\w+)\}/g)].map(([, name]) => name ?? '')),
  ),
]

/** Words as they can stand in a message: what would mean something there is quoted (ICU MessageFormat, apostrophes). */
const quoted = (text: string): string => text.replaceAll("'", "''")

/** One case as a message: its fields as ours fills them. */
function leaf(text: string, ours: ReadonlyMap<string, string>, inPlural: boolean): string {
  return text
    .split(/(\{\w+\})/)
    .map((piece) => {
      const name = /^\{(\w+)\}$/.exec(piece)?.[1]
      if (name === undefined) return inPlural ? quoted(piece).replaceAll('#', "'#'") : quoted(piece)
      if (name === POUND && inPlural && !ours.has(POUND)) return '#'
      return ours.get(name) ?? `{${name}}`
    })
    .join('')
}

/** How each field is filled in ours: plainly, or as a number. */
function fillings(
  elements: readonly MessageFormatElement[],
  into = new Map<string, string>(),
): Map<string, string> {
  for (const one of elements) {
    if (isSelectElement(one) || isPluralElement(one))
      for (const { value } of Object.values(one.options)) fillings(value, into)
    else if (isTagElement(one)) fillings(one.children, into)
    else if (one.type !== TYPE.literal && !isPoundElement(one)) into.set(one.value, printAST([one]))
  }
  return into
}

/** A message made of its cases, in the order of `variantsOf`. */
export function fromVariants(message: readonly MessageFormatElement[], texts: readonly string[]): string {
  const ours = fillings(message)
  let next = 0
  const make = (elements: readonly MessageFormatElement[], plural: boolean): string => {
    const at = elements.findIndex((one) => isSelectElement(one) || isPluralElement(one))
    const found = elements[at]
    if (!found || !(isSelectElement(found) || isPluralElement(found)))
      return leaf(texts[next++] ?? '', ours, plural)
    const isPlural = isPluralElement(found)
    const options = Object.entries(found.options).map(([name, { value }]) => {
      const inner = [...elements.slice(0, at), ...value, ...elements.slice(at + 1)]
      return `${name} {${make(inner, plural || isPlural)}}`
    })
    return `{${found.value}, ${isPlural ? 'plural' : 'select'}, ${options.join(' ')}}`
  }
  return make(message, false)
}
