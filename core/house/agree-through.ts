import { seenAt } from '../booking/index.ts'
import type { AgreedVersion } from '../contract/types.ts'
import { serviceOf } from '../practice/index.ts'
import { Refused } from '../request/index.ts'
import { agreeNow, checkAgreed, lackingOf } from './agreeing.ts'
import { published } from './house.ts'
import { bookingBehind, carryOut, mayDo } from './link.ts'
import type { Work } from './work.ts'

/** Agrees through a private link to everything that is lacking; the name is typed anew. */
export function agreeThrough(
  work: Work,
  { hash, other, name, agreed }: { hash: string; other?: string; name: string; agreed: AgreedVersion[] },
): Record<string, never> {
  const { house, now } = work
  const led = bookingBehind(house, hash, other)
  mayDo(led, 'agree')
  const { booking } = led
  const seen = seenAt(booking, now)
  const { practice } = published(house)
  const service = serviceOf(practice, seen.service)
  const wanted = lackingOf(house, seen, now)
  if (!service || wanted.length === 0) throw new Refused(409, 'not-asked')
  checkAgreed(practice, wanted, agreed)
  carryOut(work, booking, { do: 'agree', agreements: agreeNow(work, service, wanted, name) })
  return {}
}
