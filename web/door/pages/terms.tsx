import type { DoorService } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { relayNow, useNow } from '../../relay-client/clock.ts'
import { clocksAt, startWords } from '../parts/clocks.ts'
import { Notice } from '../parts/notice.tsx'
import { rich, say } from '../parts/say.ts'
import { agreedAs } from '../parts/terms-to-read.tsx'
import { AgreeTo, useWho, WhoFields } from '../parts/who.tsx'
import { whatHappensWhen } from '../parts/words.ts'
import { contactOf } from '../visit/contact.ts'
import { useAsking, useDoor, useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { answersToSend } from '../visit/sealing.ts'
import { endVisit, fillIn, fillingOf, isQuoted, useVisit, wantedOf } from '../visit/visit.ts'

/** Refusals after which the door is looked at anew. */
const REFRESH = new Set(['answers', 'terms-changed', 'service-off', 'changed', 'code'])

/** What is agreed, and who asks. Nothing can be sent without agreeing. */
export function TermsStep({ service }: { service: DoorService }) {
  const slug = useSlug()
  const { practice, seal, currency } = useDoor()
  const asking = useAsking(service.id)
  const visit = useVisit()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const filling = fillingOf(visit, service.id)
  const kept = filling.kept!
  const place = service.places.find((place) => place.id === kept.place)
  const clocks = clocksAt(place, visit.zone)
  const now = useNow()
  const who = useWho(service, place)

  /** Keeps the same start once more, and so shows what holds now. */
  const keeping = useMutation({
    mutationFn: () =>
      doorRelay.keep(slug, { ...wantedOf(visit, service), place: kept.place, start: kept.start }),
    onSuccess: (again) => fillIn(service.id, { is: 'kept', kept: again }),
    onError: (error) => {
      if (error instanceof RelayError && !error.unreachable)
        fillIn(service.id, { is: 'refused', problem: error.problem, key: newKey() })
    },
  })
  const sending = useMutation({
    mutationFn: async () => {
      // What has been sent as a quote has been answered already.
      const answers = isQuoted(visit, service.id) ? {} : await answersToSend(service, filling, asking, seal)
      return doorRelay.send(
        slug,
        {
          ...wantedOf(visit, service),
          answers,
          clock: relayNow(),
          place: kept.place,
          start: kept.start,
          shown: kept.shown,
          ...(who.visits && filling.address ? { address: filling.address } : {}),
          person: contactOf(filling.person, visit.zone),
          agreed: service.terms.map(agreedAs),
        },
        filling.sendKey,
      )
    },
    onSuccess: ({ link }) => {
      void navigate(`/${slug}/my/${link}`, { replace: true, state: { sent: true } })
      endVisit(service.id)
    },
    onError: (error) => {
      if (!(error instanceof RelayError)) return
      // Only what may have arrived is sent again under the same key; a refusal is final for this sending.
      if (error.unreachable) return
      fillIn(service.id, { is: 'refused', problem: error.problem, key: newKey() })
      if (error.code === 'not-open') void queries.invalidateQueries({ queryKey: ['openings'] })
      if (REFRESH.has(error.code)) void queries.invalidateQueries({ queryKey: ['door'] })
      if (error.code === 'changed') keeping.mutate()
      if (error.code === 'malformed') who.refused(error.problem)
    },
  })

  const quoteNow = sending.error instanceof RelayError ? sending.error.problem.quote : undefined
  const when = startWords(kept.start, clocks)

  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        if (who.check()) sending.mutate()
      }}
    >
      <h1 tabIndex={-1} className="outline-none">
        {say('terms.title')}
      </h1>
      <AgreeTo service={service} who={who} />
      <WhoFields service={service} who={who} />
      {(sending.error || filling.note) && (
        <div className="mt-4">
          <Notice>
            {sending.error?.message ?? filling.note}
            {quoteNow && (
              <>
                {' '}
                <strong>
                  {say('terms.now', {
                    minutes: quoteNow.minutes,
                    price: quoteNow.price === 0 ? say('terms.free') : money(quoteNow.price, currency),
                  })}
                </strong>
              </>
            )}
          </Notice>
        </div>
      )}
      <div className="note mt-5 bg-sun-soft text-sun-ink empty:hidden lg:hidden">
        {whatHappensWhen(kept, kept.price, clocks, now, false).map((line) => (
          <p key={line}>{line}</p>
        ))}
      </div>
      <button type="submit" className="press press-go mt-5 w-full text-[16px]" disabled={sending.isPending}>
        {sending.isPending
          ? say('terms.sending')
          : say(kept.wordUntil === undefined ? 'terms.book' : 'terms.ask', { when })}
      </button>
      <p className="mt-2 text-[14px] text-soft">
        {rich('terms.private', { name: practice.name.split(' ')[0] ?? practice.name })}
      </p>
    </form>
  )
}
