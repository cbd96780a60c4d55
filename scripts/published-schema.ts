import { practiceFile } from '@acolhida/core/schemas'
import { joiOf } from '@acolhida/core/schemas/joi'

/** The JSON Schema of the practice file, made from the schema that the program itself uses. */
export function publishedSchema(): string {
  // Joi's types do not know yet what its documentation says of it (Standard JSON Schema).
  const joi = joiOf(practiceFile)
  if (!('~standard' in joi)) throw new Error('Joi gives no JSON Schema.')
  const standard: { jsonSchema?: { input(options: { target: string }): object } } = Object(joi['~standard'])
  const schema = standard.jsonSchema?.input({ target: 'draft-2020-12' })
  const named = {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Acolhida practice file, version 1',
    description:
      'Made from core/schemas by npm run schema. What depends on several places at once (blocks that overlap, services that name places that do not exist) is checked by the program and not here.',
    ...schema,
  }
  return `${JSON.stringify(withUniqueItems(named), null, 2)}\n`
}

/** Lists of things with ids: none is there twice. Of ids alone a JSON Schema can't say so, of the whole it can. */
function withUniqueItems(schema: unknown): unknown {
  if (Array.isArray(schema)) return schema.map(withUniqueItems)
  if (typeof schema !== 'object' || schema === null) return schema
  const all = Object.fromEntries(Object.entries(schema).map(([key, value]) => [key, withUniqueItems(value)]))
  const { type, items } = all as {
    type?: string
    items?: { required?: string[]; anyOf?: { required?: string[] }[] }
  }
  const named = (of: { required?: string[] } | undefined): boolean => of?.required?.includes('id') ?? false
  const unique = type === 'array' && (named(items) || (items?.anyOf?.every(named) ?? false))
  return unique ? { ...all, uniqueItems: true } : all
}
