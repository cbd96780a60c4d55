import { randomBytes, randomInt } from 'node:crypto'
import { type Asked, type BookingEvent, blockingMove } from '@acolhida/core/booking'
import type { DeskCommand, DoorPackage, EnterBody, RecordPage } from '@acolhida/core/door'
import { newClient, why } from '@acolhida/core/openings'
import {
  checkPractice,
  placeOf,
  questionnaireOf,
  serviceOf,
  travelled,
  travelZoneOf,
} from '@acolhida/core/practice'
import { asked, readAnswers } from '@acolhida/core/questions'
import { sha256Hex } from '@acolhida/core/terms'
import { type Instant, instant } from '@acolhida/core/time'
import { askingOf, diaryAt, knownBy, published } from '../door/circumstances.ts'
import { carryOut } from '../door/link.ts'
import { readCode } from '../door/understand.ts'
import { type DoorAddress, happen } from '../happen.ts'
import { Refused } from '../refused.ts'
import type { Store } from '../store/store.ts'

/** Letters and digits that can't be taken for one another. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'

/** A new one-time code for pairing a desk; the codes before it end. Only its hash is kept. */
export function newPairingCode(store: Store): string {
  const part = (): string => Array.from({ length: 4 }, () => ALPHABET[randomInt(ALPHABET.length)]).join('')
  const code = `${part()}-${part()}-${part()}`
  store.act(() => store.set('pairing-code', sha256Hex(code)))
  return code
}

/** Whether a key is the paired desk's. */
export const isDesk = (store: Store, key: string): boolean => store.setting('desk-key') === sha256Hex(key)

/** Gives the desk that knows the code its key; a desk paired before is cut off, after saying so. */
export function pair(store: Store, code: string, replace: boolean): { key: string } {
  return store.act(() => {
    if (store.setting('pairing-code') !== sha256Hex(code.trim().toUpperCase())) {
      throw new Refused(
        403,
        'wrong-code',
        'This code is not right, or has been used. The relay prints a new one when it starts.',
      )
    }
    if (store.setting('desk-key') && !replace) {
      throw new Refused(
        409,
        'paired-already',
        'Another desk is paired with this relay. Going on here cuts that one off.',
      )
    }
    const key = randomBytes(32).toString('base64url')
    store.set('desk-key', sha256Hex(key))
    store.unset('pairing-code')
    return { key }
  })
}

/** Takes what the desk publishes. Runs inside `store.act`. */
export function publish(store: Store, next: DoorPackage): { revision: number } {
  const current = store.package
  if (current && next.practice.id === current.practice.id && next.revision < current.revision) {
    throw new Refused(
      409,
      'older-package',
      `The relay has revision ${current.revision} already; this is ${next.revision}.`,
    )
  }
  const errors = checkPractice(next.practice).filter((fault) => fault.grade === 'error')
  const first = errors[0]
  if (first) throw new Refused(422, 'practice', first.message, { where: `practice.${first.path}` })
  store.savePackage(next)
  return { revision: next.revision }
}

/** Carries out what the practitioner has decided. Runs inside `store.act`. */
export function command(
  store: Store,
  address: DoorAddress,
  body: DeskCommand,
  now: Instant,
): { seq: number } {
  const booking = store.booking(body.booking)
  if (!booking) throw new Refused(404, 'unknown-booking', 'The relay does not know this booking.')
  return { seq: carryOut(store, address, booking, body.command, now).seq }
}

/**
 * Books somebody in by hand: the practitioner may override every rule but the past and, unless they want the
 * clash, another session. Runs inside `store.act`.
 */
export function enter(store: Store, address: DoorAddress, body: EnterBody, now: Instant): { seq: number } {
  const { practice } = published(store)
  const service = serviceOf(practice, body.service)
  if (!service)
    throw new Refused(404, 'unknown-service', 'This service does not exist.', { where: 'service' })
  if (store.booking(body.id))
    throw new Refused(409, 'id-taken', 'There is a booking of this name already.', { where: 'id' })
  const start = instant(body.start)
  const person = knownBy(store, body.person.email)
  const travel = travelZoneOf(placeOf(practice, body.place), body.travel)
  const ask = {
    service: travelled(service, travel),
    place: body.place,
    minutes: body.minutes,
    asker: { ...newClient, who: 'practitioner' as const },
    now,
  }
  const blocking = blockingMove(why(practice, diaryAt(store, now), ask, start), body.clash)
  if (blocking.length > 0)
    throw new Refused(409, 'not-open', 'That time is not free any more.', { where: 'start' })
  const answers = body.answers ?? {}
  const extras = body.extras ?? []
  const asking = askingOf(person, service.id, 0)
  // Whoever is booked in without questions has answered none, and no rule speaks for or against them.
  const questionnaire = body.answers ? questionnaireOf(practice, service) : undefined
  const code = body.code?.trim() ? readCode(store, body, person, false, now) : undefined
  if (typeof code === 'string') throw new Refused(422, 'code', code, { where: 'code' })
  const reading = readAnswers(service, questionnaire, answers, asking, { extras, travel, whole: false, code })
  const event: Asked = {
    type: 'asked',
    at: now,
    service: service.id,
    place: body.place,
    start,
    minutes: body.minutes,
    person: body.person,
    standing: person?.standing ?? 'new',
    answers: asked(questionnaire?.questions ?? [], answers, asking).answers,
    ...(questionnaire ? { questionnaire: { id: questionnaire.id, version: questionnaire.version } } : {}),
    reading: { ...reading, quote: { ...reading.quote, minutes: body.minutes } },
    attempts: [],
    agreements: [],
    houseRules: practice.houseRules,
    currency: practice.profile.currency,
    until: now,
    byHand: true,
    ...(extras.length > 0 ? { extras } : {}),
    ...(travel ? { travel: travel.id } : {}),
    ...(body.address ? { address: body.address } : {}),
    ...(code ? { code: code.id } : {}),
  }
  const events: BookingEvent[] = [event, { type: 'welcomed', at: now, by: 'practitioner', settles: now }]
  return { seq: happen(store, practice, address, body.id, events, now).seq }
}

/** A page of what has happened since a cursor. */
export function recordPage(store: Store, after: number, now: Instant): RecordPage {
  return { items: store.recordAfter(after, 500), ...store.recordEnds(), now }
}
