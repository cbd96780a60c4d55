import type { Away, Practice } from '@acolhida/core/practice'
import {
  addDays,
  at,
  type DayNumber,
  type LocalDateTime,
  localDate,
  shortDate,
  splitDateTime,
  time,
  wallTime,
} from '@acolhida/core/time'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { withAway } from './away.ts'
import { datesOf } from './changed-days.tsx'
import { HolidayChoice } from './holiday-choice.tsx'

const REPEATS = [
  { value: '', name: 'Once' },
  { value: 'FREQ=WEEKLY', name: 'Every week' },
  { value: 'FREQ=WEEKLY;INTERVAL=2', name: 'Every other week' },
  { value: 'FREQ=MONTHLY', name: 'Every month on that day' },
  { value: 'FREQ=YEARLY', name: 'Every year' },
]

/** When it is, in words. */
function awayWords({ from, to, repeat }: Away): string {
  const a = splitDateTime(from)
  const z = splitDateTime(to)
  const wholeDays = a.minutes === 0 && z.minutes === 0
  const last = localDate((wholeDays ? z.day - 1 : z.day) as DayNumber)
  const again = REPEATS.find((option) => option.value === repeat)?.name.toLowerCase() ?? repeat
  const days =
    last === localDate(a.day) ? shortDate(last) : `${shortDate(localDate(a.day))} – ${shortDate(last)}`
  const hours = wholeDays ? '' : `, ${wallTime(a.minutes)} – ${wallTime(z.minutes)}`
  return `${days}${hours}${repeat ? `, ${again}` : ''}`
}

/** Time away: hours, days or weeks, once or again and again, and public holidays. */
export function TimeAway({ practice }: { practice: Practice }) {
  return (
    <section className="sheet h-fit p-5" aria-labelledby="time-away">
      <h2 id="time-away">Time away</h2>
      {practice.away.length === 0 && (
        <p className="mt-2 text-[14px] text-soft">Times at which nobody can book will be listed here.</p>
      )}
      <ul className="mt-2 grid max-h-80 gap-1 overflow-y-auto">
        {practice.away.map((away) => (
          <li key={away.id} className="flex items-center justify-between gap-2">
            <span className="text-[14px]">
              {awayWords(away)}
              {away.note && <span className="block text-soft">{away.note}</span>}
            </span>
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
          </li>
        ))}
      </ul>
      <AddAway />
      <HolidayChoice practice={practice} />
    </section>
  )
}

const EMPTY = { first: '', last: '', from: '', to: '', repeat: '', note: '' }

function AddAway() {
  const [typed, setTyped] = useState(EMPTY)
  const act = useAct()
  const add = async (): Promise<void> => {
    const dates = datesOf(typed.first, typed.last)
    const last = dates.at(-1)!
    const wholeDays = !typed.from && !typed.to
    const from: LocalDateTime = at(dates[0]!, wallTimeOr(typed.from))
    const to: LocalDateTime = typed.to ? at(last, time(typed.to)) : at(addDays(last, 1), wallTime(0))
    if (!wholeDays && to <= from) throw new Error('It can’t end before it begins.')
    await changePractice(db, 'time away', (p) =>
      withAway(p, [
        {
          id: `away-${from.replaceAll(/[^0-9]/g, '')}-${p.away.length + 1}`,
          from,
          to,
          ...(typed.repeat ? { repeat: typed.repeat } : {}),
          ...(typed.note.trim() ? { note: typed.note.trim() } : {}),
        },
      ]),
    )
    setTyped(EMPTY)
  }
  const field = (name: keyof typeof EMPTY, label: string, type: string) => (
    <label className="ask">
      {label}
      <input
        type={type}
        className="field mt-1"
        value={typed[name]}
        onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
      />
    </label>
  )
  return (
    <form
      className="mt-3 grid grid-cols-2 gap-2.5 border-t border-line pt-3"
      onSubmit={(event) => {
        event.preventDefault()
        act.run(add)
      }}
    >
      {field('first', 'First day', 'date')}
      {field('last', 'Last day', 'date')}
      {field('from', 'From, if hours', 'time')}
      {field('to', 'Until, if hours', 'time')}
      <label className="ask col-span-2">
        How often
        <select
          className="field mt-1"
          value={typed.repeat}
          onChange={(event) => setTyped({ ...typed, repeat: event.target.value })}
        >
          {REPEATS.map((choice) => (
            <option key={choice.value} value={choice.value}>
              {choice.name}
            </option>
          ))}
        </select>
      </label>
      <div className="col-span-2">{field('note', 'A note for yourself', 'text')}</div>
      <ProblemNote of={act} className="col-span-2" />
      <button type="submit" className="press col-span-2">
        <Plus size={16} aria-hidden="true" /> Keep this time free
      </button>
    </form>
  )
}

const wallTimeOr = (typed: string): ReturnType<typeof wallTime> =>
  (typed || '00:00') as ReturnType<typeof wallTime>
