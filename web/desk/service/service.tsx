import {
  checkPractice,
  type Overlay,
  type Practice,
  questionnaireOf,
  type Service,
  serviceOf,
  withoutService,
  withParts,
} from '@acolhida/core/practice'
import { dateAt } from '@acolhida/core/time'
import { Link, useNavigate, useParams } from 'react-router'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { WhatTheyGet } from '../messages/what-they-get.tsx'
import { ActButton } from '../parts/act.tsx'
import { Picture } from '../parts/picture.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Tick } from '../parts/tick.tsx'
import { homeZone } from '../parts/words.ts'
import { LastTen } from '../waiting/last-ten.tsx'
import { CopyTo } from './copy-to.tsx'
import { ServiceExtras } from './extras.tsx'
import { Follows } from './follows.tsx'
import { GroupDates } from './group-dates.tsx'
import { MakePlace, MakeQuestions, MakeTerms } from './make.tsx'
import { OwnLink } from './own-link.tsx'
import { PaymentLines } from './payment-lines.tsx'
import { Prepares } from './prepares.tsx'
import { SaidOf } from './said.tsx'
import { sentencesOf } from './sentences.ts'
import { withService } from './with-service.ts'

/** One service with all that can be said about it. */
export function ServicePage() {
  const desk = useDesk()
  const { practice } = desk
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const service = serviceOf(practice, id)
  if (!service) {
    return (
      <SettingsPage title="This service is not here" line="">
        <Link className="way" to="/services">
          See all services
        </Link>
      </SettingsPage>
    )
  }
  const today = dateAt(homeZone(practice), relayNow())
  const at = practice.services.indexOf(service)
  const faults = checkPractice(practice, today)
  const path = `services[${at}]`
  const around = {
    of: service,
    practice,
    faults,
    path,
    change: (p: Practice, to: (service: Service) => Service) => withService(p, id, to),
  }
  const asked = questionnaireOf(practice, service)
  /** Done to the service as it is kept by then: a quick hand is ahead of what is shown. */
  const change = (what: string, parts: (of: Service, p: Practice) => Overlay<Service>): Promise<void> =>
    changePractice(db, what, (p) => withService(p, id, (of) => withParts(of, parts(of, p))))
  return (
    <SettingsPage
      title={service.name}
      line="Read it; press what you want otherwise. Your door follows at once."
    >
      <div className="grid max-w-[1080px] grid-cols-1 gap-5 lg:grid-cols-[1fr_340px]">
        <div className="grid h-fit grid-cols-1 gap-5">
          {sentencesOf(practice, service, today, relayNow()).map((group) => (
            <SaidOf key={group.title} group={group} around={around} />
          ))}
          {service.seats > 1 && service.groupAt === 'dates' && <GroupDates desk={desk} service={service} />}
          <ServiceExtras practice={practice} service={service} />
          <PaymentLines practice={practice} service={service} />
        </div>
        <div className="grid h-fit grid-cols-1 gap-5">
          <Follows key={service.id} desk={desk} service={service} />
          {service.bookableBy !== 'everyone' && (
            <section className="sheet p-5">
              <OwnLink service={service} slug={practice.profile.slug} />
            </section>
          )}
          <section className="sheet grid gap-2 p-5" aria-label="Where">
            <h2>Where</h2>
            {practice.places.map((place) => (
              <Tick
                key={place.id}
                label={place.name}
                on={service.places.includes(place.id)}
                last={service.places.length === 1}
                onChange={(on) =>
                  change('the places of a service', (of, p) => ({
                    places: p.places
                      .map((place) => place.id)
                      .filter((other) => (other === place.id ? on : of.places.includes(other))),
                  }))
                }
              />
            ))}
            <p className="text-[13px] text-soft">With several, the client chooses.</p>
            <MakePlace service={service} />
          </section>
          <section className="sheet grid gap-2 p-5" aria-label="Terms to agree to">
            <h2>Terms to agree to</h2>
            {practice.terms.map((terms) => (
              <Tick
                key={terms.id}
                label={terms.versions.at(-1)?.title ?? terms.id}
                on={service.terms.includes(terms.id)}
                onChange={(on) =>
                  change('the terms of a service', (of, p) => ({
                    terms: p.terms
                      .map((terms) => terms.id)
                      .filter((other) => (other === terms.id ? on : of.terms.includes(other))),
                  }))
                }
              />
            ))}
            <MakeTerms service={service} />
          </section>
          <section className="sheet p-5" aria-label="Questions">
            <h2>Questions</h2>
            <p className="mt-1 text-[14px] text-soft">
              {asked ? (
                <>
                  Whoever books it answers{' '}
                  <Link className="way" to={`/questions/${asked.id}`}>
                    {asked.name}
                  </Link>
                  .
                </>
              ) : (
                'Whoever books it is asked nothing.'
              )}
            </p>
            <MakeQuestions service={service} />
          </section>
          <LastTen practice={practice} service={service} />
          <Prepares practice={practice} service={service} />
          <WhatTheyGet practice={practice} service={service} />
          <section className="sheet p-5" aria-label="Picture">
            <Picture
              picture={service.picture}
              onChange={(picture) => change('a picture', () => ({ picture }))}
            />
          </section>
          <div className="flex flex-wrap gap-2.5">
            <CopyTo practice={practice} service={service} />
            <ActButton
              className="press press-no"
              onAct={() => changePractice(db, `${service.name} removed`, (p) => withoutService(p, id))}
              then={() => void navigate('/services')}
            >
              Remove this service
            </ActButton>
          </div>
        </div>
      </div>
    </SettingsPage>
  )
}
