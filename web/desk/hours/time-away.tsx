import type { Away, Practice } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { Pencil, X } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { DateField, TimeField } from '../parts/date-field.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { useWanted } from '../parts/use-wanted.ts'
import { type AwayTyped, awayFrom, awayTyped, awayWords, NO_AWAY, REPEATS, withAway } from './away.ts'
import { HolidayChoice } from './holiday-choice.tsx'

/** Time away: hours, days or weeks, once or again and again, and public holidays. */
export function TimeAway({ practice }: { practice: Practice }) {
  const [editing, setEditing] = useState<string>()
  const section = useRef<HTMLElement>(null)
  const wanted = useWanted() === 'away'
  useEffect(() => {
    if (wanted) section.current?.focus()
  }, [wanted])
  return (
    <section ref={section} className="sheet h-fit p-5" aria-labelledby="time-away" tabIndex={-1}>
      <h2 id="time-away">Time away</h2>
      {practice.away.length === 0 && (
        <p className="mt-2 text-[14px] text-soft">Times at which nobody can book will be listed here.</p>
      )}
      <ul className="mt-2 grid max-h-96 gap-1 overflow-y-auto">
        {practice.away.map((away) =>
          editing === away.id ? (
            <li key={away.id} className="border-y border-line py-3">
              <AwayForm away={away} done={() => setEditing(undefined)} />
            </li>
          ) : (
            <li key={away.id} className="flex items-center justify-between gap-2">
              <span className="text-[14px]">
                {awayWords(away)}
                {away.note && <span className="block text-soft">{away.note}</span>}
              </span>
              <span className="flex shrink-0">
                <button
                  type="button"
                  className="press press-quiet px-2"
                  aria-label={`Change the time away ${awayWords(away)}`}
                  onClick={() => setEditing(away.id)}
                >
                  <Pencil size={15} aria-hidden="true" />
                </button>
                <ActButton
                  className="press press-quiet px-2"
                  aria-label={`Remove the time away ${awayWords(away)}`}
                  onAct={() =>
                    changePractice(db, 'time away', (p) => ({
                      ...p,
                      away: p.away.filter((other) => other.id !== away.id),
                    }))
                  }
                >
                  <X size={16} aria-hidden="true" />
                </ActButton>
              </span>
            </li>
          ),
        )}
      </ul>
      <div className="mt-3 border-t border-line pt-3">
        <AwayForm />
      </div>
      <HolidayChoice practice={practice} />
    </section>
  )
}

/** Time away as it is typed: new, or one that is there. */
function AwayForm({ away, done }: { away?: Away; done?: () => void }) {
  const [typed, setTyped] = useState<AwayTyped>(away ? awayTyped(away) : NO_AWAY)
  const act = useAct()
  const set = (key: keyof AwayTyped) => (value: string) => setTyped((now) => ({ ...now, [key]: value }))
  const keep = async (): Promise<void> => {
    await changePractice(db, 'time away', (p) => {
      const id = away?.id ?? freeId(new Set(p.away.map((other) => other.id)), 'away')
      return withAway(p, [awayFrom(id, typed)])
    })
    if (!away) setTyped(NO_AWAY)
  }
  const own = REPEATS.some(({ value }) => value === typed.repeat)
    ? REPEATS
    : [...REPEATS, { value: typed.repeat, name: `By the rule ${typed.repeat}` }]
  return (
    <form
      className="grid grid-cols-2 gap-2.5"
      aria-label={away ? `Change the time away ${awayWords(away)}` : 'New time away'}
      onSubmit={(event) => {
        event.preventDefault()
        act.run(keep, done)
      }}
    >
      <div className="col-span-2 grid gap-2.5">
        <DateField label="First day" value={typed.first} onChange={set('first')} />
        <DateField label="Last day" value={typed.last} onChange={set('last')} />
      </div>
      <TimeField label="From, if hours" value={typed.from} onChange={set('from')} />
      <TimeField label="Until, if hours" value={typed.to} onChange={set('to')} />
      <div className="col-span-2">
        <PlainChoice label="How often" value={typed.repeat} options={own} onChange={set('repeat')} />
      </div>
      {typed.repeat && (
        <div className="col-span-2">
          <DateField
            label="It comes again until; empty: for good"
            value={typed.until}
            onChange={set('until')}
          />
        </div>
      )}
      <div className="col-span-2">
        <PlainField label="A note for yourself" value={typed.note} onChange={set('note')} />
      </div>
      <ProblemNote of={act} className="col-span-2" />
      <div className="col-span-2 flex gap-2">
        <button type="submit" className="press grow" disabled={act.busy}>
          {away ? 'Keep it so' : 'Keep this time free'}
        </button>
        {done && (
          <button type="button" className="press press-quiet" onClick={done}>
            Leave it
          </button>
        )}
      </div>
    </form>
  )
}
