import type { Problem } from '@acolhida/core/door'

/** A request that the relay turns away: a status, a code for programs and a sentence for people. */
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
