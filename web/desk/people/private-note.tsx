import type { Person } from '@acolhida/core/people'
import { useState } from 'react'
import { db } from '../data/db.ts'
import { changePerson } from '../data/people.ts'
import { type PersonRow, plainPerson } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { Card } from '../request/card.tsx'

const sealer = () => import('../../seal/pass-phrase.ts')

/** The pass phrase as long as this page is open; nothing keeps it. */
let known = ''

/** A note that nobody reads without a pass phrase: sealed here, in backups, and in what is saved of somebody. */
export function PrivateNote({ person }: { person: PersonRow }) {
  const [phrase, setPhrase] = useState(known)
  const [text, setText] = useState<string>()
  const [opened, setOpened] = useState<readonly string[]>([])
  const act = useAct()
  const { sealedNotes = [] } = person
  const open = async (): Promise<void> => {
    const { openWith, SHORTEST_PHRASE } = await sealer()
    if (sealedNotes.length === 0 && phrase.length < SHORTEST_PHRASE)
      throw new Error(`A pass phrase has ${SHORTEST_PHRASE} characters or more: a few words are best.`)
    const notes = await Promise.all(sealedNotes.map((one) => openWith(phrase, one)))
    known = phrase
    setOpened(sealedNotes)
    setText(notes.join('\n\n'))
  }
  const keep = async (): Promise<void> => {
    if (sealedNotes.join() !== opened.join())
      throw new Error('It was changed elsewhere meanwhile. Copy what you have written, and open it anew.')
    const { sealWith } = await sealer()
    const seen = plainPerson(person)
    const { sealedNotes: _, ...rest } = seen
    const next: Person = text?.trim() ? { ...rest, sealedNotes: [await sealWith(known, text)] } : rest
    await changePerson(db, next, seen)
    setText(undefined)
  }
  return (
    <Card title="A private note" aside={sealedNotes.length > 0 ? 'sealed' : undefined}>
      {text === undefined ? (
        <form
          className="mt-2 grid gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            act.run(open)
          }}
        >
          <label className="ask">
            {sealedNotes.length > 0 ? 'Your pass phrase' : 'A pass phrase for your private notes'}
            <input
              type="password"
              className="field mt-1"
              autoComplete="off"
              value={phrase}
              onChange={(event) => setPhrase(event.target.value)}
            />
          </label>
          <p className="text-[13px] text-soft">
            {sealedNotes.length > 0
              ? 'It is asked for once, until this page is closed or loaded anew.'
              : 'It is kept nowhere: without it nobody can read such notes again, nor can you.'}
          </p>
          <button type="submit" className="press justify-self-start" disabled={act.busy || !phrase}>
            {sealedNotes.length > 0 ? 'Open it' : 'Write one'}
          </button>
        </form>
      ) : (
        <div className="mt-2 grid gap-2">
          <PlainField
            label="For yourself alone"
            rows={5}
            value={text}
            onChange={setText}
            longest={20_000}
            focused
          />
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="press press-go"
              disabled={act.busy}
              onClick={() => act.run(keep)}
            >
              Seal it
            </button>
            <button type="button" className="press press-quiet" onClick={() => setText(undefined)}>
              Leave it as it was
            </button>
          </div>
        </div>
      )}
      <ProblemNote of={act} />
    </Card>
  )
}
