import {
  isArgumentElement,
  isDateElement,
  isNumberElement,
  isPluralElement,
  isPoundElement,
  isSelectElement,
  isTagElement,
  isTimeElement,
  type MessageFormatElement,
  parse,
} from '@formatjs/icu-messageformat-parser'

/** What a message is filled with: names of values, and tags. */
export interface MessageParts {
  values: Set<string>
  tags: Set<string>
}

function gather(elements: readonly MessageFormatElement[], into: MessageParts): MessageParts {
  for (const element of elements) {
    if (
      isArgumentElement(element) ||
      isNumberElement(element) ||
      isDateElement(element) ||
      isTimeElement(element)
    )
      into.values.add(element.value)
    if (isSelectElement(element) || isPluralElement(element)) {
      into.values.add(element.value)
      for (const option of Object.values(element.options)) gather(option.value, into)
    }
    if (isTagElement(element)) {
      into.tags.add(element.value)
      gather(element.children, into)
    }
    if (isPoundElement(element)) continue
  }
  return into
}

const partsOf = (message: readonly MessageFormatElement[]): MessageParts =>
  gather(message, { values: new Set(), tags: new Set() })

/**
 * What is wrong with a sentence of one's own that stands for one of ours: it must read as an ICU message, and be filled
 * with nothing that ours is not.
 */
export function sentenceFaults(own: string, ours: string | readonly MessageFormatElement[]): string[] {
  if (!own.trim()) return ['It says nothing.']
  if (own.length > 2_000) return ['It is longer than 2,000 characters.']
  let read: MessageFormatElement[]
  try {
    read = parse(own)
  } catch (error) {
    return [`It can’t be read: ${(error as Error).message.toLowerCase().replaceAll('_', ' ')}.`]
  }
  const known = partsOf(typeof ours === 'string' ? parse(ours) : ours)
  const used = partsOf(read)
  return [
    ...[...used.values]
      .filter((name) => !known.values.has(name))
      .map((name) => `There is no field “${name}” in it.`),
    ...[...used.tags]
      .filter((name) => !known.tags.has(name))
      .map((name) => `There is no mark “${name}” in it.`),
  ]
}

/** Everything wrong with the practitioner's own sentences; a sentence that there is none of, too. */
export function wordsFaults(
  words: Readonly<Record<string, Readonly<Record<string, string>>>>,
  ours: (language: string, key: string) => string | undefined,
): { path: string; message: string }[] {
  return Object.entries(words).flatMap(([language, sentences]) =>
    Object.entries(sentences).flatMap(([key, own]) => {
      const of = ours(language, key)
      const faults = of === undefined ? ['There is no such sentence.'] : sentenceFaults(own, of)
      return faults.map((message) => ({ path: `words.${language}.${key}`, message }))
    }),
  )
}
