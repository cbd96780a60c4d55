import { normalMail, type Person, tagsOf } from '@acolhida/core/people'
import { letIn, person as personSchema } from '@acolhida/core/schemas'
import { useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { db } from '../data/database.ts'
import { bookingsOf, type Desk } from '../data/live.ts'
import { Dialog } from '../parts/dialog.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { problemWords } from '../parts/problem-words.ts'
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
  person: Person | undefined
  close: () => void
}) {
  const [person, setPerson] = useState(given ?? nobody)
  const [tags, setTags] = useState((person.tags ?? []).join(', '))
  const [problem, setProblem] = useState<string>()
  const own = new Set(person.tags ?? [])
  const byRules = given ? tagsOf(given, bookingsOf(desk.bookings, given)).filter((tag) => !own.has(tag)) : []
  const keep = async (): Promise<void> => {
    const written = tags
      .split(',')
      .map((tag) => tag.trim())
      .filter(Boolean)
    const { tags: _, ...rest } = person
    const next = {
      ...rest,
      emails: rest.emails.map(normalMail),
      ...(written.length > 0 ? { tags: [...new Set(written)] } : {}),
    }
    try {
      const clean = letIn<Person>(personSchema, next, 'The person')
      await db.transaction('rw', db.people, async () => {
        const same = await db.people.where('emails').anyOf(clean.emails).first()
        if (same && same.id !== clean.id) throw new Error(`${same.name} has this mail address already.`)
        await db.people.put(clean)
      })
      close()
    } catch (error) {
      setProblem(problemWords(error))
    }
  }
  return (
    <Dialog title={given ? given.name : 'Invite somebody'} close={close}>
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          keep()
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
          label="May not book online"
          on={person.blocked}
          onChange={(blocked) => setPerson((now) => ({ ...now, blocked }))}
        />
        {problem && (
          <p role="alert" className="text-[14px] font-semibold text-clay">
            {problem}
          </p>
        )}
        <button type="submit" className="press press-go justify-self-start">
          {given ? 'Keep it' : 'Invite them'}
        </button>
      </form>
    </Dialog>
  )
}
