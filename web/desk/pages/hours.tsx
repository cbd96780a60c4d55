import { type Block, checkPractice, type Practice } from '@acolhida/core/practice'
import {
  type DayNumber,
  type LocalDate,
  type LocalDateTime,
  localDate,
  longWeekdayName,
  minutesOf,
  shortDate,
  splitDateTime,
  wallTime,
} from '@acolhida/core/time'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/database.ts'
import { useDesk } from '../data/live.ts'
import { parseBlocks } from '../parts/parse-blocks.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'

const withDay = (practice: Practice, day: number, blocks: Block[]): Practice => ({
  ...practice,
  hours: {
    ...practice.hours,
    weekly: practice.hours.weekly.map((before, i) =>
      i === day ? blocks : before,
    ) as Practice['hours']['weekly'],
  },
})

/** When the practitioner works: any number of blocks a day. */
export function HoursPage() {
  const { practice } = useDesk()
  const first = practice.profile.weekStart
  const order = [0, 1, 2, 3, 4, 5, 6].map((i) => (first - 1 + i) % 7)
  const faults = checkPractice(practice).filter((fault) => fault.path.startsWith('hours'))
  return (
    <SettingsPage
      title="Hours"
      line={`When you work, on the clock of ${practice.profile.zone.replaceAll('_', ' ')}.`}
    >
      <div className="grid max-w-[1020px] gap-5 lg:grid-cols-[1fr_330px]">
        <section className="sheet p-5">
          <h2 className="mb-1">Every week</h2>
          <p className="mb-3 text-[14px] text-soft">
            Write stretches as 9:00 – 13:00, 14:00 – 18:00. An empty line is a day off.
          </p>
          <ul className="grid gap-3">
            {order.map((day) => (
              <Day key={day} practice={practice} day={day} />
            ))}
          </ul>
          {faults.map((fault) => (
            <p key={fault.path} role="alert" className="mt-3 font-semibold text-clay">
              {fault.message}
            </p>
          ))}
        </section>
        <TimeAway practice={practice} />
      </div>
    </SettingsPage>
  )
}

function Day({ practice, day }: { practice: Practice; day: number }) {
  const blocks = practice.hours.weekly[day]!
  const name = longWeekdayName(day + 1)
  const from = 6 * 60
  const to = 22 * 60
  const x = (minutes: number): number => ((Math.min(Math.max(minutes, from), to) - from) / (to - from)) * 100
  return (
    <li>
      <SavedField
        beside
        label={name}
        what={`the hours of ${name}`}
        value={blocks.map((block) => `${block.from} – ${block.to}`).join(', ')}
        change={(p, typed) => withDay(p, day, parseBlocks(typed, p.hours.weekly[day]!))}
      />
      <div
        className="hatch relative mt-1.5 h-2.5 overflow-hidden rounded-full sm:ml-[108px]"
        aria-hidden="true"
      >
        {blocks.map((block) => (
          <span
            key={block.from}
            className="absolute inset-y-0 rounded-full bg-leaf"
            style={{
              left: `${x(minutesOf(block.from))}%`,
              width: `${x(minutesOf(block.to)) - x(minutesOf(block.from))}%`,
            }}
          />
        ))}
      </div>
    </li>
  )
}

/** The last day of a time away: the day before, when it ends at midnight. */
function lastDay(to: LocalDateTime): LocalDate {
  const { day, minutes } = splitDateTime(to)
  return localDate((minutes === 0 ? day - 1 : day) as DayNumber)
}

function TimeAway({ practice }: { practice: Practice }) {
  const [from, setFrom] = useState('')
  const [to, setTo] = useState('')
  const [note, setNote] = useState('')
  const [problem, setProblem] = useState<string>()
  const add = (): void => {
    const id = `away-${from}-${practice.away.length + 1}`
    const midnight = wallTime(0)
    const end = new Date(`${to || from}T00:00Z`)
    end.setUTCDate(end.getUTCDate() + 1)
    const last = Number.isNaN(end.getTime()) ? '' : end.toISOString().slice(0, 10)
    const away = {
      id,
      from: `${from}T${midnight}`,
      to: `${last}T${midnight}`,
      ...(note.trim() ? { note: note.trim() } : {}),
    }
    changePractice(db, 'time away', (p) => ({ ...p, away: [...p.away, away as never] }))
      .then(() => {
        setFrom('')
        setTo('')
        setNote('')
        setProblem(undefined)
      })
      .catch(() =>
        setProblem('Please give the first and the last day; the last can not come before the first.'),
      )
  }
  return (
    <section className="sheet h-fit p-5">
      <h2>Time away</h2>
      {practice.away.length === 0 && (
        <p className="mt-2 text-[14px] text-soft">Days on which nobody can book will be listed here.</p>
      )}
      <ul className="mt-2 grid gap-1">
        {practice.away.map((away) => (
          <li key={away.id} className="flex items-center justify-between gap-2">
            <span className="text-[14px]">
              {shortDate(away.from.slice(0, 10) as never)} until {shortDate(lastDay(away.to))}
              {away.note && <span className="block text-soft">{away.note}</span>}
            </span>
            <button
              type="button"
              className="press press-quiet px-2"
              aria-label={`Remove the time away from ${shortDate(away.from.slice(0, 10) as never)}`}
              onClick={() =>
                changePractice(db, 'time away', (p) => ({
                  ...p,
                  away: p.away.filter((one) => one.id !== away.id),
                }))
              }
            >
              <X size={16} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-3 grid gap-2.5 border-t border-line pt-3"
        onSubmit={(event) => {
          event.preventDefault()
          add()
        }}
      >
        <label className="ask" htmlFor="away-from">
          First day
        </label>
        <input
          id="away-from"
          type="date"
          className="field"
          value={from}
          onChange={(event) => setFrom(event.target.value)}
        />
        <label className="ask" htmlFor="away-to">
          Last day
        </label>
        <input
          id="away-to"
          type="date"
          className="field"
          value={to}
          onChange={(event) => setTo(event.target.value)}
        />
        <label className="ask" htmlFor="away-note">
          A note for yourself
        </label>
        <input
          id="away-note"
          className="field"
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
        {problem && (
          <p role="alert" className="text-[14px] font-semibold text-clay">
            {problem}
          </p>
        )}
        <button type="submit" className="press">
          <Plus size={16} aria-hidden="true" /> Keep these days free
        </button>
      </form>
    </section>
  )
}
