import type { Problem } from '../contract/types.ts'

/** Why something is not done: what HTTP calls it, a code for programs, a sentence for people, and what helps. */
export interface Turned {
  status: number
  problem: Problem
}

/** Something that is not done. Thrown inside the machine, and handed out of it as its answer. */
export class Refused extends Error {
  readonly status: number
  readonly problem: Problem

  constructor(status: number, code: string, message: string, more: Omit<Problem, 'code' | 'message'> = {}) {
    super(message)
    this.name = 'Refused'
    this.status = status
    this.problem = { code, message, ...more }
  }
}
