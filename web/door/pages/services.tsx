import { ArrowRight } from 'lucide-react'
import { Link } from 'react-router'
import { lengthAndPlace, priceWords } from '../parts/words.ts'
import { useDoor } from '../visit/follow.ts'

const MARK: Record<string, string> = { leaf: 'bg-leaf', tile: 'bg-tile', clay: 'bg-clay', sun: 'bg-sun' }

/** What is offered. */
export function Services() {
  const { slug, practice, services, currency } = useDoor()
  return (
    <div className="max-w-[720px]">
      <h1 className="sr-only">What {practice.name} offers</h1>
      {practice.greeting && <p className="mb-5 text-[17px] whitespace-pre-line">{practice.greeting}</p>}
      <ul className="grid gap-3">
        {services.map((service) => (
          <li key={service.id} className="sheet relative overflow-hidden">
            <span className={`absolute inset-y-0 left-0 w-1.5 ${MARK[service.colour]}`} aria-hidden="true" />
            <Link
              to={`/${slug}/${service.id}`}
              className="flex items-center gap-4 py-4 pr-4 pl-6 hover:bg-leaf-soft/40"
            >
              <span className="min-w-0 flex-1">
                <h2>{service.name}</h2>
                <span className="mt-1 block">{service.description}</span>
                <span className="mt-1.5 block text-[14px] text-soft">
                  {lengthAndPlace(
                    service.minutes,
                    service.places.length === 1 ? service.places[0]?.name : undefined,
                  )}
                  {' · '}
                  {priceWords(service, currency)}
                  {service.seats > 1 && ` · ${service.seats} seats`}
                </span>
              </span>
              <ArrowRight size={22} className="shrink-0 text-leaf" aria-hidden="true" />
            </Link>
          </li>
        ))}
      </ul>
      {services.length === 0 && (
        <p className="sheet p-5">Nothing is open at the moment. You are welcome to write instead.</p>
      )}
      <p className="mt-5">
        <Link className="way" to={`/${slug}/write`}>
          Write a message instead
        </Link>
      </p>
    </div>
  )
}
