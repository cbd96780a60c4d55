import type { DoorService, DoorView } from '@acolhida/core/contract'
import { ArrowRight } from 'lucide-react'
import { Link } from 'react-router'
import { say } from '../parts/say.ts'
import { lengthAndPlace, priceWords } from '../parts/words.ts'
import { useDoor } from '../visit/follow.ts'

const MARK: Record<string, string> = { leaf: 'bg-leaf', tile: 'bg-tile', clay: 'bg-clay', sun: 'bg-sun' }

/** What is offered. */
export function Services() {
  const { slug, practice, services, closed } = useDoor()
  const sections = [...new Set(services.map((service) => service.section ?? ''))]
  return (
    <div className="max-w-[720px]">
      <title>{practice.name}</title>
      <h1 className="sr-only">{say('services.title', { name: practice.name })}</h1>
      {practice.greeting && <p className="mb-5 text-[17px] whitespace-pre-line">{practice.greeting}</p>}
      <About practice={practice} />
      {sections.map((section) => (
        <section key={section} className="mb-6" aria-label={section || undefined}>
          {section && <h2 className="mb-2 text-[21px]">{section}</h2>}
          <ul className="grid gap-3">
            {services
              .filter((service) => (service.section ?? '') === section)
              .map((service) => (
                <Card key={service.id} service={service} heading={section ? 'h3' : 'h2'} />
              ))}
          </ul>
        </section>
      ))}
      {services.length === 0 && (
        <p className="sheet p-5 whitespace-pre-line">
          {closed === undefined ? say('services.none') : closed || say('closed')}
        </p>
      )}
      <p className="mt-5">
        <Link className="way" to={`/${slug}/write`}>
          {say('services.write')}
        </Link>
      </p>
    </div>
  )
}

/** The practitioner, as far as they say something of themselves. */
function About({ practice: { name, pronouns, about, picture } }: Pick<DoorView, 'practice'>) {
  if (!pronouns && !about && !picture) return null
  return (
    <section className="mb-6 flex items-start gap-4" aria-label={name}>
      {picture && (
        <img
          src={picture}
          alt=""
          className="size-[84px] shrink-0 rounded-full border border-line object-cover"
        />
      )}
      <div className="min-w-0">
        <p className="font-semibold">
          {name}
          {pronouns && <span className="font-normal text-soft"> · {pronouns}</span>}
        </p>
        {about && <p className="mt-0.5 whitespace-pre-line wrap-anywhere">{about}</p>}
      </div>
    </section>
  )
}

function Card({ service, heading: Heading }: { service: DoorService; heading: 'h2' | 'h3' }) {
  const { slug, currency, practice } = useDoor()
  const place = service.places.length === 1 ? service.places[0]?.name : undefined
  const line = [
    lengthAndPlace(service.minutes, place),
    priceWords(service, currency, practice),
    service.seats > 1 ? say('services.seats', { seats: service.seats }) : '',
  ]
  return (
    <li className="sheet relative overflow-hidden">
      <span className={`absolute inset-y-0 start-0 w-1.5 ${MARK[service.colour]}`} aria-hidden="true" />
      <Link
        to={`/${slug}/${service.id}`}
        className="flex items-center gap-4 py-4 ps-6 pe-4 hover:bg-leaf-soft/40"
      >
        {service.picture && (
          <img
            src={service.picture}
            alt=""
            className="size-[72px] shrink-0 rounded-lg object-cover sm:size-[88px]"
          />
        )}
        <span className="min-w-0 flex-1">
          <Heading>{service.name}</Heading>
          <span className="mt-1 block">{service.description}</span>
          <span className="mt-1.5 block text-[14px] text-soft">{line.filter(Boolean).join(' · ')}</span>
        </span>
        <ArrowRight size={22} className="shrink-0 text-leaf rtl:rotate-180" aria-hidden="true" />
      </Link>
    </li>
  )
}
