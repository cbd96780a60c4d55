import { readFileSync } from 'node:fs'
import type { ParseArgsConfig } from 'node:util'

export const USAGE = `acolhida: the core on a practice file; answers are JSON

  validate FILE
  openings FILE --service ID --from DATE --days N --now INSTANT
           [--place ID] [--minutes N | --answers FILE] [--extras ID,ID] [--travel ID] [--person ID]
           [--zone Z] [--busy FILE.ics]
  why FILE --service ID --start INSTANT --now INSTANT   (with the same options)
  cost FILE --service ID --from DATE --days N --now INSTANT   (what each rule closes, and what easier ones would open)
  read FILE --service ID --answers FILE [--extras ID,ID] [--place ID --travel ID] [--person ID]
  check FILE --questionnaire ID [--service ID] [--draft yes]   (proves every way through the questions)
  replay FILE --questionnaire ID --answers DIR [--service ID]  (earlier answers, read by the draft)
  deadlines FILE --service ID --start INSTANT --now INSTANT [--place ID]
  standing FILE --person ID --now INSTANT                (what counts against somebody, and what follows)
  ledger FILE [--person ID]                              (what is owed and what has come)
  verify FILE [--number HEX]                             (proves the agreements, and that the list ends with a number)
  calendar FILE.ics --from DATE --days N [--zone Z]      (busy times as the core understands them)
  hours FILE --now INSTANT [--place ID]                  (hours as iCalendar, VAVAILABILITY)
  series FILE --service ID --rhythm week|fortnight|month --from DATE --time HH:MM --count N --now INSTANT
       [--least DAYS] [--greatest DAYS]                  (sessions planned at once; with the options of openings)
  series FILE --path ID --from DATE --now INSTANT [--person ID] [--rhythm …] [--time HH:MM]
                                                         (the sessions of a path, or what is left of it)
  balance FILE --person ID --now INSTANT                 (sessions used, planned and left of their paths, and the money)
  fill FILE --from INSTANT --to INSTANT --prefer longest-wait|fullest|known-first --now INSTANT
       [--by price|minutes] [--most N]                   (who of those who wait is to have a freed time)

  DATE as 2026-11-24, INSTANT as 2026-11-24T11:00Z
`

/** What can't be done as asked; the message says what and where. */
export class Unusable extends Error {}

/** Options as they were given. */
export type Values = Record<string, string | undefined>

const TEXT = { type: 'string' } as const
const ASKED = {
  service: TEXT,
  now: TEXT,
  place: TEXT,
  minutes: TEXT,
  answers: TEXT,
  extras: TEXT,
  travel: TEXT,
  person: TEXT,
  zone: TEXT,
  busy: TEXT,
}
/** Which options each command takes. */
export const OPTIONS: Record<string, NonNullable<ParseArgsConfig['options']>> = {
  validate: {},
  openings: { ...ASKED, from: TEXT, days: TEXT },
  why: { ...ASKED, start: TEXT },
  cost: { ...ASKED, from: TEXT, days: TEXT },
  read: { service: TEXT, answers: TEXT, extras: TEXT, place: TEXT, travel: TEXT, person: TEXT },
  check: { questionnaire: TEXT, service: TEXT, draft: TEXT },
  replay: { questionnaire: TEXT, service: TEXT, answers: TEXT },
  deadlines: { service: TEXT, start: TEXT, now: TEXT, place: TEXT },
  standing: { person: TEXT, now: TEXT },
  ledger: { person: TEXT },
  verify: { number: TEXT },
  calendar: { from: TEXT, days: TEXT, zone: TEXT },
  hours: { now: TEXT, place: TEXT },
  balance: { person: TEXT, now: TEXT },
  series: {
    ...ASKED,
    path: TEXT,
    rhythm: TEXT,
    from: TEXT,
    time: TEXT,
    count: TEXT,
    least: TEXT,
    greatest: TEXT,
  },
  fill: { from: TEXT, to: TEXT, prefer: TEXT, now: TEXT, by: TEXT, most: TEXT },
}

/** The text of a file. @throws Unusable when it can't be read */
export function readGiven(file: string): string {
  try {
    return readFileSync(file, 'utf8')
  } catch (error) {
    throw new Unusable(`${file} can't be read: ${(error as NodeJS.ErrnoException).code}`)
  }
}

/** An option that must be given. @throws Unusable without it */
export const need = (values: Values, name: string): string => {
  const value = values[name]
  if (value === undefined) throw new Unusable(`--${name} is missing`)
  return value
}

/** Reads an option with one of the core's readers, and names the option when that fails. */
export function option<T>(values: Values, name: string, reader: (text: string) => T): T {
  try {
    return reader(need(values, name))
  } catch (error) {
    if (error instanceof RangeError) throw new Unusable(`--${name}: ${error.message}`)
    throw error
  }
}

/** Reads a whole number from 1 to the most. */
export const countOption = (most: number) => (text: string) => {
  const n = Number(text)
  if (!Number.isInteger(n) || n < 1 || n > most)
    throw new RangeError(`"${text}" is not a whole number from 1 to ${most}`)
  return n
}
