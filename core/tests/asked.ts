import type { Asked } from '../booking/index.ts'
import { newcomer, readAnswers } from '../questions/index.ts'
import { parseInstant } from '../time/index.ts'
import { samplePractice, sampleService } from './sample.ts'

/** A request of Wednesday noon for Friday morning, for tests to bend. */
export const sampleAsked = (change: Partial<Asked> = {}): Asked => ({
  type: 'asked',
  v: 2,
  at: parseInstant('2026-11-25T12:00Z'),
  service: 's',
  place: 'video',
  start: parseInstant('2026-11-27T10:00Z'),
  minutes: 75,
  person: { name: 'Tomé Arrais', email: 'tome@example.org', zone: 'America/Sao_Paulo' },
  asking: newcomer,
  proof: 'earlier',
  shown: '',
  answers: {},
  reading: readAnswers(sampleService(), undefined, {}, newcomer),
  attempts: [],
  agreements: [],
  houseRules: samplePractice().houseRules,
  currency: 'EUR',
  until: parseInstant('2026-11-26T12:00Z'),
  ...change,
})
