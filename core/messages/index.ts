export * from './answers-told.ts'
export * from './course-letters.ts'
export * from './digest.ts'
export * from './drafts.ts'
export * from './enquiry-letters.ts'
export * from './fields.ts'
export { nextPayment, prepareBy } from './hooks.ts'
export * from './html.ts'
export * from './kept-from.ts'
export {
  isStepName,
  type Letter,
  messageName,
  NEWS,
  nameOfMail,
  type OwnStep,
  type Step,
  type StepName,
  steeredOf,
  stepName,
  type Which,
} from './letter.ts'
export * from './letters.ts'
export * from './line-letters.ts'
export { languageFor, readerLanguage } from './lines.ts'
export * from './outlook.ts'
export * from './quote-steps.ts'
export * from './readers.ts'
export * from './segments.ts'
export * from './steps.ts'
export { DOOR_TOKEN, LINK_TOKEN, WORD_TOKEN, YOURS_TOKEN } from './tokens.ts'
