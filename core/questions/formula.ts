import type { Condition } from './types.ts'

/**
 * Conditions as formulas over atoms, each formula kept once: two that mean the same by their shape are the same
 * number, so that states which look alike from some question on can be told to be equal.
 */
export type Formula = number

/** What is compared in a condition: an answer with a value, or something about the person. */
export interface Atom {
  /** The question it looks at; nothing for the person. */
  question?: string
  condition:
    | Extract<Condition, { question: string }>
    | { person: string }
    | { tag: string }
    | { attempts: number }
}

type Node =
  | { kind: 'true' | 'false' }
  | { kind: 'atom'; atom: number }
  | { kind: 'not'; of: Formula }
  | { kind: 'all' | 'any'; of: Formula[] }

/** Answers that all atoms of one question have for one way of answering it. */
export type Truth = ReadonlyMap<number, boolean>

export class Formulas {
  static readonly TRUE: Formula = 0
  static readonly FALSE: Formula = 1
  readonly #nodes: Node[] = [{ kind: 'true' }, { kind: 'false' }]
  readonly #known = new Map<string, Formula>()
  readonly #atoms = new Map<string, number>()
  /** For each formula the atoms in it. */
  readonly #inside: Set<number>[] = [new Set(), new Set()]
  readonly #settled = new Map<string, Formula>()
  readonly atoms: Atom[] = []

  /** The formula of a condition; none is always true. */
  of(condition: Condition | undefined): Formula {
    if (!condition) return Formulas.TRUE
    if ('all' in condition)
      return this.#join(
        'all',
        condition.all.map((condition) => this.of(condition)),
      )
    if ('any' in condition)
      return this.#join(
        'any',
        condition.any.map((condition) => this.of(condition)),
      )
    if ('not' in condition) return this.#not(this.of(condition.not))
    const key = JSON.stringify(condition)
    let atom = this.#atoms.get(key)
    if (atom === undefined) {
      atom = this.atoms.length
      this.#atoms.set(key, atom)
      this.atoms.push('question' in condition ? { question: condition.question, condition } : { condition })
    }
    return this.#keep(`a${atom}`, { kind: 'atom', atom })
  }

  /** Whether a formula still depends on one of some atoms. */
  looksAt(formula: Formula, atoms: Truth): boolean {
    for (const atom of atoms.keys()) if (this.#inside[formula]!.has(atom)) return true
    return false
  }

  /** What is left of a formula once some atoms are settled. `name` stands for the truth, to remember the result. */
  settle(formula: Formula, truth: Truth, name: string): Formula {
    if (formula <= 1 || !this.looksAt(formula, truth)) return formula
    const key = `${formula} ${name}`
    let result = this.#settled.get(key)
    if (result === undefined) {
      result = this.#settle(formula, truth, name)
      this.#settled.set(key, result)
    }
    return result
  }

  #settle(formula: Formula, truth: Truth, name: string): Formula {
    const node = this.#nodes[formula]!
    switch (node.kind) {
      case 'true':
      case 'false':
        return formula
      case 'atom': {
        const value = truth.get(node.atom)
        return value === undefined ? formula : value ? Formulas.TRUE : Formulas.FALSE
      }
      case 'not':
        return this.#not(this.settle(node.of, truth, name))
      default:
        return this.#join(
          node.kind,
          node.of.map((number) => this.settle(number, truth, name)),
        )
    }
  }

  #not(of: Formula): Formula {
    if (of === Formulas.TRUE) return Formulas.FALSE
    if (of === Formulas.FALSE) return Formulas.TRUE
    const node = this.#nodes[of]!
    return node.kind === 'not' ? node.of : this.#keep(`!${of}`, { kind: 'not', of })
  }

  #join(kind: 'all' | 'any', parts: readonly Formula[]): Formula {
    const ends = kind === 'all' ? Formulas.FALSE : Formulas.TRUE
    const empty = kind === 'all' ? Formulas.TRUE : Formulas.FALSE
    const flat = new Set<Formula>()
    for (const part of parts) {
      if (part === ends) return ends
      const node = this.#nodes[part]!
      if (node.kind === kind) for (const number of node.of) flat.add(number)
      else if (part !== empty) flat.add(part)
    }
    for (const part of flat) if (flat.has(this.#not(part))) return ends
    const of = [...flat].sort((a, b) => a - b)
    if (of.length === 0) return empty
    if (of.length === 1) return of[0]!
    return this.#keep(`${kind === 'all' ? '&' : '|'}${of.join()}`, { kind, of })
  }

  #keep(key: string, node: Node): Formula {
    const found = this.#known.get(key)
    if (found !== undefined) return found
    const formula = this.#nodes.length
    this.#nodes.push(node)
    this.#inside.push(this.#atomsOf(node))
    this.#known.set(key, formula)
    return formula
  }

  #atomsOf(node: Node): Set<number> {
    switch (node.kind) {
      case 'atom':
        return new Set([node.atom])
      case 'not':
        return this.#inside[node.of]!
      case 'all':
      case 'any':
        return new Set(node.of.flatMap((number) => [...this.#inside[number]!]))
      default:
        return new Set()
    }
  }
}
