import type { OtherWeeks, Practice, Week } from '@acolhida/core/practice'
import { dateWords, type LocalDate, weekdayName } from '@acolhida/core/time'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { hoursAWeek } from '../parts/words.ts'
import { AddDays } from './add-days.tsx'
import type { Scope } from './scope.ts'
import { WeekDays } from './week-days.tsx'

const WHAT = 'a season'

/** "Mon, Tue, Thu, 18 hours a week", or that there are none. */
function weekLine(weekly: Week): string {
  const days = weekly.flatMap((blocks, i) => (blocks.length > 0 ? [weekdayName(i + 1)] : []))
  return days.length === 0 ? 'no hours' : `${days.join(', ')}, ${hoursAWeek(weekly)}`
}

/** Some weeks with a week of their own, each in a line that opens. */
export function Seasons({ practice, scope }: { practice: Practice; scope: Scope }) {
  const { seasons = [] } = scope.hours
  const withSeasons = (
    p: Practice,
    change: (seasons: OtherWeeks[], weekly: Week) => OtherWeeks[],
  ): Practice =>
    scope.change(p, ({ seasons: before = [], ...hours }) => {
      const next = change(before, hours.weekly).sort((a, b) => (a.from < b.from ? -1 : 1))
      return { ...hours, ...(next.length > 0 ? { seasons: next } : {}) }
    })
  const changed = (p: Practice, i: number, change: (season: OtherWeeks) => OtherWeeks): Practice =>
    withSeasons(p, (all) => all.map((season, at) => (at === i ? change(season) : season)))
  const add = async (from: string, to: string): Promise<void> => {
    if (!from || !to) throw new Error('Please give the first and the last day of the season.')
    await changePractice(db, WHAT, (p) =>
      withSeasons(p, (all, weekly) => [...all, { from: from as LocalDate, to: to as LocalDate, weekly }]),
    )
  }
  return (
    <section className="sheet p-5" aria-labelledby="seasons">
      <h2 id="seasons">Seasons</h2>
      <p className="mt-1 text-[13px] text-soft">
        Weeks in a row with hours of their own, as in summer. They begin with your usual week.
      </p>
      <ul className="mt-2 grid">
        {seasons.map((season, i) => {
          const line = `${dateWords(season.from)} – ${dateWords(season.to)}`
          return (
            <li key={season.from} className="border-t border-line">
              <details>
                <summary className="cursor-pointer py-2">
                  <b>{season.note || line}</b>{' '}
                  <span className="text-[14px] text-soft">
                    {season.note ? `${line} · ` : ''}
                    {weekLine(season.weekly)}
                  </span>
                </summary>
                <div className="grid gap-3 pb-4">
                  <div className="grid gap-3 sm:grid-cols-3">
                    <SavedField
                      label="From"
                      type="date"
                      what={WHAT}
                      value={season.from}
                      change={(p, typed) => changed(p, i, (old) => ({ ...old, from: typed as LocalDate }))}
                    />
                    <SavedField
                      label="To"
                      type="date"
                      what={WHAT}
                      value={season.to}
                      change={(p, typed) => changed(p, i, (old) => ({ ...old, to: typed as LocalDate }))}
                    />
                    <SavedField
                      label="Its name, for yourself"
                      what={WHAT}
                      value={season.note ?? ''}
                      change={(p, typed) =>
                        changed(p, i, ({ note: _, ...old }) => ({
                          ...old,
                          ...(typed.trim() ? { note: typed.trim() } : {}),
                        }))
                      }
                    />
                  </div>
                  <WeekDays
                    practice={practice}
                    weekly={season.weekly}
                    of={`in the season from ${dateWords(season.from)}`}
                    change={(p, change) => changed(p, i, (old) => ({ ...old, weekly: change(old.weekly) }))}
                  />
                  <ActButton
                    className="press press-no justify-self-start"
                    onAct={() =>
                      changePractice(db, WHAT, (p) =>
                        withSeasons(p, (all) => all.filter((_, at) => at !== i)),
                      )
                    }
                  >
                    Remove this season
                  </ActButton>
                </div>
              </details>
            </li>
          )
        })}
      </ul>
      <AddDays first="First day of a season" last="Last day of a season" does="Add this season" onAdd={add} />
    </section>
  )
}
