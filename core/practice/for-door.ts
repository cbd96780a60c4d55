import { forRelay, readsPrivately } from '../questions/privacy.ts'
import type { Practice } from './types.ts'

/**
 * A practice as the relay is told of it: without notes of time away, kept questions, drafts, and what is decided from
 * private answers. Whom those concern only the desk can tell, so nobody is let straight in where they decide something.
 */
export function forDoor({ library: _, ...practice }: Practice): Practice {
  const reads = new Set(
    practice.questionnaires.filter(readsPrivately).map((questionnaire) => questionnaire.id),
  )
  return {
    ...practice,
    away: practice.away.map(({ note: _note, ...rest }) => rest),
    questionnaires: practice.questionnaires.map(forRelay),
    services: practice.services.map((service) =>
      service.questionnaire && reads.has(service.questionnaire)
        ? { ...service, approval: { new: 'ask', known: 'ask' } }
        : service,
    ),
  }
}
