import {
  checkPractice,
  type Overlay,
  type Practice,
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
import { ActButton } from '../parts/act.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Tick } from '../parts/tick.tsx'
import { homeZone } from '../parts/words.ts'
import { Fields } from '../settings/fields.tsx'
import { CopyTo } from './copy-to.tsx'
import { ServiceExtras } from './extras.tsx'
import { GroupDates } from './group-dates.tsx'
import { OwnLink } from './own-link.tsx'
import { Picture } from './picture.tsx'
import { SHOWN, WHAT } from './what.ts'
import { whenFields } from './when.ts'
import { whomFields } from './whom.ts'
import { withService } from './with-service.ts'

/** One service with all that can be said about it. */
export function ServicePage() {
  const { practice } = useDesk()
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
  const change = (what: string, parts: Overlay<Service>): Promise<void> =>
    changePractice(db, what, (p) => withService(p, id, (service) => withParts(service, parts)))
  return (
    <SettingsPage title={service.name} line="Your door follows at once.">
      <div className="grid max-w-[1020px] grid-cols-1 gap-5 lg:grid-cols-2">
        <div className="grid h-fit grid-cols-1 gap-5">
          <section className="sheet grid grid-cols-1 gap-4 p-5">
            <h2>What it is</h2>
            <Fields settings={WHAT} {...around} />
            <Picture service={service} onChange={(picture) => change('a picture', { picture })} />
            <Fields settings={SHOWN} {...around} />
          </section>
          <ServiceExtras practice={practice} service={service} />
          <section className="sheet grid gap-2 p-5">
            <h2>Where</h2>
            {practice.places.map((place) => (
              <Tick
                key={place.id}
                label={place.name}
                on={service.places.includes(place.id)}
                last={service.places.length === 1}
                onChange={(on) =>
                  change('the places of a service', {
                    places: practice.places
                      .map((place) => place.id)
                      .filter((other) => (other === place.id ? on : service.places.includes(other))),
                  })
                }
              />
            ))}
            <p className="text-[13px] text-soft">With several, the client chooses.</p>
          </section>
          <section className="sheet grid gap-2 p-5">
            <h2>Terms to agree to</h2>
            {practice.terms.map((terms) => (
              <Tick
                key={terms.id}
                label={terms.versions.at(-1)?.title ?? terms.id}
                on={service.terms.includes(terms.id)}
                onChange={(on) =>
                  change('the terms of a service', {
                    terms: practice.terms
                      .map((terms) => terms.id)
                      .filter((other) => (other === terms.id ? on : service.terms.includes(other))),
                  })
                }
              />
            ))}
          </section>
        </div>
        <div className="grid h-fit grid-cols-1 gap-5">
          <section className="sheet grid grid-cols-1 gap-4 p-5">
            <h2>When</h2>
            <Fields settings={whenFields(today)} {...around} />
          </section>
          <section className="sheet grid grid-cols-1 gap-4 p-5">
            <h2>For whom</h2>
            <Fields settings={whomFields(practice)} {...around} />
            {service.bookableBy !== 'everyone' && <OwnLink service={service} slug={practice.profile.slug} />}
          </section>
          {service.seats > 1 && service.groupAt === 'dates' && (
            <GroupDates practice={practice} service={service} />
          )}
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
