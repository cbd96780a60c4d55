import type { Practice, Service } from '../practice/index.ts'
import { beginPractice } from '../practice/index.ts'

/** A practice in Lisbon whose services tests bend to their needs. */
export function samplePractice(change: Partial<Practice> = {}): Practice {
  const practice = beginPractice({
    id: 'sample',
    name: 'Sample',
    email: 'sample@example.org',
    zone: 'Europe/Lisbon',
    currency: 'EUR',
    slug: 'sample',
  })
  return { ...practice, services: [sampleService()], ...change }
}

export const sampleService = (change: Partial<Service> = {}): Service => ({
  ...beginPractice({
    id: 'sample',
    name: 'Sample',
    email: 'sample@example.org',
    zone: 'Europe/Lisbon',
    currency: 'EUR',
    slug: 'sample',
  }).services[0]!,
  id: 's',
  minutes: 75,
  clearBefore: 15,
  clearAfter: 15,
  starts: { kind: 'every', minutes: 15 },
  ...change,
})
