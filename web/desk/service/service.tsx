import {
  checkPractice,
  type Parts,
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
import { Switch } from '../parts/switch.tsx'
import { Tick } from '../parts/tick.tsx'
import { homeZone } from '../parts/words.ts'
import { CopyTo } from './copy-to.tsx'
import { Extras } from './extras.tsx'
import { Fields, withService } from './fields-view.tsx'
import { GroupDates } from './group-dates.tsx'
import { OwnLink } from './own-link.tsx'
import { Picture } from './picture.tsx'
import { WHAT } from './what.ts'
import { whenFields } from './when.ts'
import { whomFields } from './whom.ts'

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
  const faults = checkPractice(practice, today).filter((fault) => fault.path.startsWith(`services[${at}].`))
  const change = (what: string, parts: Parts<Service>): Promise<void> =>
    changePractice(db, what, (p) => withService(p, id, (one) => withParts(one, parts)))
  return (
    <SettingsPage title={service.name} line="Your door follows at once.">
      <div className="grid max-w-[1020px] gap-5 lg:grid-cols-2">
        <div className="grid h-fit gap-5">
          <section className="sheet grid gap-4 p-5">
            <h2>What it is</h2>
            <Fields fields={WHAT} service={service} practice={practice} faults={faults} />
            <Picture service={service} onChange={(picture) => change('a picture', { picture })} />
            <Switch
              label="Show the price before the questions"
              on={!service.priceHidden}
              onChange={(on) => change('what is shown', { priceHidden: !on })}
            />
            <Switch
              label="Show the length before the questions"
              on={!service.lengthHidden}
              onChange={(on) => change('what is shown', { lengthHidden: !on })}
            />
            <Switch
              label="At the door"
              on={service.on}
              onChange={(on) =>
                change(on ? 'a service put on the door' : 'a service taken off the door', { on })
              }
            />
          </section>
          <Extras practice={practice} service={service} />
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
                      .map((one) => one.id)
                      .filter((one) => (one === place.id ? on : service.places.includes(one))),
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
                      .map((one) => one.id)
                      .filter((one) => (one === terms.id ? on : service.terms.includes(one))),
                  })
                }
              />
            ))}
          </section>
        </div>
        <div className="grid h-fit gap-5">
          <section className="sheet grid gap-4 p-5">
            <h2>When</h2>
            <Fields fields={whenFields(today)} service={service} practice={practice} faults={faults} />
            <Switch
              label="Clear time lies inside my hours, too"
              on={service.clearInsideHours}
              onChange={(on) => change('time kept clear', { clearInsideHours: on })}
            />
            <Switch
              label="Offer only starts that leave usable time"
              on={service.tidy}
              onChange={(on) => change('tidy starts', { tidy: on })}
            />
          </section>
          <section className="sheet grid gap-4 p-5">
            <h2>For whom</h2>
            <Fields fields={whomFields(practice)} service={service} practice={practice} faults={faults} />
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
