import type { Closed, DoorService } from '@acolhida/core/contract'
import { useEffect, useRef } from 'react'
import { Link } from 'react-router'
import { say } from '../parts/say.ts'
import { useSlug } from '../visit/follow.ts'

/** A kind no: why in general, and what else one can do. No price stands beside it. */
export function NotAMatch({
  service,
  closed,
  back,
}: {
  service: DoorService
  closed: Closed | undefined
  back: () => void
}) {
  const slug = useSlug()
  const head = useRef<HTMLHeadingElement>(null)
  useEffect(() => head.current?.focus(), [])
  return (
    <section>
      <h1 ref={head} tabIndex={-1} className="outline-none">
        {closed && !closed.instead ? say('no.title', { service: service.name }) : say('no.instead')}
      </h1>
      <p className="sheet mt-4 p-5 text-[16px] whitespace-pre-line">{closed?.message}</p>
      <h2 className="mt-6 mb-2">{say('no.what-else')}</h2>
      <ul className="grid gap-2">
        {closed?.services.map((other) => (
          <li key={other.id}>
            <Link className="press w-full sm:w-auto" to={`/${slug}/${other.id}`}>
              {say('no.see', { service: other.name })}
            </Link>
          </li>
        ))}
        {(closed?.enquiry ?? true) && (
          <li>
            <Link className="press w-full sm:w-auto" to={`/${slug}/write?about=${service.id}`}>
              {say('no.write')}
            </Link>
          </li>
        )}
        <li>
          <button type="button" className="way mt-2 min-h-[44px]" onClick={back}>
            {say('no.again')}
          </button>
        </li>
      </ul>
    </section>
  )
}
