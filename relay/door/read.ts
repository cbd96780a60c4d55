import type { DoorQuote, DoorReading, Wanted } from '@acolhida/core/door'
import { questionnaireOf, serviceOf } from '@acolhida/core/practice'
import { asked, openAnswers, problemWith, readAnswers } from '@acolhida/core/questions'
import type { Instant } from '@acolhida/core/time'
import type { Store } from '../store/store.ts'
import { askingOf, published, visitorOf } from './circumstances.ts'
import { extrasOf, isOffered, mayBeSeen, readCode, understand } from './understand.ts'

/** Reads the answers of a visit and remembers the attempt. */
export function read(store: Store, wanted: Wanted, now: Instant): DoorReading {
  const { practice, service, answers, reading, quote: own } = understand(store, wanted, now)
  const { outcome, kind, quote, enquiryInstead, suggested } = reading
  /** Those of some services that whoever asks may see. */
  const visible = (ids: readonly string[]): { id: string; name: string }[] =>
    ids.flatMap((id) => {
      const other = serviceOf(practice, id)
      const seen = other && isOffered(store, other, now, wanted.with) && mayBeSeen(store, other, wanted.with)
      return seen ? [{ id, name: other.name }] : []
    })
  if (own) {
    const { zone: _, ...person } = own.person
    const { minutes, lines, price } = quote
    const said = { until: own.until, text: own.text, person }
    return { open: true, minutes, lines, price, enquiryInstead: false, quote: said }
  }
  const questions = questionnaireOf(practice, service)?.questions ?? []
  // Private answers are kept with the request alone.
  const open = openAnswers(questions, answers)
  store.act(() => store.addAttempt(wanted.visit, { at: now, service: service.id, answers: open, outcome }))
  return {
    open: outcome !== 'closed' && !enquiryInstead,
    ...(outcome === 'closed'
      ? {
          closed: {
            message: kind?.message || 'With these answers I can not offer you a time.',
            services: visible(kind?.services ?? []),
            enquiry: kind?.enquiry ?? true,
          },
        }
      : {}),
    minutes: quote.minutes,
    lines: quote.lines,
    price: quote.price,
    ...(quote.deposit > 0 ? { deposit: quote.deposit } : {}),
    ...(suggested.length > 0 ? { suggested: visible(suggested) } : {}),
    enquiryInstead,
  }
}

/**
 * Length and price as far as the answers so far tell them. What is missing or not valid is left out; nothing is
 * remembered, and nothing said but the quote.
 */
export function quoteSoFar(store: Store, wanted: Wanted, now: Instant): DoorQuote {
  const { practice } = published(store)
  const service = serviceOf(practice, wanted.service)
  if (!service || !isOffered(store, service, now, wanted.with)) return {}
  const questionnaire = questionnaireOf(practice, service)
  const visitor = visitorOf(store, wanted.with)
  const asking = askingOf(visitor, service.id, 0)
  const { questions, answers } = asked(questionnaire?.questions ?? [], wanted.answers, asking)
  const wrong = new Set(questions.filter((one) => problemWith(one, answers[one.id])).map((one) => one.id))
  const valid = Object.fromEntries(Object.entries(answers).filter(([id]) => !wrong.has(id)))
  const code = wanted.code?.trim() ? readCode(store, wanted, visitor, true, now) : undefined
  const { quote } = readAnswers(service, questionnaire, valid, asking, {
    extras: extrasOf(service, wanted.extras),
    whole: false,
    code: typeof code === 'string' ? undefined : code,
  })
  return {
    ...(service.lengthHidden ? {} : { minutes: quote.minutes }),
    ...(service.priceHidden ? {} : { lines: quote.lines, price: quote.price }),
    ...(typeof code === 'string' ? { codeProblem: code } : {}),
  }
}
