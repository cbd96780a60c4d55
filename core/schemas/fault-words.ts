import type Joi from 'joi'

/** What fields are called in a sentence, where their key is not the word one would use. */
const NAMES: Record<string, string> = {
  email: 'The mail address',
  name: 'The name',
  title: 'The title',
  text: 'The text',
  phone: 'The phone number',
  address: 'The address',
  minutes: 'The number of minutes',
  start: 'The start',
  zone: 'The time zone',
  currency: 'The currency',
  slug: 'The address of the door',
  headline: 'The line about you',
  greeting: 'The greeting',
  about: 'What you say of yourself',
  note: 'The note',
  message: 'The message',
  code: 'The code',
  places: 'The list of places',
  price: 'The price',
  amount: 'The amount',
  from: 'The beginning',
  to: 'The end',
  times: 'The times',
}

type Context = Joi.ValidationErrorItem['context']

const limit = (context: Context): string => String(context?.limit ?? '')
const things = (context: Context): string => `${limit(context)} ${context?.limit === 1 ? 'entry' : 'entries'}`

/** What each check of Joi’s means, said of a field; what is not here has words of its own. */
const SAYS: Record<string, (context: Context) => string> = {
  'any.required': () => 'is missing',
  'any.unknown': () => 'is not known here',
  'any.invalid': () => 'can’t be that',
  'any.only': (context) => `must be one of ${((context?.valids ?? []) as unknown[]).map(String).join(', ')}`,
  'string.base': () => 'is not a text',
  'string.empty': () => 'is missing',
  'string.max': (context) => `is too long; ${limit(context)} characters are the most`,
  'string.min': (context) => `is too short; ${limit(context)} characters are the least`,
  'string.length': (context) => `has ${limit(context)} characters`,
  'number.base': () => 'is not a number',
  'number.integer': () => 'is not a whole number',
  'number.unsafe': () => 'is too large a number',
  'number.infinity': () => 'is no number',
  'number.min': (context) => `must be at least ${limit(context)}`,
  'number.max': (context) => `must be at most ${limit(context)}`,
  'number.greater': (context) => `must be more than ${limit(context)}`,
  'number.less': (context) => `must be less than ${limit(context)}`,
  'boolean.base': () => 'must be yes or no',
  'array.base': () => 'is not a list',
  'array.max': (context) => `is too long; ${things(context)} are the most`,
  'array.min': (context) =>
    `is too short; ${things(context)} ${context?.limit === 1 ? 'is' : 'are'} the least`,
  'array.length': (context) => `has ${things(context)}`,
  'array.includesRequiredUnknowns': () => 'is too short',
  'object.base': () => 'is not what belongs here',
  'object.max': (context) => `has too many entries; ${limit(context)} are the most`,
  'object.unknown': () => 'is not known here',
  'alternatives.any': () => 'is not what belongs here',
  'alternatives.match': () => 'is not what belongs here',
  'alternatives.types': () => 'is not what belongs here',
}

/** The name of the innermost field that a fault is about. */
function nameOf(path: Joi.ValidationErrorItem['path']): string {
  const key = path.findLast((part) => typeof part === 'string')
  const last = path.at(-1)
  if (key === undefined) return 'It'
  // Settings of the surroundings are written as they are.
  const name = NAMES[key] ?? (/^[A-Z_]+$/.test(key) ? key : `“${key}”`)
  return typeof last === 'number' ? `${name}, number ${last + 1},` : name
}

/** A fault as a sentence for people, in none of the validator’s words. */
export function faultWords({ type, path, context, message }: Joi.ValidationErrorItem): string {
  const says = SAYS[type]
  if (says) return `${nameOf(path)} ${says(context)}.`
  // Words of the schema's own, which begin with the key.
  const label = String(context?.label ?? '')
  const said = label && message.startsWith(label) ? `${nameOf(path)}${message.slice(label.length)}` : message
  return /[.!?]$/.test(said) ? said : `${said}.`
}
