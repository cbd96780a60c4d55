import type { Minor } from '../money/index.ts'

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

interface Base {
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

export type Question =
  | (Base & { kind: 'short' })
  | (Base & {
      kind: 'long'
      leastWords?: number
      mostWords?: number
      leastSentences?: number
      mostSentences?: number
    })
  | (Base & { kind: 'one'; choices: Choice[] })
  | (Base & { kind: 'several'; choices: Choice[]; least?: number; most?: number })
  | (Base & { kind: 'yesno' })
  | (Base & { kind: 'number'; least?: number; most?: number; unit?: string; whole?: boolean })
  | (Base & { kind: 'scale'; least: number; most: number; leastName: string; mostName: string })
  | (Base & { kind: 'date' })
  | (Base & { kind: 'time' })
  | (Base & { kind: 'email' })
  | (Base & { kind: 'phone' })
  | (Base & { kind: 'url' })
  /** Three lines: street, postal code, town. `travel`: its postal code says how far to travel. */
  | (Base & { kind: 'address'; travel?: boolean })
  | (Base & { kind: 'items'; items: Item[]; least?: number; most?: number; unit?: string })
  | (Base & { kind: 'file'; accepts: FileKind[]; mostBytes: number })
  /** Something to read, which is not answered. */
  | (Base & { kind: 'passage' })
  /** Begins a part that is shown by itself; its condition is that of everything in it. */
  | (Base & { kind: 'section' })

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

export type Effect =
  | { do: 'close'; message: string; services: string[]; enquiry: boolean }
  | { do: 'look'; note: string }
  | { do: 'points'; points: number }
  /** Minutes times the number answered to a question, or once. */
  | { do: 'minutes'; minutes: number; times?: string; of?: string }
  /** An item with its price, times the number answered to a question (or how many `of` one of its items), or once. */
  | { do: 'item'; name: string; price: Minor; times?: string; of?: string }
  | { do: 'tag'; tag: string }
  | { do: 'deposit'; amount: Minor }
  | { do: 'suggest'; service: string }
  /** A message instead of a booking, whatever else is said. */
  | { do: 'enquiry' }

export interface Rule {
  id: string
  name: string
  when: Condition
  effect: Effect
}

/** From this many points on, the outcome is at least this. */
export interface Band {
  from: number
  outcome: Outcome
  /** What it is called: "moderate". */
  name?: string
}

/** What is asked and what follows from the answers. */
export interface Sheet {
  questions: Question[]
  rules: Rule[]
  bands: Band[]
  /** Prices above this are looked at first; above `enquiryAbove` they become an enquiry. */
  lookAbove?: Minor
  enquiryAbove?: Minor
}

export interface Questionnaire extends Sheet {
  id: string
  name: string
  version: number
  /** The next version, while it is being written. It stays at the desk. */
  draft?: Sheet
  /** What earlier versions asked, so that old answers keep their questions. */
  past?: { version: number; questions: Question[] }[]
}

export type Outcome = 'fits' | 'look' | 'closed'
