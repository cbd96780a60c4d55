import type { CourseView, YoursView } from '@acolhida/core/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useLocation, useParams } from 'react-router'
import { StationMark } from '../../drawings/station-mark.tsx'
import { clocksNamed, momentAt, sessionAt } from '../parts/clocks.ts'
import { Nowhere } from '../parts/nowhere.tsx'
import { say } from '../parts/say.ts'
import { useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import type { OnYours } from '../visit/yours.ts'
import { WasAgreed } from './my-terms.tsx'
import { lineOf, PathHead } from './path-of-theirs.tsx'
import { ToDo } from './to-do.tsx'

/** Everything that is somebody's with this practice, behind a private link of theirs: what there is to do first. */
export default function Yours() {
  const slug = useSlug()
  const { secret = '' } = useParams()
  const { hash } = useLocation()
  // The key to what is half done stands in the fragment alone; it stays while one is on this page.
  const [half] = useState(() => hash.slice(1) || undefined)
  const queryKey = ['yours', secret]
  const queries = useQueryClient()
  const yours = useQuery({ queryKey, queryFn: () => doorRelay.yours(secret), refetchInterval: 30_000 })
  const { mutate: opens } = useMutation({ mutationFn: () => doorRelay.opens(secret) })
  const found = yours.data !== undefined
  useEffect(() => {
    // Opening a link does nothing; that somebody really looks at it, the page says.
    if (found) opens()
  }, [found, opens])
  if (yours.error && !yours.data) {
    return (
      <Nowhere slug={slug} title={say('yours.nowhere')}>
        {yours.error.message}
      </Nowhere>
    )
  }
  if (!yours.data) return <p className="text-soft">{say('moment')}</p>
  return (
    <Everything
      view={yours.data}
      secret={secret}
      half={half}
      show={(view) => queries.setQueryData(queryKey, view)}
      again={() => queries.invalidateQueries({ queryKey })}
    />
  )
}

const leftIn = ({ stations }: CourseView): number => stations.filter(({ state }) => state !== 'done').length

function Everything(doing: OnYours) {
  const { view, secret } = doing
  const stations = view.courses.flatMap((course) => course.stations)
  const left = view.courses.reduce((sum, course) => sum + leftIn(course), 0)
  const minutes = stations.reduce((sum, one) => sum + (one.state === 'done' ? 0 : (one.minutes ?? 0)), 0)
  const title = left > 0 ? say('yours.left', { left }) : say('yours.title', { name: view.practitioner })
  const head = useRef<HTMLHeadingElement>(null)
  const goesOn = (course: CourseView): boolean =>
    leftIn(course) > 0 || (course.path !== undefined && course.path.left + course.path.planned > 0)
  const open = view.courses.filter(goesOn)
  const done = view.courses.filter((course) => !goesOn(course))
  return (
    <div className="max-w-[720px]">
      <title>{`${title} · ${view.practitioner}`}</title>
      <h1 ref={head} tabIndex={-1} className="outline-none">
        {title}
      </h1>
      {left > 0 && (
        <p className="mt-1 text-soft">
          {[minutes > 0 ? say('yours.minutes', { minutes }) : '', say('yours.kept')]
            .filter(Boolean)
            .join(' ')}
        </p>
      )}
      {stations.length > 0 && left === 0 && <p className="note tag-fits mt-3">{say('yours.all-done')}</p>}
      {open.map((course) => (
        <Course key={course.course} course={course} doing={doing} />
      ))}
      <Sessions view={view} secret={secret} />
      {done.map((course) => (
        <Course key={course.course} course={course} doing={doing} />
      ))}
      <WasAgreed view={{ ...view, service: view.name }} />
      {view.again.length > 0 && (
        <section className="sheet mt-5 p-5">
          <h2>{say('yours.book')}</h2>
          <ul className="mt-2 grid gap-1">
            {view.again.map(({ id, name }) => (
              <li key={id}>
                <Link
                  className="way inline-flex min-h-11 items-center"
                  to={`/${view.slug}/${id}?with=${secret}`}
                  reloadDocument
                >
                  {name}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}

/** What was given at once: each thing on one line, what comes next open to be done. */
function Course({ course, doing }: { course: CourseView; doing: OnYours }) {
  const { session, stations, text } = course
  const next = stations.find(({ state }) => state !== 'done')?.id
  const [open, setOpen] = useState(next)
  const line = lineOf(course, doing)
  const clocks = clocksNamed(session?.clocks ?? doing.view.clocks)
  const heading = course.path
    ? course.path.name
    : session
      ? say('yours.before', {
          service: session.service,
          when: sessionAt(session.start, session.minutes, clocks),
        })
      : say('yours.given', { when: momentAt(course.at, clocks) })
  const button = (id: string): HTMLElement | null => document.getElementById(`station-${course.course}-${id}`)
  return (
    <section className="mt-5" aria-label={heading}>
      <h2>{heading}</h2>
      {text && <p className="mt-2 border-l-4 border-line pl-3 whitespace-pre-line wrap-anywhere">{text}</p>}
      {course.path && <PathHead course={course} path={course.path} doing={doing} />}
      <ol className="relative mt-3 grid gap-2 before:absolute before:top-4 before:bottom-4 before:left-[13px] before:w-0.5 before:bg-line">
        {line.map((station) => {
          if ('body' in station)
            return (
              <li key={station.key} className="relative grid grid-cols-[28px_1fr] gap-3">
                <span className="relative mt-3 h-7 bg-paper">
                  <StationMark state={station.state} />
                </span>
                <div className="sheet min-w-0 px-4 py-3 wrap-anywhere">{station.body}</div>
              </li>
            )
          const { id, state, due, minutes, filled } = station
          const shown = open === id
          const facts = [
            say(`yours.is-${station.is}`),
            state === 'done' && station.done !== undefined
              ? say('yours.done-at', { when: momentAt(station.done, clocks) })
              : '',
            state === 'begun' && filled ? say('yours.begun', filled) : '',
            state !== 'done' && minutes ? say('yours.about', { minutes }) : '',
            state !== 'done' && due !== undefined
              ? say(state === 'overdue' ? 'yours.overdue' : 'yours.by', { when: momentAt(due, clocks) })
              : '',
          ].filter(Boolean)
          return (
            <li key={id} className="relative grid grid-cols-[28px_1fr] gap-3">
              <span className="relative mt-3 h-7 bg-paper">
                <StationMark state={state} />
              </span>
              <div className="sheet min-w-0">
                <h3 className="m-0">
                  <button
                    type="button"
                    id={`station-${course.course}-${id}`}
                    className="grid min-h-[52px] w-full cursor-pointer gap-0.5 px-4 py-3 text-left font-sans text-[16px]"
                    aria-expanded={shown}
                    onClick={() => setOpen(shown ? undefined : id)}
                  >
                    <span className="font-semibold wrap-anywhere">{station.name}</span>
                    <span
                      className={`text-[14px] font-normal ${state === 'overdue' ? 'font-semibold text-clay' : 'text-soft'}`}
                    >
                      {facts.join(' · ')}
                    </span>
                  </button>
                </h3>
                {shown && (
                  <div className="border-t border-line px-4 pt-3 pb-4">
                    <ToDo
                      doing={doing}
                      course={course}
                      station={station}
                      onDone={(view) => {
                        const now = view.courses.find((one) => one.course === course.course)
                        const after = now?.stations.find((one) => one.state !== 'done')?.id
                        setOpen(after)
                        // One goes on where the next thing is, or stays at what was done.
                        requestAnimationFrame(() => button(after ?? id)?.focus())
                      }}
                    />
                  </div>
                )}
              </div>
            </li>
          )
        })}
      </ol>
    </section>
  )
}

/** Their sessions, each on its own page behind the same link. */
function Sessions({ view, secret }: { view: YoursView; secret: string }) {
  // Those of a path stand on its line.
  const onLine = new Set(
    view.courses.flatMap(({ path }) => path?.sessions.flatMap(({ booking }) => booking ?? []) ?? []),
  )
  const sessions = view.sessions.filter(({ booking }) => !onLine.has(booking))
  if (sessions.length === 0) return null
  return (
    <section className="sheet mt-5 p-5">
      <h2>{say('yours.sessions')}</h2>
      <ul className="mt-2 grid gap-2">
        {sessions.map(({ booking, service, start, minutes, state, clocks, own }) => (
          <li key={booking}>
            <Link className="way" to={`/${view.slug}/my/${secret}${own ? '' : `?booking=${booking}`}`}>
              {service}, {sessionAt(start, minutes, clocksNamed(clocks))}
            </Link>
            <span className="block text-[14px] text-soft">
              {say(`my.${state}`, { name: view.practitioner })}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
