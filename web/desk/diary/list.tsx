import { type Entry, missedLeast } from '@acolhida/core/openings'
import { type Practice, placeOf, serviceOf } from '@acolhida/core/practice'
import { dateAt, type Instant, longDate, span, type Zone } from '@acolhida/core/time'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import type { Taken } from '../data/taken.ts'
import { type Column, WindowTable } from '../parts/window-table.tsx'
import { standingWords } from '../parts/words.ts'

/** What is in the diary, day by day, in words. */
export function List({
  practice,
  taken,
  from,
  to,
  where,
}: {
  practice: Practice
  taken: Taken
  from: Instant
  to: Instant
  where: Zone
}) {
  const now = useMinute()
  const today = dateAt(where, now)
  const { keys, lines } = useMemo(() => {
    const found = new Map<string, Entry | ReturnType<typeof dateAt>>()
    for (const entry of taken.diary.entries) {
      if (entry.start < from || entry.start >= to) continue
      const date = dateAt(where, entry.start)
      found.set(date, date)
      found.set(`${entry.id} ${entry.start}`, entry)
    }
    return { keys: [...found.keys()], lines: found }
  }, [taken, from, to, where])
  const columns = useMemo(() => columnsOf(practice, taken, where, now), [practice, taken, where, now])
  if (keys.length === 0) {
    return (
      <p className="sheet p-5">Nothing is booked in these four weeks. Sessions and holds are listed here.</p>
    )
  }
  return (
    <WindowTable
      label="What is in the diary"
      columns={columns}
      keys={keys}
      rowOf={(key) => {
        const line = lines.get(key)
        return typeof line === 'object' ? line : undefined
      }}
      headingOf={(key) => {
        const line = lines.get(key)
        if (typeof line !== 'string') return undefined
        return (
          <span className={`serif text-[17px] ${line === today ? 'text-clay' : ''}`}>{longDate(line)}</span>
        )
      }}
    />
  )
}

const columnsOf = (practice: Practice, taken: Taken, where: Zone, now: Instant): Column<Entry>[] => [
  {
    id: 'when',
    name: 'When',
    width: 'w-[128px]',
    cell: (entry) => <span className="figures font-semibold">{span(entry.start, entry.end, where)}</span>,
  },
  {
    id: 'who',
    name: 'Who',
    cell: (entry) => {
      const { title, booking } = taken.title(entry)
      return booking ? (
        <Link className="way" to={`/arrivals/${booking.id}`}>
          {title}
        </Link>
      ) : (
        <b>{title}</b>
      )
    },
  },
  {
    id: 'what',
    name: 'What',
    cell: (entry) => {
      const mark = serviceOf(practice, entry.service ?? '')?.colour
      return (
        <span className="flex items-center gap-2 text-[14px] text-soft">
          {mark && <span aria-hidden="true" className={`mark mark-${mark}`} />}
          {taken.title(entry).line}
        </span>
      )
    },
  },
  {
    id: 'where',
    name: 'Where',
    wide: true,
    cell: (entry) => (
      <span className="text-[14px] text-soft">{placeOf(practice, entry.place ?? '')?.name}</span>
    ),
  },
  {
    id: 'state',
    name: 'How it stands',
    wide: true,
    cell: (entry) => (
      <span className="text-[14px] text-soft">{stands(practice, entry, taken, where, now)}</span>
    ),
  },
]

function stands(practice: Practice, entry: Entry, taken: Taken, where: Zone, now: Instant): string {
  const service = serviceOf(practice, entry.service ?? '')
  if (service && entry.seats && missedLeast(service, entry, where, now)) return 'called off: too few came'
  if (entry.kind === 'hold') return 'held'
  if (entry.kind === 'outside') return 'another calendar'
  const booking = taken.booking(entry.id)
  return booking ? standingWords(booking, now) : ''
}
