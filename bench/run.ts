import { benchCalendar } from './calendar.ts'
import { benchOpenings } from './openings.ts'
import { benchQuestions } from './questions.ts'

const only = process.argv[2]
if (!only || only === 'openings') benchOpenings()
if (!only || only === 'calendar') benchCalendar()
if (!only || only === 'questions') benchQuestions()
