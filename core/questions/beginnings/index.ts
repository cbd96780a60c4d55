import type { Questionnaire } from '../types.ts'
import { gad7 } from './gad7.ts'
import { bodywork, coaching, pictures, tutoring } from './trades.ts'

/** A questionnaire to begin with. */
export interface Beginning {
  questionnaire: Questionnaire
  /** For whom it is. */
  about: string
}

/** Questionnaires to begin with: short ones of our own, and a published instrument. */
export const BEGINNINGS: readonly Beginning[] = [
  {
    questionnaire: coaching,
    about: 'Coaching: what it is about, whether it is the right time, and who else helps.',
  },
  { questionnaire: tutoring, about: 'Teaching: for whom, which subject and level, and until when.' },
  {
    questionnaire: bodywork,
    about: 'Movement and bodywork: what hurts, what a doctor should see first. Private.',
  },
  {
    questionnaire: pictures,
    about: 'Pictures and films: which occasion, how many, where; length and price follow.',
  },
  {
    questionnaire: gad7,
    about: 'GAD-7, seven questions about worry (Spitzer et al. 2006), with its points. Private.',
  },
]
