import { type Block, type ChangedDay, type Hours, type Practice, weekOn } from '@acolhida/core/practice'
import { addDays, dayNumber, type LocalDate, shortDate, weekday } from '@acolhida/core/time'
import { X } from 'lucide-react'
import { HoursBand } from '../../drawings/hours-band.tsx'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { AddDays } from './add-days.tsx'
import { parseBlocks, typedBlocks } from './parse-blocks.ts'
import { Reserve } from './reserve.tsx'
import type { Scope } from './scope.ts'

/** A run of changed days is at most this long. */
const LONGEST_RUN = 120

const usual = (hours: Hours, date: LocalDate): Block[] => weekOn(hours, date)[weekday(dayNumber(date)) - 1]!

/** The dates from the first to the last, both included. @throws Error with a sentence when that is no run */
export function datesOf(first: string, last: string, most = LONGEST_RUN): LocalDate[] {
  const from = first as LocalDate
  const days = first ? dayNumber((last || first) as LocalDate) - dayNumber(from) : -1
  if (days < 0)
    throw new Error('Please give the first and the last day; the last can’t come before the first.')
  if (days >= most) throw new Error(`So many days can’t be set at once: ${most} are the most.`)
  return Array.from({ length: days + 1 }, (_, i) => addDays(from, i))
}

/** Days and runs of days with other hours than usual; the usual ones stay to be seen as a ghost outline. */
export function ChangedDays({ practice, scope }: { practice: Practice; scope: Scope }) {
  const withChanged = (p: Practice, change: (days: ChangedDay[], hours: Hours) => ChangedDay[]): Practice =>
    scope.change(p, (hours) => ({
      ...hours,
      changedDays: change(hours.changedDays, hours).sort((a, b) => (a.date < b.date ? -1 : 1)),
    }))
  const act = useAct()
  const set = (date: LocalDate, make: (blocks: Block[]) => Block[]) => (p: Practice) =>
    withChanged(p, (days) =>
      days.map((day) => (day.date === date ? { ...day, blocks: make(day.blocks) } : day)),
    )
  const keep =
    (date: LocalDate) =>
    (make: (blocks: Block[]) => Block[]): void => {
      act.run(() => changePractice(db, `the hours of ${shortDate(date)}`, set(date, make)))
    }
  const add = async (first: string, last: string): Promise<void> => {
    const dates = datesOf(first, last)
    await changePractice(db, 'changed days', (p) =>
      withChanged(p, (days, hours) => [
        ...days,
        ...dates
          .filter((date) => !days.some((day) => day.date === date))
          .map((date) => ({ date, blocks: usual(hours, date) })),
      ]),
    )
  }
  const { changedDays } = scope.hours
  return (
    <section className="sheet p-5" aria-labelledby="changed-days">
      <h2 id="changed-days">Changed days</h2>
      <p className="mt-1 mb-3 text-[13px] text-soft">
        A course week, one long Saturday: these hours replace the usual ones, which stay outlined.
      </p>
      <ul className="grid gap-2.5">
        {changedDays.map((day) => (
          <li key={day.date}>
            <div className="flex items-start gap-1">
              <div className="grow">
                <SavedField
                  beside
                  label={shortDate(day.date)}
                  what={`the hours of ${shortDate(day.date)}`}
                  value={typedBlocks(day.blocks)}
                  change={(p, typed) => set(day.date, (before) => parseBlocks(typed, before))(p)}
                />
              </div>
              <ActButton
                className="press press-quiet px-2"
                aria-label={`As usual again on ${shortDate(day.date)}`}
                onAct={() =>
                  changePractice(db, 'changed days', (p) =>
                    withChanged(p, (days) => days.filter((other) => other.date !== day.date)),
                  )
                }
              >
                <X size={16} aria-hidden="true" />
              </ActButton>
            </div>
            <div className="mt-1 mr-9 sm:ml-[108px]">
              <HoursBand
                name={shortDate(day.date)}
                blocks={day.blocks}
                ghost={usual(scope.hours, day.date)}
                onChange={(next) => keep(day.date)(() => next)}
              />
              <Reserve
                practice={practice}
                name={shortDate(day.date)}
                blocks={day.blocks}
                onChange={keep(day.date)}
              />
            </div>
          </li>
        ))}
      </ul>
      <AddDays first="First day" last="Last day, if several" does="Change these days" onAdd={add} />
      <ProblemNote of={act} />
    </section>
  )
}
