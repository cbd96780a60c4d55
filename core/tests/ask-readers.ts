import { spawnSync } from 'node:child_process'
import { existsSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import {
  type CalendarCase,
  calendarCases,
  ownBusy,
  ownStarts,
  type RuleCase,
  ruleCases,
} from './calendar-cases.ts'
import { type CardToWrite, cardsToRead, cardsToWrite, type OnCard, ownCard } from './card-cases.ts'

/** Debian's own Python, where its packages are. */
const PYTHON = '/usr/bin/python3'
const SCRIPT = resolve(import.meta.dirname, 'readers.py')

/** Whether the other reader of cards is installed here. */
export const cardReaderIsHere = (): boolean =>
  existsSync(PYTHON) && spawnSync(PYTHON, ['-c', 'import vobject']).status === 0

/** Whether the other readers are installed here. */
export const readersAreHere = (): boolean =>
  existsSync(PYTHON) &&
  spawnSync(PYTHON, ['-c', 'import dateutil, icalendar, recurring_ical_events, gi']).status === 0

/** What each of the other readers says of each case. */
export function askReaders(cases: readonly object[]): Record<string, string[] | string>[] {
  const input = `${cases.map((one) => JSON.stringify(one)).join('\n')}\n`
  const { stdout, status, stderr } = spawnSync(PYTHON, [SCRIPT], { input, maxBuffer: 1e9 })
  if (status !== 0) throw new Error(`The readers ended: ${stderr.toString()}`)
  return stdout
    .toString()
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, string[] | string>)
}

export const RULES = resolve(import.meta.dirname, 'fixtures', 'rules-read-elsewhere.json')

/** A case with what others said of it; `both` where libical says the same as dateutil. */
export type RuleVerdict = RuleCase & { starts: string[]; both: boolean }

/** Asks the readers anew, and keeps what they say: `node --import tsx core/tests/ask-readers.ts [calendars|cards]`. */
function keepVerdicts(count: number): void {
  const cases = ruleCases(count)
  // Where they begin is the first moment that dateutil has for the rule: a start it does not name is read differently.
  const firsts = askReaders(
    cases.map(({ rule, start }) => ({
      rule: rule.replace(/;COUNT=\d+/, ''),
      start,
      from: start,
      to: `${Number(start.slice(0, 4)) + 9}${start.slice(4)}`,
      readers: ['dateutil'],
    })),
  )
  const begun = cases.flatMap((one, i): RuleCase[] => {
    const first = firsts[i]?.dateutil
    return Array.isArray(first) && first[0] ? [{ ...one, start: first[0] }] : []
  })
  const kept = askReaders(begun).flatMap(({ dateutil, libical }, i): RuleVerdict[] =>
    // The first week of a rule that chooses among its days is begun differently by each reader.
    Array.isArray(dateutil) &&
    typeof ownStarts(begun[i]!) !== 'string' &&
    !(/WEEKLY.*BYSETPOS/.test(begun[i]!.rule) && begun[i]!.from <= begun[i]!.start)
      ? [{ ...begun[i]!, starts: dateutil, both: JSON.stringify(dateutil) === JSON.stringify(libical) }]
      : [],
  )
  writeFileSync(RULES, `[\n${kept.map((one) => JSON.stringify(one)).join(',\n')}\n]\n`)
  console.log(
    `${kept.length} verdicts of ${count} cases kept; libical says the same of ${kept.filter(({ both }) => both).length}`,
  )
}

export const CALENDARS = resolve(import.meta.dirname, 'fixtures', 'calendars-read-elsewhere.json')

/** A calendar with what recurring-ical-events says is busy. */
export type CalendarVerdict = CalendarCase & { busy: string[] }

function keepCalendars(count: number): void {
  const cases = calendarCases(count)
  const said = askReaders(cases)
  const kept = cases.flatMap((one, i): CalendarVerdict[] => {
    const busy = said[i]?.['recurring-ical-events']
    return Array.isArray(busy) ? [{ ...one, busy }] : []
  })
  writeFileSync(CALENDARS, `[\n${kept.map((one) => JSON.stringify(one)).join(',\n')}\n]\n`)
  const alike = kept.filter((one) => JSON.stringify(ownBusy(one)) === JSON.stringify(one.busy))
  console.log(`${kept.length} calendars kept; ${alike.length} read alike here`)
  for (const one of kept.filter((one) => !alike.includes(one)).slice(0, 3))
    console.log(one.calendar, one.busy, ownBusy(one))
}

export const CARDS = resolve(import.meta.dirname, 'fixtures', 'cards-read-elsewhere.json')

/** Cards with what vobject reads on ours, and its own as it writes them. */
export interface CardVerdicts {
  read: (OnCard & { verdict: OnCard })[]
  written: { of: CardToWrite; card: string }[]
}

/** What vobject says of cards. */
export function askCardReader(read: readonly OnCard[], write: readonly CardToWrite[]): CardVerdicts {
  const said = askReaders([
    ...read.map((of) => ({ card: ownCard(of) })),
    ...write.map((of) => ({ write: of })),
  ])
  const verdict = (i: number): unknown => said[i]?.vobject
  return {
    read: read.map((of, i) => ({ ...of, verdict: verdict(i) as OnCard })),
    written: write.map((of, i) => ({ of, card: String(verdict(read.length + i)) })),
  }
}

function keepCards(count: number): void {
  const kept = askCardReader(cardsToRead(count), cardsToWrite(count))
  writeFileSync(CARDS, `${JSON.stringify(kept, null, 1)}\n`)
  console.log(`${kept.read.length} cards read elsewhere, ${kept.written.length} written there`)
}

if (process.argv[1] === import.meta.filename) {
  const [, , what = 'all'] = process.argv
  if (what === 'all' || what === 'rules') keepVerdicts(2_050)
  if (what === 'all' || what === 'rules' || what === 'calendars') keepCalendars(150)
  if (what === 'all' || what === 'cards') keepCards(120)
}
