import type { Service } from '@acolhida/core/practice'
import type { Setting } from '../settings/setting.ts'

/** A value in a sentence, and the settings that change it. */
export interface SaidValue {
  say: string
  of: readonly Setting<Service>[]
}

/** A sentence about a service: words, and values that can be opened where they stand. */
export type SaidSentence = readonly (string | SaidValue)[]

export interface SentenceGroup {
  title: string
  sentences: readonly SaidSentence[]
}
