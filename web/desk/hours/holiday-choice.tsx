import type { Practice } from '@acolhida/core/practice'
import { dateAt, shortDate } from '@acolhida/core/time'
import { useEffect, useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { homeZone } from '../parts/words.ts'
import { wholeDay, withAway } from './away.ts'
import { countries, type Holiday, publicHolidays } from './holidays.ts'

const idOf = (holiday: Holiday): string => `holiday-${holiday.date}`

/** Public holidays of a country, offered as time away: one by one, or all. */
export function HolidayChoice({ practice }: { practice: Practice }) {
  const today = dateAt(homeZone(practice), relayNow())
  const thisYear = Number(today.slice(0, 4))
  const [open, setOpen] = useState(false)
  const [known, setKnown] = useState<{ code: string; name: string }[]>([])
  const [country, setCountry] = useState('')
  const [year, setYear] = useState(thisYear)
  const [found, setFound] = useState<Holiday[]>([])
  const act = useAct()
  const { run } = act
  useEffect(() => {
    if (open) run(async () => setKnown(await countries()))
  }, [open, run])
  useEffect(() => {
    setFound([])
    if (country)
      run(async () =>
        setFound((await publicHolidays(country, year)).filter((holiday) => holiday.date >= today)),
      )
  }, [country, year, today, run])
  const away = new Set(practice.away.map((away) => away.id))
  const free = found.filter((holiday) => !away.has(idOf(holiday)))
  const take = (holidays: Holiday[], what: string): void =>
    act.run(() =>
      changePractice(db, what, (p) =>
        withAway(
          p,
          holidays.map((holiday) => wholeDay(idOf(holiday), holiday.date, holiday.name)),
        ),
      ),
    )
  if (!open) {
    return (
      <button type="button" className="way mt-3 text-[14px]" onClick={() => setOpen(true)}>
        Public holidays …
      </button>
    )
  }
  return (
    <div className="mt-3 border-t border-line pt-3">
      <ProblemNote of={act} />
      <div className="grid grid-cols-[1fr_96px] gap-2">
        <label className="ask">
          Holidays of
          <select className="field mt-1" value={country} onChange={(event) => setCountry(event.target.value)}>
            <option value="">{known.length === 0 ? 'One moment …' : 'Choose …'}</option>
            {known.map((country) => (
              <option key={country.code} value={country.code}>
                {country.name}
              </option>
            ))}
          </select>
        </label>
        <label className="ask">
          In
          <select
            className="field mt-1"
            value={year}
            onChange={(event) => setYear(Number(event.target.value))}
          >
            {[thisYear, thisYear + 1, thisYear + 2].map((number) => (
              <option key={number} value={number}>
                {number}
              </option>
            ))}
          </select>
        </label>
      </div>
      <ul className="mt-2 grid gap-0.5">
        {found.map((holiday) => (
          <li key={holiday.date} className="flex items-center justify-between gap-2 text-[14px]">
            <span>
              {shortDate(holiday.date)} <span className="text-soft">{holiday.name}</span>
            </span>
            {away.has(idOf(holiday)) ? (
              <span className="tag tag-fits">away</span>
            ) : (
              <button type="button" className="way" onClick={() => take([holiday], holiday.name)}>
                Be away<span className="sr-only"> on {holiday.name}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
      {free.length > 1 && (
        <button
          type="button"
          className="press mt-2 w-full"
          onClick={() => take(free, `${free.length} holidays`)}
        >
          Be away on all {free.length}
        </button>
      )}
    </div>
  )
}
