import { benchOpenings } from './openings.ts'

benchOpenings()
