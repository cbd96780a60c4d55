import type { Problem } from '../contract/types.ts'
import { type RefusalWord, refusalWords } from '../words/index.ts'

/** Why something is not done: what HTTP calls it, a code for programs, a sentence for people, and what helps. */
export interface Turned {
  status: number
  problem: Problem
}

/** Something that is not done. Thrown inside the machine, and handed out of it as its answer. */
export class Refused extends Error {
  readonly status: number
  readonly problem: Problem

  /**
   * @param word the sentence that says why; what stands before a dot in its name is the code
   * @param more what stands in the sentence, and what helps; `message` where the practitioner has written their own
   */
  constructor(
    status: number,
    word: RefusalWord,
    { data, message = refusalWords(word, data), ...more }: Partial<Omit<Problem, 'code' | 'word'>> = {},
  ) {
    super(message)
    this.name = 'Refused'
    this.status = status
    const code = word.split('.')[0] ?? word
    this.problem = { code, word, ...(data ? { data } : {}), message, ...more }
  }
}
