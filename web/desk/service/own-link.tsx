import type { Service } from '@acolhida/core/practice'
import { newKey } from '../../relay-client/client.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { useDoorUrl } from '../parts/door-link.tsx'
import { withService } from './with-service.ts'

/** The link of a service that is not for everyone: who opens it sees the service at the door. */
export function OwnLink({ service, slug }: { service: Service; slug: string }) {
  const door = useDoorUrl()
  return (
    <div className="grid gap-2">
      {service.linkKey && door && (
        <label className="ask">
          Its link
          <input
            className="field mt-1"
            readOnly
            value={`${door}${slug}/${service.id}?with=${service.linkKey}`}
            onFocus={(event) => event.target.select()}
          />
        </label>
      )}
      <p className="text-[13px] text-soft">
        {service.bookableBy === 'link'
          ? 'Whoever opens it can book this service.'
          : 'It shows this service; only people you have invited can book it.'}
      </p>
      <ActButton
        className="press justify-self-start"
        onAct={() =>
          changePractice(db, 'a new link', (p) =>
            withService(p, service.id, (service) => ({ ...service, linkKey: newKey() })),
          )
        }
      >
        {service.linkKey ? 'Make a new link; the old one ends' : 'Make a link'}
      </ActButton>
    </div>
  )
}
