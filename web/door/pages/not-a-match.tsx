import type { DoorService } from '@acolhida/core/contract'
import { Link } from 'react-router'
import { useSlug } from '../visit/follow.ts'
import { fillingOf, useVisit } from '../visit/visit.ts'

/** A kind no: why in general, and what else one can do. */
export function NotAMatch({ service, back }: { service: DoorService; back: () => void }) {
  const slug = useSlug()
  const closed = fillingOf(useVisit(), service.id).read?.closed
  return (
    <section aria-live="polite">
      <h1>{closed ? `${service.name} is not the right thing just now` : 'Let us talk first'}</h1>
      <p className="sheet mt-4 p-5 text-[16px] whitespace-pre-line">
        {closed?.message ??
          'This is more than I book without talking first. Please write me a message; I answer soon.'}
      </p>
      <h2 className="mt-6 mb-2">What you can do instead</h2>
      <ul className="grid gap-2">
        {closed?.services.map((other) => (
          <li key={other.id}>
            <Link className="press w-full sm:w-auto" to={`/${slug}/${other.id}`}>
              See {other.name}
            </Link>
          </li>
        ))}
        {(closed?.enquiry ?? true) && (
          <li>
            <Link className="press w-full sm:w-auto" to={`/${slug}/write?about=${service.id}`}>
              Write a message
            </Link>
          </li>
        )}
        <li>
          <button type="button" className="way mt-2 min-h-[44px]" onClick={back}>
            I would like to answer differently
          </button>
        </li>
      </ul>
    </section>
  )
}
