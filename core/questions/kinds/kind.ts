import type {
  Extension,
  QuestionnaireItem,
  QuestionnaireResponseItem,
  QuestionnaireResponseItemAnswer,
} from 'fhir/r4'
import type { Keys, KeysOf } from '../../shape/shape.ts'
import type { FieldWord, Sentence, Wrong } from '../../words/index.ts'
import type { AnswerValue, Base, Choice, Condition, Item } from '../base.ts'
import type { Amount } from '../limit.ts'

/** How an answer can be compared in a condition. */
export type Comparing = Extract<Condition, { question: string }>['is']

/** A value that an answer is compared with. */
export type Compared = string | number | boolean

/** What an effect multiplies by: an answer, or how many of one item in it. */
export interface Multiplier {
  times: string
  of?: string
}

/** What conditions and effects look at in the answers to a question. */
export interface Looked {
  /** The values they compare it with. */
  compared: readonly Compared[]
  counts: readonly Multiplier[]
  /** Whether points matter to what follows. */
  scored: boolean
}

/**
 * One way of answering: an answer that would be taken, and with how many ways it counts. Where it stands for a stretch
 * of numbers, how many it comes to at an end of that.
 */
export type Way<V = AnswerValue> = [value: V, weight: number, many?: Amount]

/** More ways of answering one question than are looked at one by one. */
export const MOST_OPTIONS = 4_096

/** A question with more ways of answering than can be told apart. */
export class TooMany extends Error {}

/** Something that is said about a question of one kind, as the practitioner sets it. */
export type KindSetting = { key: string; label: string } & (
  | { is: 'whole' | 'number'; must?: string }
  | { is: 'text' | 'switch' | 'choices' | 'items' | 'files' | 'kilobytes' }
)

/** How an answer stands in a file of HL7 FHIR R4: the data type, and the value in it. */
export type Element =
  | { as: 'String' | 'Date' | 'Time' | 'Uri'; value: string }
  | { as: 'Integer' | 'Decimal'; value: number }
  | { as: 'Boolean'; value: boolean }
  | { as: 'Coding'; value: { code: string; display?: string } }

/** What is known of an item while it is read. */
export interface ItemReading {
  least?: number
  most?: number
  /** What was kept of it under our own name. */
  kept: Readonly<Record<string, unknown>>
  choices(): Choice[]
  /** Tells that something is not taken over. */
  say(what: string): void
}

/** A kind of question in HL7 FHIR R4 `Questionnaire`. `Q` is the question, `S` what is its own. */
export interface InFhir<Q, S> {
  /** The item: what the standard says of it, and what it has no place for, kept under our own name. */
  write(question: Q): {
    item: Pick<QuestionnaireItem, 'type'> & Partial<QuestionnaireItem>
    extension?: Extension[]
    kept?: readonly (keyof S & string)[]
    /** Its kind is kept, too: by its type alone it would be read as another. */
    named?: boolean
  }
  /** Types of items that are read as it when its kind was kept. */
  as: readonly QuestionnaireItem['type'][]
  /** Whether an item of which no kind was kept is read as it. */
  reads(item: QuestionnaireItem): boolean
  /** What is its own; nothing when it can't be one. */
  read(item: QuestionnaireItem, reading: ItemReading): S | undefined
  /** An answer, or what it is compared with; nothing where the standard compares otherwise than we. */
  element?(question: Q, value: Exclude<AnswerValue, string[]>): Element
  /** Where an answer is no single value. */
  respond?(question: Q, value: AnswerValue): Partial<QuestionnaireResponseItem>
  answered?(item: QuestionnaireResponseItem): AnswerValue | undefined
}

/** What is listed in a question: choices, or items. */
export type Listed = readonly (Choice | Item)[]

/** What there is of any kind of question. */
export interface AnyKind<Q> {
  /** What it is called where one chooses a kind. */
  name: string
  /** Whether there is anything to answer. */
  asks: boolean
  settings: readonly KindSetting[]
  /** What is wrong with an answer that is neither empty nor sealed. */
  problem(question: Q, value: AnswerValue): Wrong | undefined
  /** What bounds an answer, told before anybody breaks it. */
  limits?(question: Q): Sentence<FieldWord>[]
  /** An answer in words, as people read it. */
  words(question: Q, value: AnswerValue): string
  /**
   * The ways of answering: each by itself where they can be counted, else one for all that nothing tells apart. Only
   * answers that would be taken. @throws TooMany
   */
  ways(question: Q, looked: Looked): Way[]
  /** Why no answer is possible; nothing when one is. */
  impossible?(question: Q): string | undefined
  /** The comparisons that make sense, the plainest first. */
  compares: readonly Comparing[]
  /** What a comparison begins with. */
  first(question: Q, is: Comparing): Compared
  /** How a value to compare with is typed. */
  typed: 'text' | 'number' | 'date' | 'time' | 'yesno'
  /** What can be compared with by name. */
  listed?(question: Q, is: Comparing): Listed | undefined
  /** Whether effects can multiply by an answer. */
  multiplies?: boolean
  shape: Keys
  /** What another kind leaves to it, and how it begins. @param listed the choices or items of the kind before */
  begin(listed: Listed): object
  fhir: InFhir<Q, Record<string, unknown>>
}

/** Everything about one kind of question. `S` is what it has besides what all have. */
export interface Kind<S extends object = object> extends Omit<AnyKind<Base & S>, 'shape' | 'begin' | 'fhir'> {
  shape: KeysOf<S>
  begin(listed: Listed): S
  fhir: InFhir<Base & S, S>
}

/** Names of extensions of HL7 FHIR R4 and its Structured Data Capture that say what has no element of its own. */
export const FHIR = {
  minValue: 'http://hl7.org/fhir/StructureDefinition/minValue',
  maxValue: 'http://hl7.org/fhir/StructureDefinition/maxValue',
  minOccurs: 'http://hl7.org/fhir/StructureDefinition/questionnaire-minOccurs',
  maxOccurs: 'http://hl7.org/fhir/StructureDefinition/questionnaire-maxOccurs',
  unit: 'http://hl7.org/fhir/StructureDefinition/questionnaire-unit',
  ordinal: 'http://hl7.org/fhir/StructureDefinition/ordinalValue',
  maxSize: 'http://hl7.org/fhir/StructureDefinition/maxSize',
  mimeType: 'http://hl7.org/fhir/StructureDefinition/mimeType',
} as const

/** A bound as an extension, where there is one. */
export const bound = (url: string, value: number | undefined): Extension[] =>
  value === undefined
    ? []
    : [Number.isInteger(value) ? { url, valueInteger: value } : { url, valueDecimal: value }]

/** A least, a most or both, by the names of their sentences. */
export function limitsOf(
  words: Record<'least' | 'most' | 'between', FieldWord>,
  least: number | undefined,
  most: number | undefined,
): Sentence<FieldWord>[] {
  if (least !== undefined && most !== undefined) return [{ code: words.between, data: { least, most } }]
  if (most !== undefined) return [{ code: words.most, data: { most } }]
  return least === undefined ? [] : [{ code: words.least, data: { least } }]
}

/** The number an extension says. */
export function numberIn(extensions: readonly Extension[] | undefined, url: string): number | undefined {
  const one = extensions?.find((extension) => extension.url === url)
  return one?.valueInteger ?? one?.valueDecimal
}

/** The value an answer of a response holds, whatever its type. */
export const valueIn = (answer: QuestionnaireResponseItemAnswer): string | number | boolean | undefined =>
  answer.valueBoolean ??
  answer.valueInteger ??
  answer.valueDecimal ??
  answer.valueCoding?.code ??
  answer.valueDate ??
  answer.valueTime?.slice(0, 5) ??
  answer.valueUri ??
  answer.valueString

export const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i)

/** The numbers among what is compared. */
export const numbersIn = (compared: readonly Compared[]): number[] =>
  compared.filter((value): value is number => typeof value === 'number')

/**
 * Ways of writing a text: each that it is compared with, and some other.
 * @param other texts that are taken, each different
 * @param taken whether a text would be taken
 */
export function texts(
  { compared }: Looked,
  other: (n: number) => string,
  taken: (text: string) => boolean,
): Way<string>[] {
  const cuts = [...new Set(compared.map(String))]
  const others = range(0, cuts.length)
    .map(other)
    .filter((text) => !cuts.includes(text))
  return [...cuts, ...others.slice(0, 1)]
    .filter((text) => text.trim() !== '' && taken(text))
    .map((text) => [text, 1])
}
