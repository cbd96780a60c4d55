import type Joi from 'joi'

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

const TAGS = new Set(['kind', 'do', 'is', 'type'])

/**
 * Where a value fits none of several shapes, the faults of the shape it means to be: the one whose tag
 * ("kind", "do") is right, and of these the one with the fewest faults.
 */
function meant(detail: Detail): Detail[] {
  const inner = (detail.context?.details ?? []) as Detail[]
  if (inner.length === 0) return [detail]
  const depth = detail.path.length
  const byTag = inner.filter(
    (one) => !(TAGS.has(String(one.path[depth])) && one.path.length === depth + 1 && one.type === 'any.only'),
  )
  const right = byTag.filter((one) => one.type !== 'object.unknown' && one.type !== 'any.required')
  const chosen = right.length > 0 ? right : byTag.length > 0 ? byTag : inner
  return chosen.slice(0, 1).flatMap(meant)
}

/**
 * Lets data in through a schema.
 * @param what names the data in the message ("The practice file")
 * @throws BadData with every fault and its place
 */
export function letIn<T>(schema: Joi.Schema, value: unknown, what: string): T {
  const { error, value: clean } = schema.validate(value, {
    abortEarly: false,
    convert: true,
    errors: { label: 'key', wrap: { label: '' } },
  })
  if (!error) return clean as T
  const faults = error.details.flatMap(meant).map((detail) => ({
    path: pathOf(detail.path),
    message: detail.message,
  }))
  throw new BadData(what, faults)
}
