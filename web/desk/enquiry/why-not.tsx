import type { DeskEnquiry } from '@acolhida/core/formats'
import { type Practice, questionnaireOf, serviceOf } from '@acolhida/core/practice'
import { newcomer, readAnswers } from '@acolhida/core/questions'
import { nearestChange } from '@acolhida/core/questions/nearest'
import { useMemo } from 'react'
import { NearestChange } from '../parts/nearest-change.tsx'
import { OUTCOME } from '../parts/words.ts'

/**
 * What the rules make of the answers that a message came with, where somebody writes after “not a match” or instead
 * of booking: why, and what would have made it fit.
 */
export function WhyNot({ practice, enquiry }: { practice: Practice; enquiry: DeskEnquiry }) {
  const found = useMemo(() => {
    const service = serviceOf(practice, enquiry.service ?? '')
    const questionnaire = service && questionnaireOf(practice, service)
    if (!service || !questionnaire || Object.keys(enquiry.answers).length === 0) return undefined
    const { outcome, reasons } = readAnswers(service, questionnaire, enquiry.answers, newcomer)
    if (outcome === 'fits') return undefined
    return {
      outcome,
      reasons,
      nearest: nearestChange(service, questionnaire, enquiry.answers, newcomer),
      questions: questionnaire.questions,
    }
  }, [practice, enquiry])
  if (!found) return null
  return (
    <section className="mt-2 text-[14px]" aria-label="What the rules make of it">
      <span className={`tag tag-${found.outcome}`}>{OUTCOME[found.outcome]}</span>
      <ul className="mt-1 grid list-disc gap-1 pl-5">
        {found.reasons.map((reason) => (
          <li key={`${reason.rule} ${reason.name}`}>
            {reason.note || reason.name}
            {reason.rule && <span className="text-soft"> · your rule “{reason.name}”</span>}
          </li>
        ))}
      </ul>
      <NearestChange differences={found.nearest} questions={found.questions} />
    </section>
  )
}
