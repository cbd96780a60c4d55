import { type Missing, missingFor, type Practice } from '@acolhida/core/practice'
import { dateAt } from '@acolhida/core/time'
import { Link } from 'react-router'
import { useAt } from '../../relay-client/clock.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from './act.tsx'
import { openOrClose } from './with-door.ts'
import { homeZone, serviceName } from './words.ts'

/** What is missing, in words, and where it is set. */
function missingWords(missing: Missing, practice: Practice): { what: string; to: string } {
  switch (missing.what) {
    case 'headline':
      return { what: 'What you do, in a line', to: '/profile' }
    case 'hours':
      return { what: 'Hours at which you work', to: '/hours' }
    case 'service':
      return { what: 'A service at your door', to: '/services' }
    case 'terms':
      return {
        what: `Terms for “${serviceName(practice, missing.service)}”`,
        to: `/services/${missing.service}`,
      }
  }
}

/** Says at the place of work that the door is closed, and what it still needs; nothing while it is open. */
export function ClosedDoor() {
  const { practice } = useDesk()
  const today = useAt((now) => dateAt(homeZone(practice), now))
  if (practice.door?.open !== false) return null
  const missing = missingFor(practice, today).map((one) => missingWords(one, practice))
  return (
    <section className="sheet mt-6 px-4 py-3" aria-label="Your door is closed">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <p>
          <span className="font-semibold">Your door is closed.</span>{' '}
          {practice.door.text
            ? `It says: “${practice.door.text}”`
            : 'It says that nothing can be asked for just now.'}
        </p>
        <ActButton className="press" onAct={() => openOrClose(true)}>
          Open my door
        </ActButton>
      </div>
      {missing.length > 0 && (
        <>
          <p className="mt-2 text-[14px]">
            <Link className="way" to="/first/hours">
              Go through the first steps
            </Link>
          </p>
          <p className="mt-2 text-[14px] text-soft">It still needs:</p>
          <ul className="mt-1 grid gap-1 text-[14px]">
            {missing.map(({ what, to }) => (
              <li key={what}>
                <Link className="way" to={to}>
                  {what}
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}
