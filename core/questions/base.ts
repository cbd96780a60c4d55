/** How many of each item, by its id. */
export type Quantities = Record<string, number>

/** A file given as an answer; what is in it is kept under `file`. */
export interface Attached {
  file: string
  name: string
  type: FileKind
  /** In bytes. */
  size: number
}

/** An answer that only the desk can open: JSON Web Encryption in its compact form (RFC 7516). */
export interface Sealed {
  sealed: string
}

/** What an answer can be: text, a choice's id, several ids, yes or no, a number, quantities, a file, or something sealed. */
export type AnswerValue = string | string[] | number | boolean | Quantities | Attached | Sealed
/** Answers by question id. A question that was not answered has no entry. */
export type Answers = Record<string, AnswerValue>

export interface Choice {
  id: string
  text: string
  /** What it is worth, where answers are scored (FHIR: ordinal value). */
  points?: number
}

/** Something one can want several of. */
export interface Item {
  id: string
  text: string
  /** More than this can't be asked for. */
  most: number
}

/** Kinds of files that can be asked for, told by how they begin and not by their names. */
export type FileKind = 'picture' | 'pdf' | 'sound' | 'text'

/** What every question has, whatever its kind. */
export interface Base {
  id: string
  text: string
  help?: string
  required: boolean
  /** Whether the practitioner must fill it when entering somebody by hand; as for clients where it is left out. */
  requiredAtDesk?: boolean
  /** Asked only when this holds; asked always where it is left out. */
  when?: Condition
  /** Read at the desk alone. */
  private?: boolean
  /** Whether the client reads their answer again on the page of their booking. */
  shownAgain?: boolean
  /** Asked each time, also of somebody who has answered it before. */
  eachTime?: boolean
}

/** Comparisons with a missing answer are false, as `enableWhen` in HL7 FHIR R4 Questionnaire. */
export type Condition =
  | { all: Condition[] }
  | { any: Condition[] }
  | { not: Condition }
  | { question: string; is: '=' | '≠' | '<' | '≤' | '>' | '≥' | 'includes'; value: string | number | boolean }
  | { question: string; is: 'answered' }
  | { person: 'new' | 'known' | 'invited' }
  | { tag: string }
  /** How many earlier attempts with other answers there were, at least. */
  | { attempts: number }
