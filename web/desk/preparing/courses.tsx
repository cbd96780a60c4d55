import type { Practice } from '@acolhida/core/practice'
import { type StationState, stillToDo } from '@acolhida/core/preparing'
import { answerWords, isAttached } from '@acolhida/core/questions'
import { useState } from 'react'
import { StationMark } from '../../drawings/station-mark.tsx'
import { useMinute } from '../../relay-client/clock.ts'
import { ActButton } from '../parts/act.tsx'
import { counted, serviceName, when } from '../parts/words.ts'
import { FileAnswer } from '../request/answers.tsx'
import { doWithCourse } from '../sync/acts.ts'
import { Chase } from './chase.tsx'
import { PathOf } from './path-of.tsx'
import { TakeOver } from './take-over.tsx'
import { type GivenTo, stateOf } from './use-courses.ts'
import { answeredIn, PREPARES, stationWords } from './words.ts'

/** What somebody was given to do, and how far they are. */
export function Courses({
  practice,
  all,
  person,
}: {
  practice: Practice
  all: readonly GivenTo[]
  /** Whose they are, by their id, where that is known. */
  person?: string
}) {
  return (
    <div className="grid gap-4">
      {all.map((given) => (
        <OneCourse key={given.row.id} practice={practice} given={given} person={person} />
      ))}
    </div>
  )
}

function OneCourse({
  practice,
  given,
  person,
}: {
  practice: Practice
  given: GivenTo
  person: string | undefined
}) {
  const now = useMinute()
  const { row, booking } = given
  const { course } = row
  const state = stateOf(practice, given, now)
  const left = stillToDo(state)
  const [chases, setChases] = useState(false)
  const facts = [
    booking ? `for ${serviceName(practice, booking.service)}, ${when(practice, booking.start)}` : '',
    `given ${when(practice, course.given.at)}`,
    course.opened === undefined ? 'not opened yet' : '',
    course.chased === undefined ? '' : `asked again ${when(practice, course.chased)}`,
  ]
  return (
    <div className="border-t border-line pt-3 first:border-0 first:pt-1">
      {course.given.path && <PathOf practice={practice} row={row} person={person} />}
      <p className="font-semibold empty:hidden">
        {state.of === 0
          ? ''
          : state.over && state.done < state.of
            ? 'Need not be done any more'
            : left.length === 0
              ? 'All done'
              : `${state.done} of ${state.of} done`}
      </p>
      <p className="text-[14px] text-soft">{facts.filter(Boolean).join(' · ')}</p>
      <ul className="mt-2 grid gap-1.5">
        {state.stations.map((one) => (
          <OneStation key={one.station.id} practice={practice} given={given} one={one} over={state.over} />
        ))}
      </ul>
      {left.length > 0 && (
        <div className="mt-2.5 flex flex-wrap gap-2">
          <button type="button" className="press" onClick={() => setChases(true)}>
            Ask again for {counted(left.length, 'thing', 'things')}…
          </button>
          <ActButton className="press press-quiet" onAct={() => doWithCourse(row.id, { do: 'end' })}>
            Need not be done
          </ActButton>
        </div>
      )}
      {chases && <Chase given={[given]} close={() => setChases(false)} />}
    </div>
  )
}

function OneStation({
  practice,
  given: { row },
  one,
  over,
}: {
  practice: Practice
  given: GivenTo
  one: StationState
  over: boolean
}) {
  const { station, is, progress } = one
  const { files = [], agreement, answers } = progress
  if (is === 'gone') return null
  return (
    <li className="grid grid-cols-[20px_1fr_auto] items-start gap-2 text-[14px]">
      <StationMark state={is} size={20} />
      <div className="min-w-0">
        <span className="font-semibold wrap-anywhere">{station.name}</span>{' '}
        <span className="text-soft">{PREPARES[station.is].does}</span>
        <span className={`block ${is === 'overdue' ? 'font-semibold text-clay' : 'text-soft'}`}>
          {stationWords(practice, one)}
          {agreement ? `, signed by ${agreement.name}` : ''}
        </span>
        {files.map((file) => (
          <span key={file.file} className="block">
            <FileAnswer file={file} />
          </span>
        ))}
        {answers && <Answered practice={practice} one={one} email={row.course.given.person.email} />}
      </div>
      {!over && (
        <ActButton
          className="press press-quiet px-2 py-0.5 text-[13px]"
          onAct={() => doWithCourse(row.id, { do: is === 'done' ? 'undone' : 'done', station: station.id })}
        >
          {is === 'done' ? 'Once more' : 'It is done'}
          <span className="sr-only">: {station.name}</span>
        </ActButton>
      )}
    </li>
  )
}

/** What was answered, opened here and nowhere else. */
function Answered({ practice, one, email }: { practice: Practice; one: StationState; email: string }) {
  return (
    <details className="mt-1">
      <summary className="cursor-pointer">Read the answers</summary>
      <dl className="mt-1">
        {answeredIn(practice, one).map(({ question, answer }) => (
          <div key={question.id} className="border-t border-line py-1.5 first:border-0">
            <dt className="text-soft">{question.text}</dt>
            <dd dir="auto" className="whitespace-pre-line wrap-anywhere">
              {isAttached(answer) ? <FileAnswer file={answer} /> : answerWords(question, answer)}
              {(question.kind === 'phone' || question.kind === 'email') && (
                <TakeOver email={email} asked={question.kind} answer={answer} />
              )}
            </dd>
          </div>
        ))}
      </dl>
    </details>
  )
}
