import Joi from 'joi'
import { tagged } from './tagged.ts'

/** An object with these keys and no others. */
export const object = (keys: Joi.SchemaMap): Joi.ObjectSchema => Joi.object(keys)
export const required = <T extends Joi.Schema>(schema: T): T => schema.required() as T
/** The same keys, every one of them required. */
export const all = (keys: Record<string, Joi.Schema>): Record<string, Joi.Schema> =>
  Object.fromEntries(Object.entries(keys).map(([key, schema]) => [key, required(schema)]))
/** The value that tells one of several shapes apart. */
export const kind = (value: string): Joi.Schema => Joi.string().valid(value).required()
/** One of several shapes, told apart by `kind`. */
export const byKind = (branches: Record<string, Joi.ObjectSchema>): Joi.AlternativesSchema =>
  tagged('kind', branches)
/** A list whose members have ids of their own. */
export const unique = (schema: Joi.Schema, most = 500): Joi.ArraySchema =>
  Joi.array()
    .items(schema)
    .max(most)
    .unique('id')
    .messages({ 'array.unique': '{{#label}} has the same id as an earlier one' })
