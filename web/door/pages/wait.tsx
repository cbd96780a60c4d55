import type { DoorService } from '@acolhida/core/contract'
import type { LocalDate } from '@acolhida/core/time'
import type { LineWishes } from '@acolhida/core/waiting'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate, useSearchParams } from 'react-router'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { clocksAt } from '../parts/clocks.ts'
import { LineWishesFields } from '../parts/line-wishes.tsx'
import { Notice } from '../parts/notice.tsx'
import { rich, say } from '../parts/say.ts'
import { agreedAs } from '../parts/terms-to-read.tsx'
import { AgreeTo, useWho, WhoFields } from '../parts/who.tsx'
import { contactOf } from '../visit/contact.ts'
import { useAsking, useDoor, useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { answersToSend } from '../visit/sealing.ts'
import { endVisit, fillIn, fillingOf, useVisit, wantedOf } from '../visit/visit.ts'
import type { DoorStep } from './steps.ts'

/** Getting in line, where no open time suits. */
export default function Wait({ service, go }: { service: DoorService; go: (step: DoorStep) => void }) {
  const slug = useSlug()
  const { practice, seal } = useDoor()
  const asking = useAsking(service.id)
  const visit = useVisit()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [search] = useSearchParams()
  const day = search.get('day')
  const filling = fillingOf(visit, service.id)
  const place = service.places.find((place) => place.id === filling.place) ?? service.places[0]
  const who = useWho(service, place)
  const { first } = clocksAt(place, visit.zone)
  // One has come for one day that is taken: that is what one waits for, until one says otherwise.
  const wishes: LineWishes = filling.wishes ?? {
    windows: day && /^\d{4}-\d{2}-\d{2}$/.test(day) ? [{ from: day as LocalDate, to: day as LocalDate }] : [],
  }

  const joining = useMutation({
    mutationFn: async () => {
      return doorRelay.join(
        slug,
        {
          ...wantedOf(visit, service),
          ...wishes,
          answers: await answersToSend(service, filling, asking, seal),
          clock: relayNow(),
          place: place?.id ?? '',
          ...(who.visits && filling.address ? { address: filling.address } : {}),
          person: contactOf(filling.person, visit.zone),
          agreed: service.terms.map(agreedAs),
        },
        filling.sendKey,
      )
    },
    onSuccess: ({ link }) => {
      void navigate(`/${slug}/in-line/${link}`, { replace: true, state: { sent: true } })
      endVisit(service.id)
    },
    onError: (error) => {
      if (!(error instanceof RelayError) || error.unreachable) return
      fillIn(service.id, { is: 'refused', problem: error.problem, key: newKey() })
      if (error.code === 'malformed') who.refused(error.problem)
      if (error.code === 'terms-changed') void queries.invalidateQueries({ queryKey: ['door'] })
    },
  })
  const noPhone = wishes.by === 'text' && !filling.person.phone.trim()
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        if (who.check(noPhone ? { phone: say('wait.no-phone') } : {})) joining.mutate()
      }}
    >
      <h1 tabIndex={-1} className="outline-none">
        {say('wait.title')}
      </h1>
      <p className="mt-2 mb-4 max-w-[60ch]">{say('wait.how')}</p>
      <LineWishesFields
        wishes={wishes}
        zoneName={first.name}
        onChange={(next) => fillIn(service.id, { is: 'wished', wishes: next })}
      />
      <AgreeTo service={service} who={who} />
      <WhoFields service={service} who={who} />
      {joining.error && (
        <div className="mt-4">
          <Notice>{joining.error.message}</Notice>
        </div>
      )}
      <div className="mt-5 flex flex-wrap items-center gap-4">
        <button type="submit" className="press press-go" disabled={joining.isPending}>
          {say(joining.isPending ? 'terms.sending' : 'wait.send')}
        </button>
        <button type="button" className="way min-h-[44px]" onClick={() => go('time')}>
          {say('wait.back')}
        </button>
      </div>
      <p className="mt-2 text-[14px] text-soft">
        {rich('terms.private', { name: practice.name.split(' ')[0] ?? practice.name })}
      </p>
    </form>
  )
}
