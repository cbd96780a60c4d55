import type { Minor } from '../money/index.ts'

/** What an answer can be: text, a choice's id, several ids, yes or no, a number. */
export type AnswerValue = string | string[] | number | boolean
/** Answers by question id. A question that was not answered has no entry. */
export type Answers = Record<string, AnswerValue>

export interface Choice {
  id: string
  text: string
}

interface Base {
  id: string
  text: string
  help?: string
  required: boolean
  /** Asked only when this holds; asked always where it is left out. */
  when?: Condition
  /** Read at the desk alone. */
  private?: boolean
}

export type Question =
  | (Base & { kind: 'short' })
  | (Base & { kind: 'long'; leastWords?: number; mostWords?: number })
  | (Base & { kind: 'one'; choices: Choice[] })
  | (Base & { kind: 'several'; choices: Choice[]; least?: number; most?: number })
  | (Base & { kind: 'yesno' })
  | (Base & { kind: 'number'; least?: number; most?: number; unit?: string; whole?: boolean })
  | (Base & { kind: 'scale'; least: number; most: number; leastName: string; mostName: string })
  | (Base & { kind: 'date' })
  | (Base & { kind: 'url' })

export type QuestionKind = Question['kind']

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
  | { do: 'minutes'; minutes: number; times?: string }
  /** An item with its price, times the number answered to a question, or once. */
  | { do: 'item'; name: string; price: Minor; times?: string }
  | { do: 'tag'; tag: string }
  | { do: 'deposit'; amount: Minor }
  | { do: 'suggest'; service: string }

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
