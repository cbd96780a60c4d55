import type { AnswerValue, Attached, Quantities, Sealed } from './base.ts'

/** Whether an answer is a file. */
export const isAttached = (value: AnswerValue | undefined): value is Attached =>
  typeof value === 'object' && !Array.isArray(value) && 'file' in value && typeof value.file === 'string'

/** Whether an answer is sealed for the desk. */
export const isSealed = (value: AnswerValue | undefined): value is Sealed =>
  typeof value === 'object' && !Array.isArray(value) && 'sealed' in value && typeof value.sealed === 'string'

/** Whether an answer is how many of each item. */
export const isQuantities = (value: AnswerValue | undefined): value is Quantities =>
  typeof value === 'object' && !Array.isArray(value) && !isAttached(value) && !isSealed(value)

/** How many an answer comes to: a number itself, of items one or all together; nothing else counts. */
export function quantityIn(value: AnswerValue | undefined, item?: string): number {
  if (typeof value === 'number') return Math.max(0, value)
  if (!isQuantities(value)) return 0
  if (item !== undefined) return Math.max(0, value[item] ?? 0)
  return Object.values(value).reduce((sum, many) => sum + Math.max(0, many), 0)
}

/** Whether an answer says nothing: blank text, no choice, no item. */
export const isEmpty = (value: AnswerValue): boolean => {
  if (typeof value === 'string') return value.trim() === ''
  if (Array.isArray(value)) return value.length === 0
  return isQuantities(value) && quantityIn(value) === 0
}
