import { bookingSubject, waitingSubject } from '@acolhida/core/agenda'
import type { Booking, BookingEvent } from '@acolhida/core/booking'
import type { DoorPackage, SendBody } from '@acolhida/core/contract'
import {
  askerOf,
  type Does,
  deskFreed,
  deskLine,
  happen,
  lookIn,
  replan,
  understand,
} from '@acolhida/core/house'
import { askFor, costsLess, printOfShown, shownOf } from '@acolhida/core/request'
import type { Instant } from '@acolhida/core/time'
import type { Relay } from '../relay.ts'

/** What tests look at and do behind the relay's back. */

export const packOf = ({ here }: Relay): DoorPackage => here.keeper.house.pack!
export const bookingsOf = ({ here }: Relay): Booking[] => [...here.keeper.house.openBookings()]
export const bookingOf = ({ here }: Relay, id: string): Booking => here.keeper.house.booking(id)!

/** Puts a package in place, as if the desk had published it. */
export function publishTo(relay: Relay, pack: DoorPackage): void {
  const put: Does<DoorPackage, void> = ({ changes }, next) => {
    changes.push({ type: 'package', pack: next })
  }
  relay.here.call(put, pack)
  relay.here.call(replan, {})
}

/** Changes the practice, as if the desk had published that. */
export const changePractice = (
  relay: Relay,
  change: (practice: DoorPackage['practice']) => Partial<DoorPackage['practice']>,
): void => {
  const pack = packOf(relay)
  publishTo(relay, { ...pack, practice: { ...pack.practice, ...change(pack.practice) } })
}

/** A private link of a booking; as if it had gone by mail where it proves. */
export function linkTo(relay: Relay, booking: string, proves = true): string {
  const mint: Does<undefined, string> = (work) => {
    const id = work.ids()
    work.changes.push({ type: 'link', link: { id, subject: bookingSubject(booking), proves } })
    return id
  }
  return relay.here.secrets.of(relay.here.call(mint, undefined))
}

/** Puts somebody in line by hand. @returns their private link */
export function putInLine(relay: Relay, line: string, name: string, service = 'voice-assessment'): string {
  const person = { name, email: `${line}@example.org`, zone: 'Europe/Lisbon' }
  const join = { do: 'join' as const, service, place: 'studio', windows: [], person, silent: true }
  relay.here.call(deskLine, { line, command: join })
  return lineLink(relay, line)
}

/** A private link of a place in line, as if it had gone by mail. */
export function lineLink(relay: Relay, line: string): string {
  const mint: Does<undefined, string> = (work) => {
    const id = work.ids()
    work.changes.push({ type: 'link', link: { id, subject: waitingSubject(line), proves: true } })
    return id
  }
  return relay.here.secrets.of(relay.here.call(mint, undefined))
}

/** Holds a time out to somebody in line, as the practitioner does by hand. */
export function holdOut(relay: Relay, line: string, start: Instant): void {
  relay.here.call(deskFreed, { freed: `for-${line}`, command: { do: 'offer', line, start } })
}

/** Lets an event happen that nobody has asked for. */
export function letHappen(relay: Relay, booking: string, ...events: BookingEvent[]): void {
  const does: Does<BookingEvent[], unknown> = (work, all) => happen(work, booking, all)
  relay.here.call(does, events)
}

/** The fingerprint of what the door shows for a start; the relay is asked for nothing, and keeps nothing. */
export function shownTo(relay: Relay, body: Omit<SendBody, 'shown'>, language = 'en'): string {
  const now = relay.here.now()
  try {
    return lookIn(relay.here.keeper.house, language, (house) => {
      const understood = understand(house, body, now)
      const { practice, service, reading, whole } = understood
      const { place, start } = body
      const ask = askFor(understood, place, askerOf(house, service, body.with, now), now)
      const diary = house.diary(start, start, { visit: body.visit })
      const { quote } = costsLess(understood, diary, ask)(start) ? whole : reading
      return printOfShown(
        shownOf(practice, service.id, quote, { start, place, as: understood.asking.standing }),
      )
    })
  } catch {
    return '0'.repeat(64)
  }
}

/** Lets go every start that is kept while somebody fills in, as when its ten minutes are over. */
export function letKeepsGo(relay: Relay): void {
  const does: Does<undefined, void> = ({ house, changes }) => {
    for (const { doing, subject } of house.agenda())
      if (doing.do === 'unkeep') changes.push({ type: 'unkeep', visit: subject.id })
  }
  relay.here.call(does, undefined)
}

/** How much the record holds of what people have made happen; news of the mail comes by itself. */
export function recordLength({ store }: Relay): number {
  const { n } = store.db.prepare(`SELECT count(*) AS n FROM record WHERE kind <> 'mail'`).get() as {
    n: number
  }
  return n
}
