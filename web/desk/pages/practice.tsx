import { dateAt } from '@acolhida/core/time'
import { Link } from 'react-router'
import { useAt } from '../../relay-client/clock.ts'
import { useDesk } from '../data/live.ts'
import { ClosedDoor } from '../parts/closed-door.tsx'
import { DoorLink } from '../parts/door-link.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { PRACTICE_PARTS } from '../parts/practice-parts.ts'
import { homeZone } from '../parts/words.ts'

const GROUPS = [...new Set(PRACTICE_PARTS.map(({ group }) => group))]

/** Everything the practice consists of, each with what is set now. */
export function PracticePage() {
  const { practice } = useDesk()
  const today = useAt((now) => dateAt(homeZone(practice), now))
  return (
    <>
      <PageHead title="My practice" line="All that your door goes by, and how it stands now.">
        <DoorLink />
      </PageHead>
      <ClosedDoor />
      <div className="mt-5 grid max-w-[1020px] gap-6">
        {GROUPS.map((group) => (
          <section key={group} aria-label={group}>
            <h2 className="mb-2.5">{group}</h2>
            <ul className="sheet divide-y divide-line overflow-hidden">
              {PRACTICE_PARTS.filter((part) => part.group === group).map(({ to, name, now }) => (
                <li
                  key={to}
                  className="relative gap-4 px-5 py-3 hover:bg-shade sm:grid sm:grid-cols-[180px_1fr]"
                >
                  <Link to={to} className="font-semibold after:absolute after:inset-0">
                    {name}
                  </Link>
                  <p className="min-w-0 text-soft">{now(practice, today)}</p>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </>
  )
}
