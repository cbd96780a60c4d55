import { amountTyped } from '../money/typed.ts'
import { isMail, isPhone, nameProblem, normalMail } from '../people/index.ts'
import { type Practice, placeOf, type Service, serviceOf, zoneOf } from '../practice/index.ts'
import {
  clockTyped,
  dateTyped,
  dayNumber,
  type Instant,
  type LocalDate,
  MINUTE,
  minutesOf,
  parseInstant,
  shift,
  type Zone,
} from '../time/index.ts'
import type { Unread } from './arrival.ts'
import { plainHeading } from './columns.ts'
import { groupOf } from './group-of.ts'
import type { SessionRow } from './session-rows.ts'

/** A session that would be brought in, or how somebody stands, with where it came from. */
export interface Brought {
  row: number
  person: { name: string; email: string; phone?: string }
  /** Nothing where only how somebody stands is brought. */
  session?: { service: string; place: string; minutes: number; start: Instant; price?: number; paid?: number }
  /** Sessions that were paid and are still to be had, and what is owed, in minor units. */
  left?: { service: string; many: number }
  owes?: number
}

/** What would come of bringing sessions in. */
export interface SiftedSessions {
  come: Brought[]
  /** That are over. */
  past: number
  /** That are here already: of the same person at the same moment. */
  here: { row: number; name: string; start: Instant }[]
  /** That stand in the file twice. */
  twice: { row: number; name: string; first: number }[]
  /** That would lie in something else, by the rows of those that come. */
  clash: { row: number; name: string; start: Instant; with: string }[]
  wrong: Unread[]
}

/** Something a session could lie in. */
export interface InTheWay {
  start: Instant
  end: Instant
  name: string
  /** Which group session it is, where it is one: whoever comes to the same lies in nothing. */
  group?: string
}

/** What is looked at beside the rows. */
export interface BesideSessions {
  practice: Practice
  now: Instant
  today: LocalDate
  /** Which service is meant by a text, in its plain form; and by rows that name none. */
  services: Readonly<Record<string, string>>
  usual?: string
  /** What is in the diary. */
  taken: readonly InTheWay[]
  /** Whether somebody has something booked at a moment. */
  has(email: string, start: Instant): boolean
}

/** What a service is called in a row, in its plain form. */
export const plainService = (said: string): string => plainHeading(said)

/** Which of the services each text means, as far as its words tell: the same name, or one that holds the other. */
export function guessServices(said: Iterable<string>, services: readonly Service[]): Record<string, string> {
  const found: Record<string, string> = {}
  for (const text of said) {
    const plain = plainService(text)
    const names = services.map(({ id, name }) => ({ id, name: plainService(name) }))
    const same =
      names.find(({ name }) => name === plain) ??
      names.find(({ name }) => plain !== '' && (name.includes(plain) || plain.includes(name)))
    if (same) found[plain] = same.id
  }
  return found
}

/** When something begins or ends, in minutes of its day. @throws Error with a sentence */
function minutesTyped(typed: string): number {
  const minutes = minutesOf(clockTyped(typed))
  if (minutes === 1_440)
    throw new Error(`“${typed.trim()}” is not a time of day: the next day begins at 0:00.`)
  return minutes
}

/** A moment: with its offset, or by the clock of a place. @throws Error with a sentence */
function momentIn({ start, date, time: at }: SessionRow, there: Zone, today: LocalDate): Instant {
  if (/T.*(?:Z|[+-]\d{2}:?\d{2})$/.test(start)) return parseInstant(start)
  const [, day = '', clock = ''] = /^(.*\d{2,4}|[^T]*?)[T\s,]+(\d{1,2}[:.h]\d{2}.*)$/.exec(start) ?? []
  const on = date || day
  const time = at || clock
  if (!on) throw new Error('There is no date.')
  if (!time) throw new Error('There is no time of day.')
  return there.toInstant(dayNumber(dateTyped(on, today)), minutesTyped(time))
}

/** How long it is, in minutes: as it says, to its end, or as its service is. @throws Error with a sentence */
function lengthIn(row: SessionRow, start: Instant, service: Service, there: Zone): number {
  const { minutes, end } = row
  const said = minutes
    ? Number(minutes.replace(/\s*min(?:utes)?\.?$/i, ''))
    : end
      ? untilEnd(end, start, there)
      : service.minutes
  if (!Number.isInteger(said) || said < 1 || said > 1_440)
    throw new Error(`“${(minutes || end).slice(0, 40)}” is no length from 1 to 1,440 minutes.`)
  return said
}

function untilEnd(end: string, start: Instant, there: Zone): number {
  if (/T.*(?:Z|[+-]\d{2}:?\d{2})$/.test(end)) return (parseInstant(end) - start) / MINUTE
  const clock = /(\d{1,2}[:.h]\d{2}.*)$/.exec(end)?.[1] ?? end
  const { day } = there.toWall(start)
  const same = (there.toInstant(day, minutesTyped(clock)) - start) / MINUTE
  return same > 0 ? same : same + 1_440
}

/** Tries bringing sessions in, and changes nothing. */
export function siftSessions(rows: readonly SessionRow[], beside: BesideSessions): SiftedSessions {
  const sifted: SiftedSessions = { come: [], past: 0, here: [], twice: [], clash: [], wrong: [] }
  const first = new Map<string, number>()
  for (const row of rows) {
    try {
      const one = broughtFrom(row, beside)
      const { session, person } = one
      if (!session) {
        sifted.come.push(one)
        continue
      }
      const key = `${person.email} ${session.start}`
      const before = first.get(key)
      if (session.start <= beside.now) sifted.past++
      else if (beside.has(person.email, session.start))
        sifted.here.push({ row: row.row, name: person.name, start: session.start })
      else if (before !== undefined) sifted.twice.push({ row: row.row, name: person.name, first: before })
      else {
        first.set(key, row.row)
        sifted.come.push(one)
      }
    } catch (error) {
      sifted.wrong.push({ row: row.row, what: row.name || row.email, why: (error as Error).message })
    }
  }
  sifted.clash = clashesIn(sifted.come, beside)
  return sifted
}

/** One row, understood. @throws Error with a sentence */
function broughtFrom(row: SessionRow, { practice, today, services, usual }: BesideSessions): Brought {
  const { name, email, phone } = row
  if (!name) throw new Error('There is no name.')
  if (name.length > 120) throw new Error('The name is longer than 120 characters.')
  if (nameProblem(name)) throw new Error('The name must be one line of plain text, without a web address.')
  if (!email) throw new Error('There is no mail address: people are known by theirs.')
  if (!isMail(email)) throw new Error(`“${email.slice(0, 80)}” is no mail address.`)
  if (phone && !isPhone(phone)) throw new Error(`“${phone.slice(0, 40)}” is no phone number.`)
  const person = { name, email: normalMail(email), ...(phone ? { phone } : {}) }
  const { currency } = practice.profile
  const amount = (said: string): number | undefined => (said ? amountTyped(said, currency) : undefined)
  const of = services[plainService(row.service)] ?? usual
  const service = of === undefined ? undefined : serviceOf(practice, of)
  const left = row.left ? Number(row.left) : 0
  const owes = amount(row.owes)
  const stands = left > 0 || (owes ?? 0) > 0
  if (!Number.isInteger(left) || left < 0 || left > 60)
    throw new Error(`“${row.left.slice(0, 40)}” is no number of sessions from 0 to 60.`)
  const begins = row.start || row.date
  if (!service && (begins || left > 0))
    throw new Error(
      row.service ? `“${row.service.slice(0, 60)}” is none of your services.` : 'There is no service.',
    )
  if (!begins && !stands) throw new Error('There is neither a date nor anything that is left or owed.')
  const brought: Brought = {
    ...{ row: row.row, person },
    ...(left > 0 ? { left: { service: service!.id, many: left } } : {}),
    ...(owes ? { owes } : {}),
  }
  if (!begins) return brought
  const place = placeIn(row.place, practice, service!)
  const there = zoneOf(practice, placeOf(practice, place))
  const start = momentIn(row, there, today)
  const price = amount(row.price)
  const paid = amount(row.paid)
  return {
    ...brought,
    session: {
      ...{ service: service!.id, place, minutes: lengthIn(row, start, service!, there), start },
      ...(price === undefined ? {} : { price }),
      ...(paid ? { paid } : {}),
    },
  }
}

/** The place that a text means, of those where a service takes place; else the first of them. */
function placeIn(said: string, practice: Practice, { places }: Service): string {
  const plain = plainHeading(said)
  const named = places.find((id) => {
    const name = plainHeading(placeOf(practice, id)?.name ?? '')
    return plain !== '' && name !== '' && (name.includes(plain) || plain.includes(name))
  })
  return named ?? places[0] ?? ''
}

/** Which of them would lie in something that is in the diary, or in one another. */
function clashesIn(
  come: readonly Brought[],
  { practice, taken }: Pick<BesideSessions, 'practice' | 'taken'>,
): SiftedSessions['clash'] {
  const mine = come.flatMap(({ row, person, session }): (InTheWay & { row: number })[] => {
    if (!session) return []
    const { service, place, start, minutes } = session
    const group =
      (serviceOf(practice, service)?.seats ?? 1) > 1 ? { group: groupOf(service, place, start) } : {}
    return [{ row, start, end: shift(start, minutes * MINUTE), name: person.name, ...group }]
  })
  const all = [...taken.map((one) => ({ ...one, row: 0 })), ...mine].toSorted((a, b) => a.start - b.start)
  const found = new Map<number, SiftedSessions['clash'][number]>()
  const note = ({ row, name, start }: (typeof all)[number], other: InTheWay): void => {
    if (row > 0 && !found.has(row)) found.set(row, { row, name, start, with: other.name })
  }
  // In order of their starts, each meets those before it that are not over yet.
  let open: typeof all = []
  for (const one of all) {
    open = open.filter(({ end }) => end > one.start)
    for (const other of open) {
      if (one.group !== undefined && one.group === other.group) continue
      note(one, other)
      note(other, one)
    }
    open.push(one)
  }
  return [...found.values()].toSorted((a, b) => a.row - b.row)
}
