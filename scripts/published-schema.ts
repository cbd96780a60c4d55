import { practiceFile } from '@acolhida/core/schemas'

interface WithJsonSchema {
  '~standard': { jsonSchema: { input(options: { target: string }): Record<string, unknown> } }
}

/** The JSON Schema of the practice file, made from the schema that the program itself uses. */
export function publishedSchema(): string {
  const schema = (practiceFile as unknown as WithJsonSchema)['~standard'].jsonSchema.input({
    target: 'draft-2020-12',
  })
  const named = {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Acolhida practice file, version 1',
    description:
      'Made from core/schemas by npm run schema. What depends on several places at once (blocks that overlap, services that name places that do not exist) is checked by the program and not here.',
    ...schema,
  }
  return `${JSON.stringify(named, null, 2)}\n`
}
