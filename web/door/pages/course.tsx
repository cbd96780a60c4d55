import type { CourseView, StationView } from '@acolhida/core/contract'
import { type ReactNode, useState } from 'react'
import { StationMark } from '../../drawings/station-mark.tsx'
import { clocksNamed, momentAt, sessionAt } from '../parts/clocks.ts'
import { say } from '../parts/say.ts'
import type { OnYours } from '../visit/yours.ts'
import { lineOf, PathHead } from './path-of-theirs.tsx'
import { ToDo } from './to-do.tsx'

const isLeft = ({ state }: StationView): boolean => state !== 'done'
/** How much of it is still to be done, and what comes first. */
export const leftIn = ({ stations }: CourseView): number => stations.filter(isLeft).length
const nextIn = ({ stations }: CourseView): string | undefined => stations.find(isLeft)?.id
const buttonOf = ({ course }: CourseView, station: string): string => `station-${course}-${station}`

/** What was given at once: each thing on one line, what comes next open to be done. */
export function CourseOfTheirs({ course, doing }: { course: CourseView; doing: OnYours }) {
  const { session, text } = course
  const [open, setOpen] = useState(nextIn(course))
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
  return (
    <section className="mt-5" aria-label={heading}>
      <h2>{heading}</h2>
      {text && <p className="mt-2 border-l-4 border-line pl-3 whitespace-pre-line wrap-anywhere">{text}</p>}
      {course.path && <PathHead course={course} path={course.path} doing={doing} />}
      <ol className="relative mt-3 grid gap-2 before:absolute before:top-4 before:bottom-4 before:left-[13px] before:w-0.5 before:bg-line">
        {line.map((station) => (
          <li
            key={'body' in station ? station.key : station.id}
            className="relative grid grid-cols-[28px_1fr] gap-3"
          >
            <span className="relative mt-3 h-7 bg-paper">
              <StationMark state={station.state} />
            </span>
            {'body' in station ? (
              <div className="sheet min-w-0 px-4 py-3 wrap-anywhere">{station.body}</div>
            ) : (
              <OneStation
                button={buttonOf(course, station.id)}
                station={station}
                clocks={clocks}
                shown={open === station.id}
                toggle={() => setOpen(open === station.id ? undefined : station.id)}
              >
                <ToDo
                  doing={doing}
                  course={course}
                  station={station}
                  onDone={(view) => {
                    const now = view.courses.find((one) => one.course === course.course)
                    const after = now && nextIn(now)
                    setOpen(after)
                    // One goes on where the next thing is, or stays at what was done.
                    requestAnimationFrame(() =>
                      document.getElementById(buttonOf(course, after ?? station.id))?.focus(),
                    )
                  }}
                />
              </OneStation>
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}

/** One thing to do: what it is and how it stands; what there is to do with it when it is pressed. */
function OneStation({
  station: { name, is, state, done, due, minutes, filled },
  button,
  clocks,
  shown,
  toggle,
  children,
}: {
  station: StationView
  /** The id of its button. */
  button: string
  clocks: ReturnType<typeof clocksNamed>
  shown: boolean
  toggle: () => void
  children: ReactNode
}) {
  const isDone = state === 'done'
  const facts = [
    say(`yours.is-${is}`),
    isDone && done !== undefined ? say('yours.done-at', { when: momentAt(done, clocks) }) : '',
    state === 'begun' && filled ? say('yours.begun', filled) : '',
    !isDone && minutes ? say('yours.about', { minutes }) : '',
    !isDone && due !== undefined
      ? say(state === 'overdue' ? 'yours.overdue' : 'yours.by', { when: momentAt(due, clocks) })
      : '',
  ].filter(Boolean)
  return (
    <div className="sheet min-w-0">
      <h3 className="m-0">
        <button
          type="button"
          id={button}
          className="grid min-h-[52px] w-full cursor-pointer gap-0.5 px-4 py-3 text-left font-sans text-[16px]"
          aria-expanded={shown}
          onClick={toggle}
        >
          <span className="font-semibold wrap-anywhere">{name}</span>
          <span
            className={`text-[14px] font-normal ${state === 'overdue' ? 'font-semibold text-clay' : 'text-soft'}`}
          >
            {facts.join(' · ')}
          </span>
        </button>
      </h3>
      {shown && <div className="border-t border-line px-4 pt-3 pb-4">{children}</div>}
    </div>
  )
}
