import { anyNumber, maybe, text, yes } from '../../shape/shape.ts'
import type { Wrong } from '../../words/index.ts'
import type { AnswerValue } from '../base.ts'
import { bound, FHIR, type Kind, type Looked, limitsOf, numbersIn, range, type Way } from './kind.ts'
import { waysOnLine } from './line.ts'

interface Bounds {
  least?: number
  most?: number
}

export interface Numeric extends Bounds {
  unit?: string
  whole?: boolean
}

/** Whole numbers are looked at one by one in a range of at most so many. */
const MOST_NUMBERS = 200

/** What is wrong with a number. */
export function problemWithNumber(
  { least, most }: Bounds,
  whole: boolean,
  value: AnswerValue,
): Wrong | undefined {
  if (typeof value !== 'number' || !Number.isFinite(value)) return { code: 'no-number' }
  if (whole && !Number.isInteger(value)) return { code: 'no-whole-number' }
  if (least !== undefined && value < least) return { code: 'too-small', data: { least } }
  return most !== undefined && value > most ? { code: 'too-large', data: { most } } : undefined
}

/** Why no number can be answered. */
export const impossibleBounds = ({ least, most }: Bounds): string | undefined =>
  least !== undefined && most !== undefined && least > most
    ? `No answer is possible: it must be at least ${least} and at most ${most}.`
    : undefined

/** A number, within bounds or without. */
export const numberKind: Kind<Numeric> = {
  name: 'A number',
  asks: true,
  shape: { least: maybe(anyNumber), most: maybe(anyNumber), unit: maybe(text(30)), whole: maybe(yes) },
  settings: [
    { key: 'least', label: 'At least', is: 'number' },
    { key: 'most', label: 'At most', is: 'number' },
    { key: 'unit', label: 'Unit', is: 'text' },
    { key: 'whole', label: 'Whole numbers only', is: 'switch' },
  ],
  begin: () => ({}),
  problem: (question, value) => problemWithNumber(question, question.whole === true, value),
  limits: ({ least, most, whole }) => [
    ...(whole && least === undefined && most === undefined ? [{ code: 'limit.whole' as const }] : []),
    ...limitsOf({ least: 'limit.least', most: 'limit.most', between: 'limit.between' }, least, most),
  ],
  words: ({ unit }, value) => (unit ? `${value} ${unit}` : String(value)),
  ways: numbers,
  impossible: impossibleBounds,
  compares: ['=', '≠', '<', '≤', '>', '≥', 'answered'],
  first: (question) => question.least ?? 0,
  typed: 'number',
  multiplies: true,
  fhir: {
    write: ({ least, most, whole, unit }) => ({
      item: { type: whole ? 'integer' : 'decimal' },
      extension: [
        ...bound(FHIR.minValue, least),
        ...bound(FHIR.maxValue, most),
        ...(unit ? [{ url: FHIR.unit, valueCoding: { display: unit } }] : []),
      ],
    }),
    as: ['integer', 'decimal', 'quantity'],
    reads: ({ type }) => type === 'integer' || type === 'decimal' || type === 'quantity',
    read: ({ type, extension }, { least, most }) => {
      const coding = extension?.find((extension) => extension.url === FHIR.unit)?.valueCoding
      const unit = coding?.display ?? coding?.code
      return {
        ...(type === 'integer' ? { whole: true } : {}),
        ...(least === undefined ? {} : { least }),
        ...(most === undefined ? {} : { most }),
        ...(unit ? { unit } : {}),
      }
    },
    element: ({ whole }, value) => ({ as: whole ? 'Integer' : 'Decimal', value: Number(value) }),
  },
}

/** Whole numbers one by one in a small range, else by what tells them apart. */
export function numbers(question: Numeric, { compared, counts }: Looked): Way<number>[] {
  const { least, most, whole } = question
  if (whole && least !== undefined && most !== undefined && most - least <= MOST_NUMBERS) {
    return range(Math.ceil(least), Math.floor(most)).map((value) => [value, 1])
  }
  return waysOnLine(question, numbersIn(compared), counts.length > 0)
}
