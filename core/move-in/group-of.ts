import type { Instant } from '../time/index.ts'

/** Names a session that several people come to. */
export const groupOf = (service: string, place: string, start: Instant): string =>
  `${service} ${place} ${start}`
