import type { FollowUp } from '@acolhida/core/people'
import { dateAt, type LocalDate, shortDate } from '@acolhida/core/time'
import { useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { changeFollowUps, followedUp } from '../data/people.ts'
import type { PersonRow } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { DateField } from '../parts/date-field.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { homeZone } from '../parts/words.ts'
import { Card } from '../request/card.tsx'

/** What there is to come back to somebody about, each from a date on, when it stands on Today. */
export function FollowUps({ desk, person }: { desk: Desk; person: PersonRow }) {
  const today = dateAt(homeZone(desk.practice), relayNow())
  const [on, setOn] = useState<LocalDate | ''>('')
  const [text, setText] = useState('')
  const act = useAct()
  const all = [...(person.followUps ?? [])].sort((a, b) => (a.on < b.on ? -1 : 1))
  const add = async (): Promise<void> => {
    if (!on) throw new Error('Please give the day on which it is to stand on Today.')
    const one = { id: newKey(), on, text: text.trim() }
    await changeFollowUps(db, person.id, (before) => [...before, one])
    setText('')
    setOn('')
  }
  const tick = ({ id, done }: FollowUp): void =>
    act.run(() => followedUp(db, person.id, id, done === undefined ? today : undefined))
  return (
    <Card title="To come back to">
      <ul className="mt-2 grid gap-1">
        {all.map((one) => (
          <li key={one.id}>
            <label className="flex min-h-[32px] cursor-pointer items-start gap-3">
              <input
                type="checkbox"
                className="checkbox checkbox-primary checkbox-sm mt-0.5"
                checked={one.done !== undefined}
                onChange={() => tick(one)}
              />
              <span className="min-w-0 wrap-anywhere">
                <span className={one.done === undefined ? '' : 'text-soft line-through'}>{one.text}</span>
                <span className="block text-[13px] text-soft">
                  {one.done === undefined ? `from ${shortDate(one.on)} on` : `done on ${shortDate(one.done)}`}
                </span>
              </span>
            </label>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 grid gap-2"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          act.run(add)
        }}
      >
        <PlainField label="What" value={text} onChange={setText} />
        <DateField label="From this day on" value={on} onChange={setOn} />
        <ProblemNote of={act} />
        <button type="submit" className="press justify-self-start" disabled={!text.trim()}>
          Put it on that day
        </button>
      </form>
    </Card>
  )
}
