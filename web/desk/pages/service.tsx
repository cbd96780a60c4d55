import type { GroupDate, Practice, Service } from '@acolhida/core/practice'
import { checkPractice, placeOf, serviceOf } from '@acolhida/core/practice'
import { dateAt, localDate, longDate, splitDateTime, wallTime } from '@acolhida/core/time'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/database.ts'
import { useDesk } from '../data/live.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { type ServiceField, WHAT, whenFields, whomFields } from '../parts/service-fields.ts'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { currencyOf, homeZone } from '../parts/words.ts'

/** The practice with one of its services changed. */
export const withService = (
  practice: Practice,
  id: string,
  change: (service: Service) => Service,
): Practice => ({
  ...practice,
  services: practice.services.map((one) => (one.id === id ? change(one) : one)),
})

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
  const at = practice.services.indexOf(service)
  const faults = checkPractice(practice).filter((fault) => fault.path.startsWith(`services[${at}].`))
  const change = (what: string, part: Partial<Service>): Promise<void> =>
    changePractice(db, what, (p) => withService(p, id, (one) => ({ ...one, ...part })))
  const today = dateAt(homeZone(practice), relayNow())
  return (
    <SettingsPage title={service.name} line="Your door follows at once.">
      {faults.map((fault) => (
        <p
          key={fault.path + fault.message}
          role="alert"
          className="note mb-4 max-w-[1020px] bg-sun-soft text-sun-ink"
        >
          {fault.message}
        </p>
      ))}
      <div className="grid max-w-[1020px] gap-5 lg:grid-cols-2">
        <div className="grid h-fit gap-5">
          <section className="sheet grid gap-4 p-5">
            <h2>What it is</h2>
            <Fields fields={WHAT} service={service} practice={practice} />
            <Switch
              label="At the door"
              on={service.on}
              onChange={(on) =>
                change(on ? 'a service put on the door' : 'a service taken off the door', { on })
              }
            />
          </section>
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
            <Fields fields={whenFields(today)} service={service} practice={practice} />
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
            <Fields fields={whomFields(practice)} service={service} practice={practice} />
          </section>
          {service.seats > 1 && service.groupAt === 'dates' && (
            <GroupDates practice={practice} service={service} />
          )}
          <button
            type="button"
            className="press press-no justify-self-start"
            onClick={() => {
              navigate('/services')
              changePractice(db, `${service.name} removed`, (p) => ({
                ...p,
                services: p.services.filter((one) => one.id !== id),
              }))
            }}
          >
            Remove this service
          </button>
        </div>
      </div>
    </SettingsPage>
  )
}

function Fields({
  fields,
  service,
  practice,
}: {
  fields: readonly ServiceField[]
  service: Service
  practice: Practice
}) {
  const { code, decimals } = currencyOf(practice.profile.currency)
  const shown = fields.filter((field) => !field.show || field.show(service))
  return (
    <div className="grid grid-cols-2 items-end gap-x-4 gap-y-3">
      {shown.map(({ label, what, read, write, help, suffix, rows, type, options }) => {
        const money = label === 'Price'
        const value = read(service)
        return (
          <div key={label} className={rows || label === 'Name' ? 'col-span-2' : ''}>
            <SavedField
              label={label}
              what={what}
              value={money ? (Number(value) / 10 ** decimals).toFixed(decimals) : value}
              change={(p, typed) => withService(p, service.id, (one) => write(one, typed, decimals))}
              {...(help ? { help } : {})}
              {...(rows ? { rows } : {})}
              {...(type ? { type } : {})}
              {...(options ? { options } : {})}
              {...(money ? { suffix: code } : suffix ? { suffix } : {})}
            />
          </div>
        )
      })}
    </div>
  )
}

function Tick({
  label,
  on,
  last = false,
  onChange,
}: {
  label: string
  on: boolean
  last?: boolean
  onChange: (on: boolean) => void
}) {
  return (
    <label className="flex min-h-[32px] cursor-pointer items-center gap-3">
      <input
        type="checkbox"
        className="checkbox checkbox-primary checkbox-sm"
        checked={on}
        disabled={on && last}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  )
}

/** The dates on which a group takes place. */
function GroupDates({ practice, service }: { practice: Practice; service: Service }) {
  const [day, setDay] = useState('')
  const [clock, setClock] = useState('11:00')
  const [place, setPlace] = useState(service.places[0] ?? '')
  const [problem, setProblem] = useState<string>()
  const change = (dates: (before: GroupDate[]) => GroupDate[]): Promise<void> =>
    changePractice(db, 'the dates of a group', (p) =>
      withService(p, service.id, (one) => ({ ...one, groupDates: dates(one.groupDates) })),
    )
  const add = (): void => {
    const id = `${service.id}-${day}-${clock.replace(':', '')}`
    change((before) =>
      [...before, { id, start: `${day}T${clock}` as GroupDate['start'], place }].sort((a, b) =>
        a.start < b.start ? -1 : 1,
      ),
    )
      .then(() => setProblem(undefined))
      .catch(() => setProblem('Please give a day and a time that are not there yet.'))
  }
  return (
    <section className="sheet grid gap-2 p-5">
      <h2>Dates</h2>
      {service.groupDates.length === 0 && (
        <p className="text-[14px] text-soft">The group takes place on the dates you set here.</p>
      )}
      <ul className="grid gap-1">
        {service.groupDates.map((one) => {
          const start = splitDateTime(one.start)
          const name = `${longDate(localDate(start.day))}, ${wallTime(start.minutes)}`
          return (
            <li key={one.id} className="flex items-center justify-between gap-3">
              <span>
                {name} <span className="text-soft">{placeOf(practice, one.place)?.name}</span>
              </span>
              <button
                type="button"
                className="press press-quiet px-2"
                aria-label={`Remove ${name}`}
                onClick={() => change((before) => before.filter((other) => other.id !== one.id))}
              >
                <X size={16} aria-hidden="true" />
              </button>
            </li>
          )
        })}
      </ul>
      <form
        className="grid grid-cols-3 items-end gap-2 border-t border-line pt-3"
        onSubmit={(event) => {
          event.preventDefault()
          add()
        }}
      >
        <label className="ask">
          Day
          <input
            type="date"
            className="field mt-1"
            value={day}
            onChange={(event) => setDay(event.target.value)}
          />
        </label>
        <label className="ask">
          Time
          <input
            type="time"
            className="field mt-1"
            value={clock}
            onChange={(event) => setClock(event.target.value)}
          />
        </label>
        <label className="ask">
          Where
          <select className="field mt-1" value={place} onChange={(event) => setPlace(event.target.value)}>
            {service.places.map((one) => (
              <option key={one} value={one}>
                {placeOf(practice, one)?.name}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="press col-span-3 justify-self-start">
          <Plus size={16} aria-hidden="true" /> Add this date
        </button>
      </form>
      {problem && (
        <p role="alert" className="text-[14px] font-semibold text-clay">
          {problem}
        </p>
      )}
    </section>
  )
}
