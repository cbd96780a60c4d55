import { benchCalendar } from './calendar.ts'
import { benchCrowd } from './crowd.ts'
import { benchDelivery } from './delivery.ts'
import { benchHouse } from './house.ts'
import { benchMessages } from './messages.ts'
import { benchOpenings } from './openings.ts'
import { benchPlanning } from './planning.ts'
import { benchQuestions } from './questions.ts'
import { benchStart } from './start.ts'
import { benchWaiting } from './waiting.ts'

const only = process.argv[2]
if (!only || only === 'openings') await benchOpenings()
if (!only || only === 'calendar') await benchCalendar()
if (!only || only === 'questions') await benchQuestions()
if (!only || only === 'messages') await benchMessages()
if (!only || only === 'delivery') await benchDelivery()
if (!only || only === 'house') await benchHouse()
if (!only || only === 'start') await benchStart()
if (!only || only === 'crowd') await benchCrowd()
if (!only || only === 'waiting') await benchWaiting()
if (!only || only === 'planning') await benchPlanning()
