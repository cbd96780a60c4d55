import { money } from '@acolhida/core/money'
import {
  checkPractice,
  moveService,
  offeredOn,
  type Practice,
  type PracticeFault,
  type Service,
} from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { dateAt, duration } from '@acolhida/core/time'
import { ArrowDown, ArrowUp, Copy, GripVertical, Plus } from 'lucide-react'
import type { ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { SortableList, useSortableRow } from '../parts/sortable-list.tsx'
import { currencyOf, homeZone } from '../parts/words.ts'

function priceLine(practice: Practice, service: Service): string {
  const currency = currencyOf(practice.profile.currency)
  if (service.price.kind === 'free') return 'free of charge'
  return service.price.kind === 'hourly'
    ? `${money(service.price.rate, currency)} an hour`
    : money(service.price.amount, currency)
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
export function ServicesPage() {
  const { practice } = useDesk()
  const navigate = useNavigate()
  const today = dateAt(homeZone(practice), relayNow())
  const faults = checkPractice(practice, today)
  const move = (from: number, to: number): Promise<void> =>
    changePractice(db, 'the order of the services', (p) => moveService(p, from, to))
  const act = useAct()
  const taken = practice.services.map(({ id }) => id)
  const add = (id: string, service: Service): void =>
    act.run(
      () =>
        changePractice(db, `${service.name} added`, (p) => ({ ...p, services: [...p.services, service] })),
      () => void navigate(`/services/${id}`),
    )
  return (
    <SettingsPage title="Services" line="What can be booked at your door, in this order.">
      <SortableList items={practice.services} onMove={move}>
        {practice.services.map((service, i) => (
          <Row
            key={service.id}
            service={service}
            line={`${service.minutes} min · ${priceLine(practice, service)} · ${
              service.seats > 1 ? `${service.seats} seats` : 'for one'
            } · ${WHOM[service.bookableBy]}`}
            heading={service.section !== practice.services[i - 1]?.section ? service.section : undefined}
            faults={faults.filter((fault) => fault.path.startsWith(`services[${i}].`))}
            offered={offeredOn(service, today)}
            up={i > 0 ? () => act.run(() => move(i, i - 1)) : undefined}
            down={i < practice.services.length - 1 ? () => act.run(() => move(i, i + 1)) : undefined}
            copy={() => {
              const id = freeId(taken, `${service.id}-copy`)
              const { linkKey: _, ...rest } = service
              const key = service.bookableBy === 'everyone' ? {} : { linkKey: newKey() }
              const name = `${service.name}, a copy`
              add(id, { ...rest, ...key, id, name, on: false, groupDates: [] })
            }}
          />
        ))}
      </SortableList>
      <ProblemNote of={act} />
      <div className="mt-4 flex flex-wrap items-center gap-2.5">
        <button
          type="button"
          className="press press-go"
          onClick={() => {
            const id = freeId(taken, 'service')
            add(id, newService(practice, id))
          }}
        >
          <Plus size={16} aria-hidden="true" /> Add a service
        </button>
        <Link className="press" to="/services/codes">
          Price codes …
        </Link>
      </div>
    </SettingsPage>
  )
}

const WHOM = {
  everyone: 'for everyone',
  link: 'with its link',
  invited: 'for invited people',
} as const

/** One service in the list, which can be dragged by its handle. */
function Row({
  service,
  line,
  heading,
  faults,
  offered,
  up,
  down,
  copy,
}: {
  service: Service
  line: string
  heading: string | undefined
  faults: readonly PracticeFault[]
  offered: boolean
  up: (() => void) | undefined
  down: (() => void) | undefined
  copy: () => void
}) {
  const { box, handle } = useSortableRow(service.id)
  const Heading = service.section ? 'h3' : 'h2'
  return (
    <li {...box}>
      {heading && <h2 className="mt-3 mb-1.5 text-[17px] text-soft">{heading}</h2>}
      <div className="sheet flex flex-wrap items-center justify-between gap-3 p-4 pl-2 sm:flex-nowrap">
        <button
          type="button"
          className="press press-quiet shrink-0 cursor-grab touch-none px-2"
          aria-label={`Drag ${service.name}`}
          {...handle}
        >
          <GripVertical size={18} aria-hidden="true" />
        </button>
        <div className="min-w-0 grow basis-[180px]">
          <Heading>
            <Link to={`/services/${service.id}`} className="underline-offset-3 hover:underline">
              {service.name}
            </Link>
          </Heading>
          <p className="mt-0.5 text-[14px] text-soft">{line}</p>
          {faults.map((fault) => (
            <p key={fault.path + fault.message} className="mt-1 text-[14px] font-semibold text-clay">
              {fault.message}
            </p>
          ))}
        </div>
        <div className="flex flex-wrap items-center gap-1 sm:shrink-0 sm:flex-nowrap">
          <span className={`tag mr-2 ${offered ? 'tag-fits' : 'tag-closed'}`}>
            {offered ? 'at the door' : service.on ? 'out of season' : 'off the door'}
          </span>
          <Press
            name={`Move ${service.name} up`}
            press={up}
            icon={<ArrowUp size={16} aria-hidden="true" />}
          />
          <Press
            name={`Move ${service.name} down`}
            press={down}
            icon={<ArrowDown size={16} aria-hidden="true" />}
          />
          <Press name={`Copy ${service.name}`} press={copy} icon={<Copy size={16} aria-hidden="true" />} />
        </div>
      </div>
    </li>
  )
}

const Press = ({ name, press, icon }: { name: string; press: (() => void) | undefined; icon: ReactNode }) => (
  <button
    type="button"
    className="press press-quiet px-2"
    aria-label={name}
    disabled={!press}
    onClick={press}
  >
    {icon}
  </button>
)
