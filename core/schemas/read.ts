import type Joi from 'joi'
import { LABELS, type Schema } from '../shape/shape.ts'
import { BadData } from './bad-data.ts'
import { faultWords } from './fault-words.ts'
import { joiOf } from './joi.ts'

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
