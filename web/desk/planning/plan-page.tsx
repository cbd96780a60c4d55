import { schemas } from '@acolhida/core/contract/schemas'
import { wishFor } from '@acolhida/core/planning'
import { placeOf, zoneOf } from '@acolhida/core/practice'
import { balanceOf } from '@acolhida/core/preparing'
import { letIn } from '@acolhida/core/schemas'
import { addDays, dateAt, type Instant, wallTime } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { RhythmLine, type RhythmMark } from '../../drawings/rhythm-line.tsx'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type Desk, useDesk } from '../data/live.ts'
import type { BookingRow, PersonRow } from '../data/rows.ts'
import { useAct } from '../parts/act.tsx'
import { FormProblems } from '../parts/form-problems.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { printOf, reckonFor, useBehind } from '../parts/reckoned.ts'
import { type GoesWith, goingWith, WordOrSilence } from '../parts/word.tsx'
import { counted, homeZone } from '../parts/words.ts'
import { usePerson } from '../people/use-person.ts'
import { Card } from '../request/card.tsx'
import { bookSeries } from '../sync/acts.ts'
import { PlanFields } from './plan-fields.tsx'
import { PlannedRow, type PlanRow } from './planned-row.tsx'
import { type PlanForm, usePlan } from './use-plan.ts'

/** Several sessions with somebody, planned after a rhythm and booked at once. */
export function PlanPage() {
  const desk = useDesk()
  const { id = '' } = useParams()
  const found = usePerson(id)
  const [search] = useSearchParams()
  const path = usePathLeft(search.get('path'))
  if (!found || path === undefined) return <p className="text-soft">One moment …</p>
  const { person, bookings } = found
  if (person?.emails[0] !== undefined)
    return (
      <PlanFor
        desk={desk}
        person={person}
        email={person.emails[0]}
        bookings={bookings}
        path={path ?? undefined}
      />
    )
  return (
    <PageHead title="Plan ahead" line="Sessions are planned for somebody whose mail address is known.">
      <Link className="press" to="/people">
        See everybody
      </Link>
    </PageHead>
  )
}

/** What is left of a path; nothing (`null`) where none is planned. */
function usePathLeft(course: string | null): PlanForm['path'] | null | undefined {
  const found = useLiveQuery(async () => {
    const row = course === null ? undefined : await db.courses.get(course)
    const { path } = row?.course.given ?? {}
    if (!row || !path) return null
    const ids = Object.values(row.course.booked ?? {})
    const rows = new Map((await db.bookings.bulkGet(ids)).flatMap((one) => (one ? [[one.id, one]] : [])))
    const { sessions } = balanceOf(row.course, (id) => rows.get(id), relayNow())
    const left = sessions.filter(({ is }) => is === 'left').map(({ session }) => session)
    return left.length === 0 ? null : { course: row.id, name: path.name, sessions: left }
  }, [course])
  return found
}

/** What one begins with: as the last session with them was, a week after it or from next week on. */
function beginning({ practice }: Desk, bookings: readonly BookingRow[]): PlanForm {
  const last = bookings
    .filter(({ status, service }) => {
      const known = practice.services.find(({ id }) => id === service)
      return known?.seats === 1 && (status === 'booked' || status === 'attended')
    })
    .reduce<BookingRow | undefined>((a, b) => (a && a.start > b.start ? a : b), undefined)
  const service =
    practice.services.find(({ id }) => id === last?.service) ??
    practice.services.find(({ seats }) => seats === 1) ??
    practice.services[0]!
  const place = last && service.places.includes(last.place) ? last.place : service.places[0]!
  const where = zoneOf(practice, placeOf(practice, place))
  const today = dateAt(where, relayNow())
  let first = last ? addDays(dateAt(where, last.start), 7) : addDays(today, 7)
  while (first <= today) first = addDays(first, 7)
  const at = last ? where.toWall(last.start).ms / 60_000 : 600
  return {
    ...{ service: service.id, place, minutes: last?.minutes ?? service.minutes, rhythm: 'week' },
    ...{ first, time: wallTime(Math.floor(at)), count: 6, least: 1, windows: [] },
  }
}

function PlanFor({
  desk,
  person,
  email,
  bookings,
  path,
}: {
  desk: Desk
  person: PersonRow
  email: string
  bookings: readonly BookingRow[]
  path: PlanForm['path']
}) {
  const { practice } = desk
  const go = useNavigate()
  const [form, setForm] = useState(() => ofPath(desk, beginning(desk, bookings), path))
  const [moved, setMoved] = useState<ReadonlyMap<number, Instant>>(new Map())
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const [address, setAddress] = useState('')
  const { plan, wish, taken, problem } = usePlan(desk, form)
  const known = useBehind(email)
  const act = useAct()
  const place = placeOf(practice, form.place)
  const where = zoneOf(practice, place)
  const rows: PlanRow[] = (plan?.sessions ?? []).map((planned, k) => {
    const start = moved.get(k) ?? planned.start
    return { planned, start, byHand: moved.has(k) }
  })
  const booked = rows.flatMap(({ start }) => (start === undefined ? [] : [start]))
  const change = (next: PlanForm): void => {
    setForm(next)
    setMoved(new Map())
  }
  const move = (k: number, start: Instant | undefined): void => {
    const next = new Map(moved)
    if (start === undefined) next.delete(k)
    else next.set(k, start)
    setMoved(next)
  }
  const contact = bookings.reduce<BookingRow | undefined>((a, b) => (a && a.at > b.at ? a : b), undefined)
  const book = async (): Promise<void> => {
    const wished = { service: form.service, place: form.place, answers: undefined, extras: [] }
    const now = reckonFor(practice, wished, known, relayNow())
    const { text, silent } = goingWith(said)
    const body = {
      ...{ service: form.service, place: form.place, minutes: form.minutes },
      person: {
        ...{ name: person.name, email, zone: contact?.asked.person.zone ?? homeZone(practice).name },
        ...(person.phone ? { phone: person.phone } : {}),
        ...(known.language ? { language: known.language } : {}),
      },
      ...(form.path
        ? {
            course: form.path.course,
            sessions: rows.flatMap(({ start }, k) => {
              const session = form.path?.sessions[k]?.id
              return start === undefined || session === undefined ? [] : [{ id: newKey(), start, session }]
            }),
          }
        : {
            sessions: [...booked].sort((a, b) => a - b).map((start) => ({ id: newKey(), start })),
            shown: printOf(now, form.minutes),
          }),
      ...(silent ? { silent } : text.trim() ? { text: text.trim() } : {}),
      ...(address.trim() && place?.kind === 'client' ? { address: address.trim() } : {}),
    }
    await bookSeries(letIn(schemas.series, body, 'The sessions'))
  }
  const lacking = place?.kind === 'client' && !address.trim()
  return (
    <>
      <PageHead
        title={path ? `${path.name} with ${person.name}` : `Plan ahead with ${person.name}`}
        line={`Booked at once, whole or not at all. One message tells of all of them.`}
      >
        <Link className="press" to={`/people/${person.id}`}>
          Back to {person.name}
        </Link>
      </PageHead>
      <div className="mt-5 grid gap-5 lg:grid-cols-[1fr_380px]">
        <section className="sheet h-fit px-[18px] py-4" aria-label="The plan">
          <div className="flex flex-wrap items-start justify-between gap-3">
            <h2>{summary(rows)}</h2>
            <button
              type="submit"
              form="plan"
              className="press press-go"
              disabled={booked.length === 0 || problem !== undefined || lacking || act.busy}
            >
              Book {counted(booked.length, 'session', 'sessions')}
            </button>
          </div>
          <FormProblems answers={0} problem={act.problem} />
          {problem && <p className="note tag-look mt-2">{problem}</p>}
          {rows.length > 0 && (
            <RhythmLine marks={rows.map((row) => markOf(row, (at) => dateAt(where, at)))} />
          )}
          {wish && taken && (
            <ol className="mt-2 divide-y divide-line">
              {rows.map((row, k) => (
                <PlannedRow
                  key={row.planned.meant}
                  {...{ practice, taken, row }}
                  wish={wishFor(wish, k)}
                  number={k + 1}
                  others={booked.filter((start) => start !== row.start)}
                  onMove={(start) => move(k, start)}
                />
              ))}
            </ol>
          )}
        </section>
        <form
          id="plan"
          className="grid h-fit gap-4"
          noValidate
          onSubmit={(event) => {
            event.preventDefault()
            act.run(book, () => go(`/people/${person.id}`))
          }}
        >
          <Card title="What is wished for">
            <PlanFields practice={practice} form={form} today={dateAt(where, relayNow())} onChange={change} />
            {place?.kind === 'client' && (
              <div className="mt-3">
                <PlainField label="Where to come" value={address} onChange={setAddress} />
              </div>
            )}
            <WordOrSilence said={said} onChange={setSaid} />
          </Card>
        </form>
      </div>
    </>
  )
}

/** What one begins with for a path: its own sessions, where the first of them can take place. */
function ofPath({ practice }: Desk, form: PlanForm, path: PlanForm['path']): PlanForm {
  const first = path?.sessions[0]
  const service = first && practice.services.find(({ id }) => id === first.service)
  if (!path || !service) return form
  const place = service.places.includes(form.place) ? form.place : service.places[0]!
  return { ...form, service: service.id, place, minutes: first.minutes, count: path.sessions.length, path }
}

const markOf = (
  { planned, start, byHand }: PlanRow,
  on: (at: Instant) => RhythmMark['meant'],
): RhythmMark => ({
  meant: planned.meant,
  ...(start === undefined ? {} : { lies: on(start) }),
  asMeant: !byHand && planned.days === 0 && planned.minutes === 0,
})

/** How a plan keeps to what is wished for, in words. */
function summary(rows: readonly PlanRow[]): string {
  if (rows.length === 0) return 'The plan'
  const without = rows.filter(({ start }) => start === undefined).length
  const moved = rows.filter(
    ({ start, byHand, planned }) =>
      start !== undefined && (byHand || planned.days !== 0 || planned.minutes !== 0),
  ).length
  const asMeant = rows.length - without - moved
  return [
    asMeant === rows.length ? `All ${rows.length} as meant` : `${asMeant} of ${rows.length} as meant`,
    ...(moved > 0 ? [`${moved} moved`] : []),
    ...(without > 0 ? [`${without} without room`] : []),
  ].join(', ')
}
