/** One thing wrong with data from outside: where it stands, and what is wrong with it. */
export interface Fault {
  /** As `practice.services[2].notice`; empty for the whole. */
  path: string
  message: string
}

/** Data from outside that did not pass its schema. */
export class BadData extends Error {
  readonly faults: Fault[]
  constructor(what: string, faults: Fault[]) {
    super(`${what}: ${faults.map((fault) => `${fault.path || 'the whole'}: ${fault.message}`).join('; ')}`)
    this.name = 'BadData'
    this.faults = faults
  }
}
