import type { CourseView, YoursView } from '@acolhida/core/contract'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useLocation, useParams } from 'react-router'
import { clocksNamed, sessionAt } from '../parts/clocks.ts'
import { Nowhere } from '../parts/nowhere.tsx'
import { say } from '../parts/say.ts'
import { useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { useCameBack } from '../visit/way-back.ts'
import type { OnYours } from '../visit/yours.ts'
import { CourseOfTheirs, leftIn } from './course.tsx'
import { MyInvoices } from './my-invoices.tsx'
import { WasAgreed } from './my-terms.tsx'

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
  const { mutate: comeBack } = useMutation({
    mutationFn: () => doorRelay.yoursCameBack(secret),
    onSuccess: (view) => queries.setQueryData(queryKey, view),
  })
  useCameBack(found, comeBack)
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
        <CourseOfTheirs key={course.course} course={course} doing={doing} />
      ))}
      <Sessions view={view} secret={secret} />
      {done.map((course) => (
        <CourseOfTheirs key={course.course} course={course} doing={doing} />
      ))}
      <MyInvoices of={view.invoices} />
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
