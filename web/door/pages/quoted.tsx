import type { DoorService } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { zone } from '@acolhida/core/time'
import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link } from 'react-router'
import { momentAt } from '../parts/clocks.ts'
import { Notice } from '../parts/notice.tsx'
import { rich, say } from '../parts/say.ts'
import { useDoor, useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { fillIn, fillingOf, useVisit, wantedOf } from '../visit/visit.ts'
import type { DoorStep } from './steps.ts'

/** What the practitioner and the client have spoken about: a quote, which is accepted by choosing a time. */
export function Quoted({ service, go }: { service: DoorService; go: (step: DoorStep) => void }) {
  const slug = useSlug()
  const { currency, practice } = useDoor()
  const visit = useVisit()
  const reading = useQuery({
    queryKey: ['quoted', slug, service.id, visit.quote?.key],
    queryFn: () => doorRelay.read(slug, wantedOf(visit, service)),
  })
  const { data } = reading
  const typed = fillingOf(visit, service.id).person.email !== ''
  useEffect(() => {
    if (!data?.quote) return
    const { name, email, phone = '' } = data.quote.person
    fillIn(service.id, { is: 'read', read: data })
    if (!typed) fillIn(service.id, { is: 'person', person: { name, email, phone } })
  }, [data, service.id, typed])
  if (reading.error)
    return (
      <section>
        <h1>{say('quoted.over')}</h1>
        <div className="mt-4">
          <Notice>{reading.error.message}</Notice>
        </div>
        <Link className="press mt-4" to={`/${slug}/write?about=${service.id}`}>
          {say('no.write')}
        </Link>
      </section>
    )
  if (!data?.quote) return <p className="text-soft">{say('moment')}</p>
  return (
    <section>
      <h1 tabIndex={-1} className="outline-none">
        {say('quoted.title')}
      </h1>
      {data.quote.text && <p className="sheet mt-4 p-5 text-[16px] whitespace-pre-line">{data.quote.text}</p>}
      <p className="mt-4">
        {rich('quoted.what', {
          service: service.name,
          minutes: data.minutes,
          price: data.price === 0 ? say('terms.free') : money(data.price, currency),
          name: practice.name,
          until: momentAt(data.quote.until, { first: zone(visit.zone) }),
        })}
      </p>
      <button type="button" className="press press-go mt-5" onClick={() => go('time')}>
        {say('quoted.accept')}
      </button>
    </section>
  )
}
