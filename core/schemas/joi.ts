import Joi from 'joi'
import type { Maker, Schema } from '../shape/shape.ts'

/** How many keys more than it knows an object may have to be told each that it does not know. */
const STRAY_KEYS = 100

/** How many keys an object can have that takes no names but its own. */
function mostKeys({ $_terms: terms }: Joi.Schema): number | undefined {
  const { keys, patterns } = terms as { keys?: unknown[] | null; patterns?: unknown[] | null }
  return keys && !patterns?.length ? keys.length + STRAY_KEYS : undefined
}

/**
 * A type of Joi's that looks at the length first. Joi itself looks at every member of a list, and runs every check of
 * a text, before it finds that there are too many: one request could so keep the relay for minutes.
 */
const lengthFirst = (
  type: string,
  base: Joi.Schema,
  lengthOf: (value: unknown) => number | undefined,
): Joi.Extension => ({
  type,
  base,
  prepare(value, helpers) {
    const limit: unknown = helpers.schema.$_getRule('max')?.args?.limit ?? mostKeys(helpers.schema)
    const length = lengthOf(value)
    return typeof limit === 'number' && length !== undefined && length > limit
      ? { value, errors: helpers.error(`${type}.max`, { limit, value: undefined }) }
      : { value }
  },
})

/** Joi as the schemas here use it: lengths and counts are judged before contents. */
const joi: Joi.Root = Joi.extend(
  lengthFirst('string', Joi.string(), (value) => (typeof value === 'string' ? value.length : undefined)),
  lengthFirst('array', Joi.array(), (value) => (Array.isArray(value) ? value.length : undefined)),
  lengthFirst('object', Joi.object(), (value) =>
    value !== null && typeof value === 'object' && !Array.isArray(value)
      ? Object.keys(value).length
      : undefined,
  ),
)

const made = new WeakMap<Schema<unknown>, Joi.Schema>()

const maker: Maker = {
  joi,
  branch: (then, otherwise) => (otherwise ? { then, otherwise } : { then }),
  of: (schema) => {
    let found = made.get(schema)
    if (!found) {
      found = schema.make(maker)
      made.set(schema, found)
    }
    return found
  },
}

/** The schema of Joi's that a description comes to; made once. */
export const joiOf = (schema: Schema<unknown>): Joi.Schema => maker.of(schema)
