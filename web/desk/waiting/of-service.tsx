import { openStarts } from '@acolhida/core/openings'
import { placeOf, type Service, zoneOf } from '@acolhida/core/practice'
import { dateAt, lengthOf, MINUTE, shortDate } from '@acolhida/core/time'
import { couldComeOn, lineAt } from '@acolhida/core/waiting'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { windowWords } from '../../questions/window-words.ts'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import type { LineRow } from '../data/tables.ts'
import type { Taken } from '../data/taken.ts'
import { ActButton } from '../parts/act.tsx'
import { counted } from '../parts/words.ts'
import { doInLine } from '../sync/acts.ts'
import { AboutLine } from './about-line.tsx'
import { askerBy, type InLine, inLineNow } from './use-waiting.ts'
import { daysFrom, WaitBand, type WaitDay, WaitHead } from './wait-bands.tsx'

/** How many days are drawn. */
export const WAIT_DAYS = 28

/** Those who wait for one service, each with when they could come in the coming four weeks. */
export function OfService({
  desk,
  taken,
  waiting,
  service,
}: {
  desk: Desk
  taken: Taken
  waiting: InLine
  service: Service
}) {
  const { practice } = desk
  const now = useMinute()
  const rows = inLineNow(waiting.lines, now).filter((row) => row.service === service.id)
  const place = rows[0]?.line.joined.place ?? service.places[0]!
  const where = zoneOf(practice, placeOf(practice, place))
  const minutes = rows[0]?.line.joined.minutes ?? service.minutes
  const days = useMemo((): WaitDay[] => {
    const first = dateAt(where, now)
    const asker = askerBy(waiting, practice, now)('')
    const ask = { service, place, minutes, asker, now }
    const open = new Set(
      openStarts(practice, taken.diary, ask, first, WAIT_DAYS).map((start) => dateAt(where, start)),
    )
    return daysFrom(first, WAIT_DAYS).map((date) => ({ date, open: open.has(date) }))
  }, [practice, taken, waiting, service, place, minutes, where, now])
  if (rows.length === 0) return null
  const many = days.map(
    ({ date }) =>
      rows.filter(({ line: { wishes, joined } }) =>
        couldComeOn({ windows: wishes.windows, minutes: joined.minutes }, date),
      ).length,
  )
  const most = Math.max(...many)
  const busiest = days[many.indexOf(most)]
  const full = days.filter(({ open }) => !open).length
  return (
    <section className="sheet p-5" aria-label={service.name}>
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2>
          {service.name}{' '}
          <span className="text-[15px] font-normal text-soft">· {counted(rows.length, 'waits', 'wait')}</span>
        </h2>
        <Link className="way text-[14px]" to={`/services/${service.id}`}>
          How freed times are filled
        </Link>
      </div>
      <p className="sr-only">
        {`On ${full} of the next ${days.length} days nothing is open. ${busiest ? `Most could come on ${shortDate(busiest.date)}: ${most} of ${rows.length}.` : ''}`}
      </p>
      <div className="mt-3 grid gap-x-4 gap-y-3 md:grid-cols-[220px_1fr]">
        <p className="self-end text-[13px] text-soft">
          Above: how many could come that day, in saffron where nothing is open. Below: from seven in the
          morning down to ten at night.
        </p>
        <WaitHead days={days} many={many} />
        {rows.map((row) => (
          <OneWaits key={row.id} desk={desk} row={row} days={days} />
        ))}
      </div>
    </section>
  )
}

const STATE = {
  paused: 'paused',
  offered: 'a time is held out',
  doubted: 'asked whether they still wait',
  waiting: '',
} as const

function OneWaits({ desk, row, days }: { desk: Desk; row: LineRow; days: readonly WaitDay[] }) {
  const { practice } = desk
  const now = useMinute()
  const [changing, setChanging] = useState(false)
  const { id, line } = row
  const { joined, had, wishes } = line
  const { is } = lineAt(line, now)
  const notes = [
    `waits ${lengthOf(Math.max(MINUTE, now - joined.at))}`,
    had.length === 0 ? 'never asked' : `asked ${counted(had.length, 'time', 'times')}`,
    is in STATE ? STATE[is as keyof typeof STATE] : '',
    joined.instead === undefined ? '' : 'wants an earlier time',
    line.looked ? '' : 'to be looked at',
  ].filter(Boolean)
  return (
    <>
      <div className="min-w-0 text-[14px]">
        <p className="font-semibold">{joined.person.name}</p>
        <p className="text-soft">{notes.join(' · ')}</p>
        <p className="sr-only">
          {wishes.windows.length === 0 ? 'Any day, at any time' : wishes.windows.map(windowWords).join('; ')}
        </p>
        <div className="mt-1 flex flex-wrap gap-x-3">
          <button type="button" className="way" onClick={() => setChanging(true)}>
            Look<span className="sr-only"> at what {joined.person.name} has said</span>
          </button>
          <ActButton
            className="way cursor-pointer"
            onAct={() => doInLine(id, { do: line.status === 'paused' ? 'resume' : 'pause' })}
          >
            {line.status === 'paused' ? 'Go on' : 'Pause'}
            <span className="sr-only"> {joined.person.name}</span>
          </ActButton>
          <ActButton
            className="way cursor-pointer text-clay"
            onAct={() => doInLine(id, { do: 'out', text: '' })}
          >
            Take out<span className="sr-only"> {joined.person.name}</span>
          </ActButton>
        </div>
      </div>
      <div className="self-center">
        <WaitBand days={days} windows={wishes.windows} />
      </div>
      {changing && <AboutLine practice={practice} row={row} close={() => setChanging(false)} />}
    </>
  )
}
