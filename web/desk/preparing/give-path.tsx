import type { Contact } from '@acolhida/core/booking'
import { courseLetter } from '@acolhida/core/messages'
import type { Practice } from '@acolhida/core/practice'
import { beginCourse, givenPath, pathFault } from '@acolhida/core/preparing'
import { useState } from 'react'
import { Link } from 'react-router'
import { PathLine } from '../../drawings/path-line.tsx'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { Dialog } from '../parts/dialog.tsx'
import { FormDialog } from '../parts/form-dialog.tsx'
import { asOptions, PlainChoice } from '../parts/plain-field.tsx'
import { homeZone, when } from '../parts/words.ts'
import { doWithCourse } from '../sync/acts.ts'
import { cash, pathLine } from './path-words.ts'
import { TellThem, useTelling } from './telling.tsx'
import { dueWords, PREPARES } from './words.ts'

/** Gives a path to somebody, on one sheet: what reaches them when, and what they read. */
export function GivePath({
  practice,
  person,
  close,
}: {
  practice: Practice
  person: Contact
  close: () => void
}) {
  const paths = practice.paths ?? []
  const [id, setId] = useState(paths[0]?.id ?? '')
  const telling = useTelling()
  const now = relayNow()
  const path = paths.find((one) => one.id === id)
  if (!path)
    return (
      <Dialog title={`A path for ${person.name}`} close={close}>
        <p>
          There is no path yet.{' '}
          <Link className="way" to="/paths">
            Begin one
          </Link>
        </p>
      </Dialog>
    )
  const fault = pathFault(practice, path)
  const of = givenPath(practice, path, now, homeZone(practice))
  const course = beginCourse('look', { ...{ type: 'given', at: now, person }, ...of, ...telling.said })
  const letter = courseLetter(practice, course, undefined, { step: 'to-prepare', anchor: 1 }, now)
  return (
    <FormDialog
      title={`A path for ${person.name}`}
      go={`Give it to ${person.name}`}
      does={() =>
        doWithCourse(newKey(), {
          ...{ do: 'give', person, preparations: [], path: id },
          ...telling.said,
          ...telling.quiet,
        })
      }
      close={close}
      ready={fault === undefined}
      wide
    >
      <PlainChoice label="Which path" value={id} options={asOptions(paths)} onChange={setId} />
      <p className="mt-1 text-[14px] text-soft">{pathLine(practice, path)}</p>
      {fault && <p className="mt-1 font-semibold text-clay">It can’t be given: {fault}</p>}
      <PathLine sessions={of.path.sessions.map(() => 'left')} />
      <h3 className="mt-2">What reaches them, and when</h3>
      <ul className="mt-1 grid gap-1 text-[14px]">
        {!telling.silent && <li>Today: one message with everything, and their page.</li>}
        {of.stations.map((station) => (
          <li key={station.id}>
            {station.name}, {PREPARES[station.is].does}, {dueWords(station.due)}.
          </li>
        ))}
        {of.path.sessions.length > 0 && (
          <li>
            {of.path.sessions.length === 1 ? 'One session' : `${of.path.sessions.length} sessions`}: they plan
            them on their page, or you do on theirs here.
          </li>
        )}
        {of.path.pays.map((pay) => (
          <li key={pay.id}>
            {when(practice, pay.due)}: {cash(practice, pay.amount)} is due
            {pay.due > now ? '; they are told three days before, if it has not come' : ''}.
          </li>
        ))}
      </ul>
      <TellThem telling={telling} name={person.name} letter={letter} />
    </FormDialog>
  )
}
