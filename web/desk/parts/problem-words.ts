import { BadData } from '@acolhida/core/schemas/bad-data'

/** What went wrong, in the words of the place it is about. */
export const problemWords = (error: unknown): string =>
  error instanceof BadData
    ? error.faults.map((fault) => fault.message).join(' ')
    : error instanceof Error
      ? error.message
      : String(error)
