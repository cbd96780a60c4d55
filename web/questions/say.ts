import fields from '@acolhida/core/words/fields'
import { wordsOn } from '../words/rich.tsx'

/** Every sentence beside the fields of questions, by its name. */
export const { say } = wordsOn(fields)
