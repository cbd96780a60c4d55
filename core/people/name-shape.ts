import { holdsHtml } from '../questions/text.ts'
import { byHand, type Schema } from '../shape/shape.ts'
import { nameProblem } from './name.ts'

/** One line of what can be seen, without a web address: it goes into the heads of mails, also of mails to strangers. */
export const personName: Schema<string> = byHand(({ joi }) =>
  joi
    .string()
    .trim()
    .min(1)
    .max(120)
    .custom((value: string, helpers) => {
      const problem = nameProblem(value)
      if (problem === 'address') return helpers.error('string.uri')
      return problem || holdsHtml(value) ? helpers.error('string.pattern.base') : value
    })
    .messages({
      'string.pattern.base': '{{#label}} must be one line of plain text',
      'string.uri': '{{#label}} must be a name alone, without a web address',
    }),
)
