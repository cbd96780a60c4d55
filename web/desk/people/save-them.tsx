import type { Practice } from '@acolhida/core/practice'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type PersonRow, plainPerson } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { fileNameOf, saveFile } from '../parts/file.tsx'

/** Saves somebody: as a card, or everything there is of them, to read or as data. */
export function SaveThem({ practice, person }: { practice: Practice; person: PersonRow }) {
  const act = useAct()
  const name = fileNameOf(person.name)
  const card = async (): Promise<void> => {
    const { cardOf } = await import('@acolhida/core/move-in')
    saveFile(`${name}.vcf`, 'text/vcard', cardOf(plainPerson(person)))
  }
  const everything = async (as: 'text' | 'data'): Promise<void> => {
    const { gatheredOf, readableOf } = await import('./person-file.ts')
    const gathered = await gatheredOf(db, person)
    if (as === 'data') {
      saveFile(`${name}.json`, 'application/json', `${JSON.stringify(gathered.file, null, 2)}\n`)
      return
    }
    const text = readableOf(practice, gathered, relayNow())
    saveFile(`${name}.txt`, 'text/plain;charset=utf-8', text)
  }
  return (
    <div className="mt-3">
      <p className="text-[13px] text-soft">Save them:</p>
      <div className="mt-1 flex flex-wrap gap-1.5">
        <button type="button" className="press press-quiet px-2" onClick={() => act.run(card)}>
          As a card
        </button>
        <button
          type="button"
          className="press press-quiet px-2"
          onClick={() => act.run(() => everything('text'))}
        >
          Everything, to read
        </button>
        <button
          type="button"
          className="press press-quiet px-2"
          onClick={() => act.run(() => everything('data'))}
        >
          Everything, as data
        </button>
      </div>
      <ProblemNote of={act} />
    </div>
  )
}
