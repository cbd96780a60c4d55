import { waitingSubject } from '@acolhida/core/agenda'
import type { DeskFreedDoes, DeskLineDoes, LineDoes } from '@acolhida/core/contract'
import {
  type Does,
  type Doorkeeper,
  deskFreed,
  deskLine,
  inLine,
  joinLine,
  lineView,
  takeFreed,
} from '@acolhida/core/house'
import { sha256Hex, versionFingerprint } from '@acolhida/core/terms'
import { type Instant, shift } from '@acolhida/core/time'
import { lineAt, type PlaceInLine } from '@acolhida/core/waiting'
import type { Try } from './tries.ts'

export type LineTry = Extract<Try, { who: 'line' }>

/** What a history lends to those who wait. */
export interface Lent {
  keeper: Doorkeeper
  now: Instant
  secretOf(link: string): string
  name(): string
  call<B, A>(does: Does<B, A>, body: B, once?: boolean): unknown
}

/** A link as a mail brings it. */
function mailed({ call, secretOf }: Lent, line: string): string {
  const mint: Does<undefined, string> = (work) => {
    const id = work.ids()
    work.changes.push({ type: 'link', link: { id, subject: waitingSubject(line), proves: true } })
    return id
  }
  return sha256Hex(secretOf(String(call(mint, undefined, false))))
}

/** Those with whom something can be done, or anybody. */
const pick = (
  all: PlaceInLine[],
  can: (line: PlaceInLine) => boolean,
  nth: number,
): PlaceInLine | undefined => {
  const fit = nth % 5 === 0 ? all : all.filter(can)
  const from = fit.length > 0 ? fit : all
  return from[nth % Math.max(1, from.length)]
}

/** Somebody who waits, or the practitioner for them, tries something. */
export function tryInLine(lent: Lent, { does, nth, which }: LineTry): unknown {
  const { keeper, now, call } = lent
  const { house } = keeper
  const all = [...house.inLine()].sort((a, b) => (a.id < b.id ? -1 : 1))
  const { practice } = house.pack!
  const agreed = practice.terms.map(({ id, versions }) => ({
    terms: id,
    number: 1,
    fingerprint: versionFingerprint(id, versions[0]!),
  }))
  const person = { name: 'W', email: `w${which % 4}@example.org`, zone: 'Europe/Lisbon' }
  const windows = which % 3 === 0 ? [] : [{ weekdays: [1, 2, 3, 4, 5, 6, 7].slice(which % 4) as never }]
  if (does === 'join') {
    const visit = `visit-in-line-${nth % 2}`.padEnd(22, 'x')
    const body = { visit, service: 'a', place: 'video', answers: {}, windows, clock: now, person, agreed }
    const joined = call(joinLine, body)
    // Most press the mailed link at once.
    const open = [...house.inLine()].find((line) => line.status === 'unproved')
    if (which % 4 > 0 && open) call(inLine, { hash: mailed(lent, open.id), command: { do: 'prove' } })
    return joined
  }
  if (does === 'by-hand' || does === 'earlier') {
    const booked = [...house.openBookings()]
      .filter(({ status, service, start }) => status === 'booked' && service === 'a' && start > now)
      .sort((a, b) => (a.id < b.id ? -1 : 1))
    const own = does === 'earlier' ? booked[nth % Math.max(1, booked.length)] : undefined
    if (does === 'earlier' && !own) return 'nobody'
    const command: DeskLineDoes = {
      ...{ do: 'join', service: 'a', place: 'video', windows },
      person: own?.asked.person ?? person,
      ...(own ? { instead: own.id } : {}),
    }
    return call(deskLine, { line: lent.name(), command })
  }
  const line = pick(all, (one) => can(does, one, now), nth)
  if (!line) return 'nobody'
  const freed = line.offer?.freed ?? 'none'
  switch (does) {
    case 'take': {
      const shown = lineView(house, line, now).offer?.shown
      const body = { freed, shown: which % 6 === 0 ? 'e'.repeat(64) : (shown ?? ''), agreed }
      return call(takeFreed, { hash: mailed(lent, line.id), ...body })
    }
    case 'turn':
    case 'prove':
    case 'pause':
    case 'resume':
    case 'still':
    case 'leave':
    case 'change': {
      const command: LineDoes =
        does === 'turn' ? { do: 'turn', freed } : does === 'change' ? { do: 'change', windows } : { do: does }
      return call(inLine, { hash: mailed(lent, line.id), command })
    }
    case 'out':
      return call(deskLine, { line: line.id, command: { do: 'out', text: '' } })
    case 'back':
    case 'look':
      return call(deskLine, { line: line.id, command: { do: does } })
    default:
      return call(deskFreed, {
        freed: freedFor(lent, does, line, nth),
        command: freedDoes(lent, does, line, which),
      })
  }
}

const can = (does: LineTry['does'], line: PlaceInLine, now: Instant): boolean => {
  const { is } = lineAt(line, now)
  if (does === 'take' || does === 'turn' || does === 'skip') return is === 'offered'
  if (does === 'prove') return is === 'unproved'
  return is === 'waiting' || is === 'paused' || is === 'doubted'
}

function freedFor({ keeper }: Lent, does: LineTry['does'], line: PlaceInLine, nth: number): string {
  const open = [...keeper.house.freedTimes()]
    .filter(({ ended }) => !ended)
    .sort((a, b) => (a.id < b.id ? -1 : 1))
  if (does === 'offer' || does === 'book')
    return nth % 2 === 0 ? `by-hand-${line.id}` : (open[0]?.id ?? `by-hand-${line.id}`)
  return open[nth % Math.max(1, open.length)]?.id ?? line.offer?.freed ?? 'none'
}

function freedDoes(
  { now, name }: Lent,
  does: LineTry['does'],
  line: PlaceInLine,
  which: number,
): DeskFreedDoes {
  const start = line.offer?.start ?? shift(now, (1 + (which % 60)) * 3_600_000)
  switch (does) {
    case 'go':
      return { do: 'go', ask: which % 3 === 0 ? 'all' : 1 + (which % 3) }
    case 'skip':
      return { do: 'skip', line: line.id, ...(which % 3 === 0 ? { back: true } : {}) }
    case 'offer':
      return { do: 'offer', line: line.id, start }
    case 'book':
      return { do: 'book', line: line.id, start, booking: name() }
    default:
      return { do: 'stop' }
  }
}
