import type { Practice } from '@acolhida/core/practice'
import { type CourseState, howFarWith } from '@acolhida/core/preparing'
import type { Instant } from '@acolhida/core/time'
import { useState } from 'react'
import { Link } from 'react-router'
import { StationMark } from '../../drawings/station-mark.tsx'
import { useMinute } from '../../relay-client/clock.ts'
import { useDesk } from '../data/live.ts'
import { PageHead } from '../parts/page-head.tsx'
import { counted, serviceName, when } from '../parts/words.ts'
import { Chase } from './chase.tsx'
import { type GivenTo, stateOf, useOpenCourses } from './use-courses.ts'
import { stationWords } from './words.ts'

/** How far somebody is, as it is filtered by. */
const WHERE = {
  all: 'Everybody',
  overdue: 'Overdue',
  begun: 'Begun',
  open: 'Not begun',
} as const
type Where = keyof typeof WHERE

interface Row {
  given: GivenTo
  state: CourseState
  where: Exclude<Where, 'all'>
}

function rowsOf(practice: Practice, all: readonly GivenTo[], now: Instant): Row[] {
  return all
    .flatMap((given): Row[] => {
      const state = stateOf(practice, given, now)
      const where = howFarWith(state)
      return where ? [{ given, state, where }] : []
    })
    .toSorted((a, b) => (a.state.next ?? Number.MAX_VALUE) - (b.state.next ?? Number.MAX_VALUE))
}

/** How far everybody is with what they were given; whoever is late is asked again at once. */
export function WhoPage() {
  const { practice } = useDesk()
  const now = useMinute()
  const open = useOpenCourses()
  const [where, setWhere] = useState<Where>('all')
  const [chases, setChases] = useState<readonly GivenTo[]>()
  const rows = rowsOf(practice, open ?? [], now)
  const shown = rows.filter((row) => where === 'all' || row.where === where)
  const late = rows.filter((row) => row.where === 'overdue')
  const people = (of: readonly Row[]): number => new Set(of.map(({ given }) => given.row.mail)).size
  return (
    <>
      <PageHead
        title="Getting ready"
        line={
          rows.length === 0
            ? 'Nobody has anything left to do.'
            : `${counted(people(rows), 'person has', 'people have')} something left to do; ${late.length === 0 ? 'nobody is late' : `${people(late)} late`}.`
        }
      >
        <Link className="press" to="/preparations">
          What clients prepare
        </Link>
        {late.length > 0 && (
          <button
            type="button"
            className="press press-go"
            onClick={() => setChases(late.map(({ given }) => given))}
          >
            Ask everybody again who is late…
          </button>
        )}
      </PageHead>
      <fieldset className="mt-5 flex flex-wrap gap-2" aria-label="How far they are">
        {(Object.keys(WHERE) as Where[]).map((one) => (
          <button
            key={one}
            type="button"
            className={`press ${where === one ? 'bg-leaf-soft' : ''}`}
            aria-pressed={where === one}
            onClick={() => setWhere(one)}
          >
            {WHERE[one]} {one === 'all' ? rows.length : rows.filter((row) => row.where === one).length}
          </button>
        ))}
      </fieldset>
      {open && rows.length === 0 && (
        <p className="sheet mt-4 max-w-[900px] p-5 text-soft">
          Whoever is given something to read, sign, answer or bring stands here until it is done.
        </p>
      )}
      <ul className="mt-4 grid max-w-[980px] gap-3">
        {shown.map(({ given, state }) => (
          <li
            key={given.row.id}
            className="sheet grid gap-x-5 gap-y-2 px-5 py-4 md:grid-cols-[220px_1fr_auto]"
          >
            <div className="min-w-0">
              <PersonLink given={given} />
              <p className="text-[14px] text-soft">
                {given.booking
                  ? `${serviceName(practice, given.booking.service)}, ${when(practice, given.booking.start)}`
                  : `given ${when(practice, given.row.course.given.at)}`}
              </p>
            </div>
            <ul className="grid gap-1">
              {state.stations.map((one) =>
                one.is === 'gone' ? null : (
                  <li key={one.station.id} className="flex items-start gap-2 text-[14px]">
                    <StationMark state={one.is} size={18} />
                    <span className="min-w-0">
                      <span className="wrap-anywhere">{one.station.name}</span>{' '}
                      <span className={one.is === 'overdue' ? 'font-semibold text-clay' : 'text-soft'}>
                        {stationWords(practice, one)}
                      </span>
                    </span>
                  </li>
                ),
              )}
            </ul>
            <button type="button" className="press h-fit" onClick={() => setChases([given])}>
              Ask again… <span className="sr-only">{given.row.course.given.person.name}</span>
            </button>
          </li>
        ))}
      </ul>
      {chases && <Chase given={chases} close={() => setChases(undefined)} />}
    </>
  )
}

/** Whose it is: the booking leads to their request, else the list of people to them. */
function PersonLink({ given: { row, booking } }: { given: GivenTo }) {
  const { name } = row.course.given.person
  return (
    <Link
      className="font-semibold wrap-anywhere underline-offset-3 hover:underline"
      to={booking ? `/arrivals/${booking.id}` : `/people?q=${encodeURIComponent(row.mail)}`}
    >
      {name}
    </Link>
  )
}
