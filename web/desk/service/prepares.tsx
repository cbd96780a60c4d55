import type { Practice, Service } from '@acolhida/core/practice'
import { Link } from 'react-router'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { Tick } from '../parts/tick.tsx'
import { withPrepares } from '../preparing/with-prepares.ts'
import { preparationLine } from '../preparing/words.ts'
import { withService } from './with-service.ts'

/** What goes out with each booking of a service. */
export function Prepares({ practice, service }: { practice: Practice; service: Service }) {
  const all = practice.preparations ?? []
  return (
    <section className="sheet grid gap-2 p-5" aria-label="What clients prepare">
      <h2>What clients prepare</h2>
      {all.map((one) => (
        <div key={one.id}>
          <Tick
            label={one.name}
            on={service.prepares?.includes(one.id) ?? false}
            onChange={(on) =>
              changePractice(db, 'what goes out with a service', (p) =>
                withService(p, service.id, (of) => withPrepares(p, of, one.id, on)),
              )
            }
          />
          <p className="pl-8 text-[13px] text-soft">{preparationLine(one)}</p>
        </div>
      ))}
      {all.length > 0 && (
        <p className="text-[13px] text-soft">The confirmation lists it, with one link to all of it.</p>
      )}
      <Link className="way text-[14px]" to="/preparations">
        {all.length > 0
          ? 'Write what clients prepare'
          : 'Nothing yet. Write a letter, or what they sign or answer'}
      </Link>
    </section>
  )
}
