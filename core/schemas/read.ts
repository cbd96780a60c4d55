import type Joi from 'joi'
import { LABELS, type Schema } from '../shape/shape.ts'
import { faultWords } from './fault-words.ts'
import { joiOf } from './joi.ts'

/** One thing wrong with data from outside: where it stands, and what is wrong with it. */
export interface Fault {
  /** As `practice.services[2].notice`; empty for the whole. */
  path: string
  message: string
}

/** Data from outside that did not pass its schema. */
export class BadData extends Error {
  readonly faults: Fault[]
  constructor(what: string, faults: Fault[]) {
    super(`${what}: ${faults.map((fault) => `${fault.path || 'the whole'}: ${fault.message}`).join('; ')}`)
    this.name = 'BadData'
    this.faults = faults
  }
}

type Detail = Joi.ValidationErrorItem
const pathOf = (path: Detail['path']): string =>
  path.reduce<string>(
    (s, part) => (typeof part === 'number' ? `${s}[${part}]` : s ? `${s}.${part}` : part),
    '',
  )

/** Where a value fits none of several shapes: the deepest fault, which is of the shape it means to be. */
function meant(detail: Detail): Detail[] {
  const inner = ((detail.context?.details ?? []) as Detail[]).filter(
    (other) => other.path.length > detail.path.length + 1,
  )
  return inner.length > 0 ? inner.slice(0, 1).flatMap(meant) : [detail]
}

/**
 * Lets data in through a schema.
 * @param what names the data in the message ("The practice file")
 * @param every names every fault, not only the first: for files, whose author mends them all; never for requests
 * @throws BadData with each fault and its place
 */
export function letIn<T>(schema: Schema<T>, value: unknown, what: string, every = true): T {
  const { error, value: clean } = joiOf(schema).validate(value, { abortEarly: !every, errors: LABELS })
  if (!error) return clean
  const faults = error.details.flatMap(meant).map((detail) => ({
    path: pathOf(detail.path),
    message: faultWords(detail),
  }))
  throw new BadData(what, faults)
}
