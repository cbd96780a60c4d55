import { signOf } from '@acolhida/core/money'
import type { Extra, Practice, Service } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { currencyOf } from '../parts/words.ts'
import { amount, wholeTyped } from '../settings/setting.ts'
import { withService } from './with-service.ts'

/** What a client can add: each with the minutes and the price it comes to. */
export function ServiceExtras({ practice, service }: { practice: Practice; service: Service }) {
  const { code, decimals } = currencyOf(practice.profile.currency)
  const extras = service.extras ?? []
  const within = (p: Practice, change: (before: Extra[]) => Extra[]): Practice =>
    withService(p, service.id, ({ extras: before = [], ...rest }) => {
      const next = change(before)
      return next.length > 0 ? { ...rest, extras: next } : rest
    })
  const set = (id: string, part: (typed: string) => Partial<Extra>) => (p: Practice, typed: string) =>
    within(p, (before) => before.map((extra) => (extra.id === id ? { ...extra, ...part(typed) } : extra)))
  const [name, setName] = useState('')
  const act = useAct()
  /** Nothing stands at the door before it has a name. */
  const add = (): Promise<void> =>
    changePractice(db, 'something to add', (p) =>
      within(p, (before) => [
        ...before,
        {
          id: freeId(new Set(before.map(({ id }) => id)), `extra-${before.length + 1}`),
          name: name.trim(),
          minutes: 0,
          price: 0,
        },
      ]),
    )
  return (
    <section className="sheet grid gap-3 p-5" aria-labelledby="extras">
      <h2 id="extras">What a client can add</h2>
      {extras.length === 0 && (
        <p className="text-[14px] text-soft">
          A recording, a longer warm-up: with its minutes and its price.
        </p>
      )}
      <ul className="grid gap-3">
        {extras.map((extra) => (
          <li key={extra.id} className="grid grid-cols-2 items-end gap-2 sm:grid-cols-[1fr_90px_110px_auto]">
            <SavedField
              label="What"
              what="something to add"
              value={extra.name}
              change={set(extra.id, (name) => ({ name }))}
            />
            <SavedField
              label="Minutes"
              what="something to add"
              type="number"
              value={String(extra.minutes)}
              change={set(extra.id, (typed) => ({ minutes: wholeTyped(typed) }))}
            />
            <SavedField
              label={`Price in ${signOf(code)}`}
              what="something to add"
              value={(extra.price / 10 ** decimals).toFixed(decimals)}
              change={set(extra.id, (typed) => ({ price: amount(typed, decimals) }))}
            />
            <ActButton
              className="press press-quiet px-2"
              aria-label={`Remove ${extra.name}`}
              onAct={() =>
                changePractice(db, `${extra.name} removed`, (p) =>
                  within(p, (before) => before.filter((other) => other.id !== extra.id)),
                )
              }
            >
              <X size={16} aria-hidden="true" />
            </ActButton>
          </li>
        ))}
      </ul>
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          act.run(add, () => setName(''))
        }}
      >
        <PlainField label="Something more to add" required value={name} onChange={setName} />
        <button type="submit" className="press" disabled={act.busy}>
          <Plus size={16} aria-hidden="true" /> Add it
        </button>
      </form>
      <ProblemNote of={act} className="" />
    </section>
  )
}
