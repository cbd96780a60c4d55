import { DAY, dateAt, formatInstant, moment, shift } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { saveFile } from '../parts/file.tsx'
import { among, FilterChoice, FindBar, SearchField, useFilters } from '../parts/find-bar.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { counted, homeZone } from '../parts/words.ts'
import { HAPPENINGS, recordLines } from './record-lines.ts'

/** How far back one looks. */
const SINCE = {
  week: 'The last seven days',
  month: 'The last thirty days',
  year: 'The last twelve months',
  ever: 'From the beginning',
} as const
const DAYS = { week: 7, month: 30, year: 365, ever: 36_500 } as const

/** How many lines are shown before one asks for more. */
const SHOWN = 100

/** Everything that has happened to all bookings, in words: filtered, and as files. */
export function WholeRecord() {
  const { practice } = useDesk()
  const now = useMinute()
  const { filters, set } = useFilters({ q: '', what: 'all', since: 'month' })
  const [most, setMost] = useState(SHOWN)
  const kind = among(HAPPENINGS, filters.what, 'all')
  const since = among(SINCE, filters.since, 'month')
  const where = homeZone(practice)
  const found = useLiveQuery(
    () =>
      recordLines(db, practice, {
        from: shift(now, -DAYS[since] * DAY),
        to: shift(now, DAY),
        kind,
        search: filters.q,
      }),
    [practice, now, since, kind, filters.q],
  )
  const name = `${practice.profile.slug}-record-${dateAt(where, now)}`
  return (
    <>
      <PageHead title="The record" line="What happened, when, and by whom. Nothing in it is ever changed.">
        <ActButton
          disabled={!found?.length}
          onAct={async () => {
            const { recordCsv } = await import('@acolhida/core/formats/record-csv')
            saveFile(`${name}.csv`, 'text/csv', recordCsv(found ?? []))
          }}
        >
          Save as CSV
        </ActButton>
        <ActButton
          disabled={!found?.length}
          onAct={() => saveFile(`${name}.json`, 'application/json', `${JSON.stringify(found, null, 2)}\n`)}
        >
          Save as JSON
        </ActButton>
      </PageHead>
      <div className="mt-4">
        <FindBar count={found ? counted(found.length, 'line', 'lines') : ''}>
          <SearchField label="Name or mail address" value={filters.q} onSearch={(q) => set({ q })} />
          <FilterChoice
            label="What happened"
            value={kind}
            options={HAPPENINGS}
            onChange={(what) => set({ what })}
          />
          <FilterChoice label="Since" value={since} options={SINCE} onChange={(to) => set({ since: to })} />
        </FindBar>
      </div>
      {found?.length === 0 && <p className="sheet p-5">Nothing of that kind.</p>}
      <ol className="sheet divide-y divide-line px-4 empty:hidden">
        {(found ?? []).slice(0, most).map((line) => (
          <li
            key={`${line.booking} ${line.seq}`}
            className="grid gap-x-4 py-2 text-[14px] sm:grid-cols-[130px_200px_1fr]"
          >
            <time className="figures text-soft" dateTime={formatInstant(line.moment)}>
              {moment(line.moment, where)}
            </time>
            <span className="min-w-0">
              <Link
                className="font-semibold underline-offset-3 hover:underline"
                to={`/arrivals/${line.booking}`}
              >
                {line.name}
              </Link>
              <span className="block text-[13px] text-soft">{line.service}</span>
            </span>
            <span className="min-w-0 whitespace-pre-line wrap-anywhere">{line.words}</span>
          </li>
        ))}
      </ol>
      {found && found.length > most && (
        <button type="button" className="press mt-3" onClick={() => setMost(most + SHOWN)}>
          Show more
        </button>
      )}
    </>
  )
}
