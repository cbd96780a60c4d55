import { benchCalendar } from './calendar.ts'
import { benchOpenings } from './openings.ts'

benchOpenings()
benchCalendar()
