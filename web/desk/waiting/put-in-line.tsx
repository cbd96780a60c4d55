import { schemas } from '@acolhida/core/contract/schemas'
import { placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import { letIn } from '@acolhida/core/schemas'
import { dateAt, type Language } from '@acolhida/core/time'
import type { LineWishes, WaitingWindow } from '@acolhida/core/waiting'
import { useState } from 'react'
import { WindowsEdit } from '../../questions/windows-edit.tsx'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import type { BookingRow } from '../data/rows.ts'
import { useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { FormProblems } from '../parts/form-problems.tsx'
import { asOptions, PlainChoice } from '../parts/plain-field.tsx'
import { Tick } from '../parts/tick.tsx'
import { serviceName, when } from '../parts/words.ts'
import { PersonFields } from '../people/who-fields.tsx'
import { doInLine } from '../sync/acts.ts'

/** Puts somebody in line by hand; or somebody who has a time already, for an earlier one. */
export function PutInLine({
  desk: { practice },
  windows: given = [],
  service: wanted,
  earlier,
  about,
  done,
  close,
}: {
  desk: Desk
  /** When they could come, as far as it is known: a stretch drawn in the diary. */
  windows?: WaitingWindow[]
  service?: string | undefined
  /** The booking that they would rather have earlier. */
  earlier?: BookingRow
  about?: { name: string; email: string; phone?: string }
  done?: () => unknown
  close: () => void
}) {
  const begins = serviceOf(practice, earlier?.service ?? wanted ?? '') ?? practice.services[0]!
  const [service, setService] = useState(begins)
  const [place, setPlace] = useState(earlier?.place ?? begins.places[0]!)
  const known = earlier?.asked.person
  const [person, setPerson] = useState({
    name: known?.name ?? about?.name ?? '',
    email: known?.email ?? about?.email ?? '',
    phone: known?.phone ?? about?.phone ?? '',
  })
  const [language, setLanguage] = useState<Language | undefined>(known?.language)
  const [wishes, setWishes] = useState<LineWishes>({ windows: given })
  const [silent, setSilent] = useState(false)
  const act = useAct()
  const where = zoneOf(practice, placeOf(practice, place))
  const put = (): void => {
    const { phone, ...who } = person
    act.run(async () => {
      const line = newKey()
      const body = {
        line,
        command: {
          ...{ do: 'join', service: service.id, place, ...wishes },
          person: {
            ...who,
            zone: known?.zone ?? practice.profile.zone,
            ...(phone.trim() ? { phone: phone.trim() } : {}),
            ...(language ? { language } : {}),
          },
          ...(earlier ? { instead: earlier.id } : {}),
          ...(silent ? { silent } : {}),
        },
      }
      const { command } = letIn(schemas.waiting, body, 'The place in line')
      await doInLine(line, command)
      await done?.()
    }, close)
  }
  return (
    <Dialog title={earlier ? 'They want an earlier time' : 'Put somebody in line'} close={close} wide>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          put()
        }}
      >
        {earlier ? (
          <p className="mb-3">
            {person.name} has {when(practice, earlier.start)}, {serviceName(practice, earlier.service)}. An
            earlier time that falls free is held out to them. Taking it costs nothing, is not counted, and
            frees the one they have, which is held out to the next.
          </p>
        ) : (
          <>
            <PersonFields
              practice={practice}
              person={person}
              onPerson={setPerson}
              language={language}
              onLanguage={setLanguage}
            />
            <div className="mb-3 grid gap-3 sm:grid-cols-2">
              <PlainChoice
                label="What for"
                value={service.id}
                options={asOptions(practice.services)}
                onChange={(id) => {
                  const next = serviceOf(practice, id)!
                  setService(next)
                  setPlace(next.places[0]!)
                }}
              />
              <PlainChoice
                label="Where"
                value={place}
                options={asOptions(practice.places.filter(({ id }) => service.places.includes(id)))}
                onChange={setPlace}
              />
            </div>
          </>
        )}
        <WindowsEdit
          legend="When could they come?"
          windows={wishes.windows}
          today={dateAt(where, relayNow())}
          onChange={(windows) => setWishes((now) => ({ ...now, windows }))}
        />
        <div className="mt-3 grid gap-1">
          {person.phone.trim() && (
            <Tick
              label="Tell them by text message, too"
              on={wishes.by === 'text'}
              onChange={(on) => setWishes(({ by: _, ...now }) => ({ ...now, ...(on ? { by: 'text' } : {}) }))}
            />
          )}
          <Tick label="Do it in silence: nothing is sent to them now" on={silent} onChange={setSilent} />
        </div>
        <FormProblems answers={0} problem={act.problem} />
        <button
          type="submit"
          className="press press-go mt-3"
          disabled={act.busy || !person.name.trim() || !person.email.trim()}
        >
          {earlier
            ? 'Put them in line for an earlier time'
            : `Put ${person.name.trim() || 'somebody'} in line`}
        </button>
      </form>
    </Dialog>
  )
}
