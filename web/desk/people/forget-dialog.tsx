import type { Practice } from '@acolhida/core/practice'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { db } from '../data/db.ts'
import type { PersonRow } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { counted } from '../parts/words.ts'
import { roundSoon } from '../sync/acts.ts'
import { forgetPerson, whatGoes } from './forget.ts'
import { SaveThem } from './save-them.tsx'

/** Forgets somebody for good, after saying what goes, what stays and what must be ended first. */
export function ForgetDialog({
  practice,
  person,
  close,
  then,
}: {
  practice: Practice
  person: PersonRow
  close: () => void
  then: () => void
}) {
  const goes = useLiveQuery(() => whatGoes(db, person), [person.id])
  const [sure, setSure] = useState(false)
  const act = useAct()
  return (
    <Dialog title={`Forget ${person.name}`} close={close}>
      {goes && (
        <>
          <p>
            Everything of theirs goes, here and at the relay: {counted(goes.bookings, 'booking', 'bookings')},{' '}
            {counted(goes.messages, 'message', 'messages')}, what they answered, what you have noted, files.
            It can’t be undone, and an older backup does not bring it back.
          </p>
          {goes.open > 0 ? (
            <p className="note tag-look mt-3">
              {counted(goes.open, 'thing of theirs is', 'things of theirs are')} still open: a request, a
              session to come, a place in line, a path that goes on. Please end that first.
            </p>
          ) : (
            <>
              <ul className="mt-3 grid list-disc gap-1 pl-5 text-[14px]">
                {goes.agreements > 0 && (
                  <li>
                    Of {counted(goes.agreements, 'agreement', 'agreements')} the numbers stay, without name or
                    text, so that those of others still verify.
                  </li>
                )}
                {goes.invoices > 0 && (
                  <li className="font-semibold">
                    {counted(goes.invoices, 'invoice stays', 'invoices stay')}, without the name. Tax law
                    usually wants invoices kept with it, for years: save everything of theirs first.
                  </li>
                )}
                {goes.asked > 0 && (
                  <li>
                    {counted(goes.asked, 'booking stays', 'bookings stay')} that somebody else has asked for,
                    with their name: it goes with whoever asked.
                  </li>
                )}
                <li>
                  Backups you have made before still hold them, outside of this desk: those are yours to
                  delete.
                </li>
              </ul>
              <SaveThem practice={practice} person={person} />
              <label className="mt-3 flex min-h-11 cursor-pointer items-center gap-3">
                <input
                  type="checkbox"
                  className="checkbox checkbox-primary"
                  checked={sure}
                  onChange={(event) => setSure(event.target.checked)}
                />
                I have saved what I must keep
              </label>
              <ProblemNote of={act} />
              <button
                type="button"
                className="press press-no mt-2"
                disabled={!sure || act.busy}
                onClick={() =>
                  act.run(
                    () => forgetPerson(db, person),
                    () => {
                      roundSoon()
                      then()
                    },
                  )
                }
              >
                Forget {person.name} for good
              </button>
            </>
          )}
        </>
      )}
    </Dialog>
  )
}
