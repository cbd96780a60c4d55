import { type Sealing, type Subject, sealingOf } from '../agenda/index.ts'
import { type SealedPart, withSealed } from '../booking/index.ts'
import { canonicalJson } from '../terms/index.ts'
import type { Instant } from '../time/index.ts'
import type { Change } from './changes.ts'
import type { House } from './house.ts'
import type { Work } from './work.ts'

/** What of a subject is to be sealed by now, with what it is sealed for. */
export function toSealNow(house: House, subject: Subject, now: Instant): Sealing | undefined {
  const sealing = house.seals ? sealingOf(house, subject) : undefined
  return sealing && sealing.from <= now ? sealing : undefined
}

/** Something that was sealed outside. */
export interface SealAway {
  subject: Subject
  part: SealedPart
  sealed: string
}

/** Puts what was sealed in the place of what stood in clear; nothing where that has changed since. */
export function sealAway(work: Work, { subject, part, sealed }: SealAway): Record<string, never> {
  const { house, now, changes } = work
  const sealing = toSealNow(house, subject, now)
  if (!sealing || canonicalJson(sealing.part) !== canonicalJson(part)) return {}
  changes.push({
    type: 'sealed',
    kind: subject.kind,
    id: subject.id,
    body: withSealed(sealing.of, part, sealed),
  } as Change)
  return {}
}
