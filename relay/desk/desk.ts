import { randomBytes, randomInt } from 'node:crypto'
import type { DeskCommand, DoorPackage, RecordPage } from '@acolhida/core/door'
import { checkPractice } from '@acolhida/core/practice'
import { sha256Hex } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'
import { carryOut } from '../door/link.ts'
import type { DoorAddress } from '../happen.ts'
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

/** A page of what has happened since a cursor. */
export function recordPage(store: Store, after: number, now: Instant): RecordPage {
  return { items: store.recordAfter(after, 500), ...store.recordEnds(), now }
}
