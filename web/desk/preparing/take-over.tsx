import { corrected } from '@acolhida/core/people'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { db } from '../data/db.ts'
import { changePerson, personOfMail } from '../data/people.ts'
import { plainPerson } from '../data/rows.ts'
import { ActButton } from '../parts/act.tsx'

/** What somebody has answered about how they are reached, to be kept with them by a press where it is something else. */
export function TakeOver({
  email,
  asked,
  answer,
}: {
  /** Whose it is, by the address they were given it at. */
  email: string
  asked: 'phone' | 'email'
  answer: unknown
}) {
  const [taken, setTaken] = useState(false)
  const row = useLiveQuery(() => personOfMail(db, email), [email])
  if (!row) return null
  const seen = plainPerson(row)
  const next = corrected(seen, asked, answer)
  if (!next)
    return (
      // What was pressed is gone: the focus stays where it was.
      <span
        ref={(line) => {
          if (taken) line?.focus()
        }}
        tabIndex={-1}
        className="block text-[13px] text-soft"
      >
        As it stands with them.
      </span>
    )
  const before = asked === 'phone' ? row.phone : row.emails[0]
  return (
    <span className="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 text-[13px] text-soft">
      <ActButton
        className="press px-2 py-0.5 text-[13px]"
        onAct={async () => {
          setTaken(true)
          await changePerson(db, next, seen)
        }}
      >
        {asked === 'phone' ? 'Keep as their number' : 'Keep as their address'}
      </ActButton>
      <span className="wrap-anywhere">{before ? `It is ${before} here.` : 'None is known here.'}</span>
    </span>
  )
}
