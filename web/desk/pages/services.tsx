import { money } from '@acolhida/core/money'
import { checkPractice, type Practice, type Service } from '@acolhida/core/practice'
import { duration } from '@acolhida/core/time'
import { ArrowDown, ArrowUp, Copy, Plus } from 'lucide-react'
import { Link, useNavigate } from 'react-router'
import { changePractice } from '../data/change.ts'
import { db } from '../data/database.ts'
import { useDesk } from '../data/live.ts'
import { SettingsPage } from '../parts/settings-page.tsx'
import { currencyOf } from '../parts/words.ts'

function priceLine(practice: Practice, service: Service): string {
  const currency = currencyOf(practice.profile.currency)
  if (service.price.kind === 'free') return 'free of charge'
  return service.price.kind === 'hourly'
    ? `${money(service.price.rate, currency)} an hour`
    : money(service.price.amount, currency)
}

/** An id that no service has yet, made from one that may. */
function freeId(practice: Practice, base: string): string {
  const taken = new Set(practice.services.map((service) => service.id))
  let n = 2
  let id = base
  while (taken.has(id)) id = `${base}-${n++}`
  return id
}

/** A service to begin with; off the door until its practitioner puts it there. */
const newService = (practice: Practice, id: string): Service => ({
  id,
  name: 'New service',
  description: '',
  minutes: 50,
  lengthStep: 5,
  places: [practice.places[0]!.id],
  price: { kind: 'free' },
  clearBefore: 10,
  clearAfter: 10,
  clearInsideHours: false,
  starts: { kind: 'every', minutes: 30 },
  notice: duration('PT24H'),
  reach: { kind: 'days', days: 60 },
  seats: 1,
  groupAt: 'dates',
  groupDates: [],
  tidy: false,
  bookableBy: 'everyone',
  approval: { new: 'ask', known: 'straight' },
  terms: practice.terms.map((terms) => terms.id),
  on: false,
  colour: 'leaf',
})

/** What is offered, in the order of the door. */
export function Services() {
  const { practice } = useDesk()
  const navigate = useNavigate()
  const faults = checkPractice(practice)
  const move = (from: number, to: number): Promise<void> =>
    changePractice(db, 'the order of the services', (p) => {
      const services = [...p.services]
      const [moved] = services.splice(from, 1)
      if (moved) services.splice(to, 0, moved)
      return { ...p, services }
    })
  const add = (id: string, service: Service): void => {
    changePractice(db, `${service.name} added`, (p) => ({ ...p, services: [...p.services, service] })).then(
      () => navigate(`/services/${id}`),
    )
  }
  return (
    <SettingsPage title="Services" line="What can be booked at your door, in this order.">
      <ul className="grid max-w-[820px] gap-3">
        {practice.services.map((service, i) => (
          <li key={service.id} className="sheet flex items-center justify-between gap-4 p-4">
            <div className="min-w-0">
              <h2>
                <Link to={`/services/${service.id}`} className="underline-offset-3 hover:underline">
                  {service.name}
                </Link>
              </h2>
              <p className="mt-0.5 text-[14px] text-soft">
                {service.minutes} min · {priceLine(practice, service)} ·{' '}
                {service.seats > 1 ? `${service.seats} seats` : 'for one'} ·{' '}
                {service.bookableBy === 'invited' ? 'for invited people' : 'for everyone'}
              </p>
              {faults
                .filter((fault) => fault.path.startsWith(`services[${i}].`))
                .map((fault) => (
                  <p key={fault.path + fault.message} className="mt-1 text-[14px] font-semibold text-clay">
                    {fault.message}
                  </p>
                ))}
            </div>
            <div className="flex shrink-0 items-center gap-1">
              <span className={`tag mr-2 ${service.on ? 'tag-fits' : 'tag-closed'}`}>
                {service.on ? 'at the door' : 'off the door'}
              </span>
              <button
                type="button"
                className="press press-quiet px-2"
                aria-label={`Move ${service.name} up`}
                disabled={i === 0}
                onClick={() => move(i, i - 1)}
              >
                <ArrowUp size={16} aria-hidden="true" />
              </button>
              <button
                type="button"
                className="press press-quiet px-2"
                aria-label={`Move ${service.name} down`}
                disabled={i === practice.services.length - 1}
                onClick={() => move(i, i + 1)}
              >
                <ArrowDown size={16} aria-hidden="true" />
              </button>
              <button
                type="button"
                className="press press-quiet px-2"
                aria-label={`Copy ${service.name}`}
                onClick={() => {
                  const id = freeId(practice, `${service.id}-copy`)
                  add(id, { ...service, id, name: `${service.name}, a copy`, on: false, groupDates: [] })
                }}
              >
                <Copy size={16} aria-hidden="true" />
              </button>
            </div>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="press press-go mt-4"
        onClick={() => {
          const id = freeId(practice, 'service')
          add(id, newService(practice, id))
        }}
      >
        <Plus size={16} aria-hidden="true" /> Add a service
      </button>
    </SettingsPage>
  )
}
