import type { Service, Standing } from '../practice/types.ts'
import type { Reading } from '../questions/index.ts'
import type { Mark } from './record.ts'

/** Whether a request needs the practitioner's word, and why. `undefined`: it is booked straight in. */
export function wordNeeded(
  service: Service,
  standing: Standing,
  reading: Reading,
  marks: readonly Mark[] = [],
): string | undefined {
  if (marks.includes('blocked')) return 'You have blocked this person.'
  if (marks.includes('not-invited'))
    return 'They came by the service’s own link, and you have not invited them.'
  const approval = service.approval[standing]
  if (approval === 'ask') {
    return standing === 'new'
      ? 'You look at every newcomer to this service.'
      : 'You look at every request for this service.'
  }
  if (reading.outcome === 'fits') return undefined
  return 'Your rules ask you to look.'
}
