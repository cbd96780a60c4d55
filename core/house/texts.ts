import { type Booking, decide } from '../booking/index.ts'
import { circumstances } from './circumstances.ts'
import { happen, type Work } from './work.ts'

/** What somebody has answered to a text. */
export interface TextSaid {
  /** Of this message; the same when it is told again. */
  id: string
  from: string
  text: string
}

/** Words with which somebody wants no more texts, and wants them again (common practice, no source). */
const STOP = new Set(['stop', 'stopall', 'unsubscribe', 'end', 'quit', 'parar', 'sair', 'cancelar textos'])
const START = new Set(['start', 'unstop', 'voltar'])

const word = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/[.!]+$/, '')

/** A phone number as it is compared: its digits, less what stands before a country's code. */
const digitsOf = (phone: string): string => phone.replace(/\D/g, '').replace(/^00/, '')

/** Whether two ways of writing a number mean the same phone: one may leave the country out. */
function isSamePhone(a: string, b: string): boolean {
  const [one, other] = [digitsOf(a), digitsOf(b)]
  const least = Math.min(one.length, other.length)
  return least >= 7 && (one.endsWith(other.replace(/^0/, '')) || other.endsWith(one.replace(/^0/, '')))
}

/**
 * Takes in what somebody has answered to a text: a word to stop them, or to have them again, holds for everything that
 * is open of that number.
 * @returns how many bookings it was about
 */
export function textSaid(work: Work, { from, text }: TextSaid): { heard: number } {
  const { house } = work
  const said = word(text)
  const on = STOP.has(said)
  if (!on && !START.has(said)) return { heard: 0 }
  const theirs = [...house.openBookings()].filter(({ asked: { person } }) =>
    person.phone ? isSamePhone(person.phone, from) : false,
  )
  for (const booking of theirs) unwant(work, booking, on)
  return { heard: theirs.length }
}

function unwant(work: Work, booking: Booking, on: boolean): void {
  const command = { do: 'unwant', what: 'texts', on } as const
  const decision = decide(booking, command, circumstances(work.house, booking, work.now))
  if ('events' in decision && decision.events.length > 0) happen(work, booking.id, decision.events)
}
