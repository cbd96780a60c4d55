import { type Missing, missingFor, type Practice } from '@acolhida/core/practice'
import { dateAt } from '@acolhida/core/time'
import { Link } from 'react-router'
import { useAt } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from './act.tsx'
import { SavedField } from './saved-field.tsx'
import { Switch } from './switch.tsx'
import { homeZone, serviceName } from './words.ts'

const WHAT = 'opening or closing the door'

/** The practice with its door opened, closed, or saying something else while it is closed. */
export const withDoor = (practice: Practice, part: Partial<NonNullable<Practice['door']>>): Practice => ({
  ...practice,
  door: { open: true, text: '', ...practice.door, ...part },
})

const openOrClose = (open: boolean): Promise<void> => changePractice(db, WHAT, (p) => withDoor(p, { open }))

/** Opens and closes the door, and what it says while it is closed. */
export function DoorOpening() {
  const { practice } = useDesk()
  const open = practice.door?.open !== false
  return (
    <section className="sheet grid gap-4 p-5">
      <h2>Open or closed</h2>
      <Switch label="My door is open" on={open} onChange={openOrClose} />
      {!open && (
        <SavedField
          label="What the door says while it is closed"
          help="Empty: that nothing can be asked for just now."
          what="what the closed door says"
          rows={3}
          value={practice.door?.text ?? ''}
          change={(p, text) => withDoor(p, { text: text.trim() })}
        />
      )}
      <p className="text-[13px] text-soft">
        While it is closed nobody new can ask for a time. What is booked stays booked, and whoever has a
        private link still comes in by it.
      </p>
    </section>
  )
}

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
