import { readFileSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { publishedSchema } from './published-schema.ts'

/** Writes `docs/practice.schema.json` from the schemas; `--check` only says whether it is up to date. */
const path = resolve(import.meta.dirname, '..', 'docs', 'practice.schema.json')
const text = publishedSchema()
if (process.argv.includes('--check')) {
  if (readFileSync(path, 'utf8') !== text)
    throw new Error('docs/practice.schema.json is out of date: npm run schema')
} else {
  writeFileSync(path, text)
}
