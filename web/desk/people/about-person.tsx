import type { Person } from '@acolhida/core/people'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { changePerson, stagesIn } from '../data/people.ts'
import { type PersonRow, plainPerson } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { DateField } from '../parts/date-field.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { Tick } from '../parts/tick.tsx'

/** Somebody who has not been here yet. */
const nobody = (): Person => ({
  id: `person-${newKey()}`,
  name: '',
  emails: [''],
  invited: [],
  blocked: false,
  note: '',
})

/** What the practitioner keeps about somebody: tags, a note, what they are invited to, whether they may book. */
export function AboutPerson({
  desk,
  person: given,
  close,
}: {
  desk: Desk
  /** Nobody: somebody new is invited. */
  person: PersonRow | undefined
  close: () => void
}) {
  const [seen] = useState(() => given && plainPerson(given))
  const [person, setPerson] = useState(() => seen ?? nobody())
  const [tags, setTags] = useState((person.tags ?? []).join(', '))
  const stages = useLiveQuery(() => stagesIn(db), [])
  const act = useAct()
  const own = new Set(person.tags ?? [])
  const byRules = (given?.allTags ?? []).filter((tag) => !own.has(tag))
  const keep = async (): Promise<void> => {
    const written = tags
      .split(',')
      .map((tag) => tag.trim())
      .filter(Boolean)
    const { tags: _, ...rest } = person
    const next = { ...rest, ...(written.length > 0 ? { tags: [...new Set(written)] } : {}) }
    await changePerson(db, next, seen)
  }
  return (
    <Dialog title={given ? given.name : 'Somebody new'} close={close}>
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          act.run(keep, close)
        }}
      >
        {!given && (
          <div className="grid grid-cols-2 gap-3">
            <PlainField
              label="Name"
              value={person.name}
              onChange={(name) => setPerson({ ...person, name })}
            />
            <PlainField
              label="Mail address"
              type="email"
              value={person.emails[0] ?? ''}
              onChange={(email) => setPerson({ ...person, emails: [email] })}
            />
          </div>
        )}
        <div className="grid grid-cols-2 gap-3">
          <PlainField
            label="Pronouns"
            value={person.pronouns ?? ''}
            onChange={(pronouns) =>
              setPerson(({ pronouns: _, ...rest }) => (pronouns ? { ...rest, pronouns } : rest))
            }
          />
          <PlainField
            label="Phone"
            type="tel"
            value={person.phone ?? ''}
            onChange={(phone) => setPerson(({ phone: _, ...rest }) => (phone ? { ...rest, phone } : rest))}
          />
        </div>
        <DateField
          label="Birthday"
          value={person.birthday ?? ''}
          onChange={(birthday) =>
            setPerson(({ birthday: _, ...rest }) => (birthday ? { ...rest, birthday } : rest))
          }
        />
        <fieldset>
          <legend className="ask">Invited to</legend>
          {desk.practice.services.map((service) => (
            <Tick
              key={service.id}
              label={service.name}
              on={person.invited.includes(service.id)}
              onChange={(on) =>
                setPerson((now) => ({
                  ...now,
                  invited: on ? [...now.invited, service.id] : now.invited.filter((id) => id !== service.id),
                }))
              }
            />
          ))}
        </fieldset>
        <label className="ask">
          How far you have come, in a word of your own
          <input
            className="field mt-1"
            list="stages-in-use"
            maxLength={60}
            value={person.stage ?? ''}
            onChange={({ target: { value } }) =>
              setPerson(({ stage: _, ...rest }) => (value ? { ...rest, stage: value } : rest))
            }
          />
          <datalist id="stages-in-use">
            {stages?.map((stage) => (
              <option key={stage} value={stage} />
            ))}
          </datalist>
        </label>
        <PlainField
          label="Where they came from: who sent them, where they read of you"
          value={person.cameFrom ?? ''}
          longest={200}
          onChange={(cameFrom) =>
            setPerson(({ cameFrom: _, ...rest }) => (cameFrom ? { ...rest, cameFrom } : rest))
          }
        />
        <PlainField label="Tags, with commas between" value={tags} onChange={setTags} />
        {byRules.length > 0 && (
          <p className="text-[14px] text-soft">
            Given by your rules: {byRules.map((tag) => `“${tag}”`).join(', ')}
          </p>
        )}
        <PlainField
          label="A note, for yourself"
          rows={3}
          value={person.note}
          onChange={(note) => setPerson({ ...person, note })}
        />
        <Tick
          label="Worked with before: known from their first request on"
          on={person.known ?? false}
          onChange={(on) => setPerson(({ known: _, ...rest }) => (on ? { ...rest, known: true } : rest))}
        />
        <Tick
          label="May not book online"
          on={person.blocked}
          onChange={(blocked) => setPerson((now) => ({ ...now, blocked }))}
        />
        <PlainChoice
          label="What they ask for"
          value={person.approval ?? ''}
          options={[
            { value: '', name: 'As each service has it' },
            { value: 'ask', name: 'Always waits for my word' },
            { value: 'straight', name: 'Goes straight in, where it fits' },
          ]}
          onChange={(to) =>
            setPerson(({ approval: _, ...rest }) =>
              to === 'ask' || to === 'straight' ? { ...rest, approval: to } : rest,
            )
          }
        />
        <Tick
          label="Nothing they miss or cancel late counts"
          on={person.exempt ?? false}
          onChange={(on) => setPerson(({ exempt: _, ...rest }) => (on ? { ...rest, exempt: true } : rest))}
        />
        <Tick
          label="Send them no reminders or other steps of a sequence"
          on={person.hushed ?? false}
          onChange={(on) => setPerson(({ hushed: _, ...rest }) => (on ? { ...rest, hushed: true } : rest))}
        />
        <ProblemNote of={act} />
        <button type="submit" className="press press-go justify-self-start">
          {given ? 'Keep it' : `Keep ${person.name.trim() || 'them'}`}
        </button>
      </form>
    </Dialog>
  )
}
