import { addBook } from '@acolhida/core/words'
import fields from '@acolhida/core/words/fields'
import { wordsOn } from '../words/rich.tsx'

addBook('en', 'fields', fields)

/** Every sentence beside the fields of questions, by its name. */
export const { say } = wordsOn<keyof typeof fields>('fields')
