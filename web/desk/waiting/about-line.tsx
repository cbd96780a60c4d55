import { type Practice, placeOf, questionnaireOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import {
  answerWords,
  asked,
  asksSomething,
  isAttached,
  isSealed,
  newcomer,
  readAnswers,
} from '@acolhida/core/questions'
import { dateAt } from '@acolhida/core/time'
import type { LineEvent } from '@acolhida/core/waiting'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { WindowsEdit } from '../../questions/windows-edit.tsx'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { personOfMail } from '../data/people.ts'
import type { LineRow } from '../data/tables.ts'
import { BECAME } from '../messages/gone.tsx'
import { reasonWords } from '../messages/steer.tsx'
import { stepTitle } from '../messages/titles.ts'
import { useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { FormProblems } from '../parts/form-problems.tsx'
import { when } from '../parts/words.ts'
import { doInLine } from '../sync/acts.ts'

/** Somebody in line: what they said, when they could come, what has happened, and what was sent. */
export function AboutLine({ practice, row, close }: { practice: Practice; row: LineRow; close: () => void }) {
  const { id, line } = row
  const [wishes, setWishes] = useState(line.wishes)
  const act = useAct()
  const where = zoneOf(practice, placeOf(practice, line.joined.place))
  const person = useLiveQuery(() => personOfMail(db, row.mail), [row.mail])
  const changed = JSON.stringify(wishes) !== JSON.stringify(line.wishes)
  return (
    <Dialog title={line.joined.person.name} close={close} wide>
      <div className="grid gap-4">
        <p className="text-[14px] wrap-anywhere">
          {person && (
            <>
              <Link className="way" to={`/people/${person.id}`}>
                Everything with them
              </Link>{' '}
              ·{' '}
            </>
          )}
          {line.joined.person.email}
          {line.joined.person.phone && ` · ${line.joined.person.phone}`}
        </p>
        <WhatTheySaid practice={practice} row={row} />
        <div>
          <WindowsEdit
            legend="When could they come?"
            windows={wishes.windows}
            today={dateAt(where, relayNow())}
            onChange={(windows) => setWishes((now) => ({ ...now, windows }))}
          />
          <FormProblems answers={0} problem={act.problem} />
          <button
            type="button"
            className="press press-go mt-3"
            disabled={act.busy || !changed}
            onClick={() => act.run(() => doInLine(id, { do: 'change', ...wishes }), close)}
          >
            Keep when they could come
          </button>
        </div>
        <Happened practice={practice} row={row} />
      </div>
    </Dialog>
  )
}

/** Their answers, and what the rules make of them. */
function WhatTheySaid({ practice, row: { line } }: { practice: Practice; row: LineRow }) {
  const { service: id, answers, extras } = line.joined
  const service = serviceOf(practice, id)
  const questionnaire = service && questionnaireOf(practice, service)
  if (!service || !questionnaire || Object.keys(answers).length === 0) return null
  const shown = asked(questionnaire.questions, answers, newcomer).questions.filter(
    (question) => asksSomething(question) && answers[question.id] !== undefined,
  )
  const { reasons } = readAnswers(service, questionnaire, answers, newcomer, {
    extras: extras ?? [],
    whole: false,
  })
  return (
    <section aria-label="Answers">
      {reasons.length > 0 && (
        <p className="note bg-sun-soft text-sun-ink">
          {reasons.map(({ note, name }) => note || name).join(' · ')}
        </p>
      )}
      <dl className="mt-2 grid gap-1.5 text-[14px]">
        {shown.map((question) => {
          const answer = answers[question.id]
          return (
            <div key={question.id}>
              <dt className="text-soft">{question.text}</dt>
              <dd>
                {isAttached(answer)
                  ? answer.name
                  : isSealed(answer)
                    ? 'sealed'
                    : answerWords(question, answer)}
              </dd>
            </div>
          )
        })}
      </dl>
    </section>
  )
}

/** What has happened to a place in line, in words. */
function eventWords(practice: Practice, event: LineEvent): string {
  const by = 'by' in event && event.by === 'practitioner' ? 'You' : 'They'
  switch (event.type) {
    case 'joined':
      return event.byHand ? 'You put them in line.' : 'They got in line.'
    case 'proved':
      return 'They opened the link in the mail.'
    case 'changed':
      return 'When they could come was changed.'
    case 'paused':
      return `${by} paused it.`
    case 'resumed':
      return `${by} went on.`
    case 'looked':
      return 'You said that they fit.'
    case 'held-out':
      return `${when(practice, event.start)} was held out to them${event.hand ? ', by you' : ''}, until ${when(practice, event.until)}.`
    case 'turned':
      return 'It was not for them.'
    case 'let-go':
      return `They let it go by.${event.still ? ' They are asked whether they still wait.' : ''}`
    case 'passed':
      return event.why === 'taken' ? 'Somebody else took it.' : 'It was held for them no longer.'
    case 'taken':
      return 'They took it.'
    case 'still':
      return 'They still wait.'
    case 'ended':
      return event.by === 'practitioner' ? 'You took them out.' : 'Their waiting ended.'
    case 'returned':
      return 'You put them back.'
  }
}

function Happened({ practice, row }: { practice: Practice; row: LineRow }) {
  const mails = useLiveQuery(() => db.mails.where('booking').equals(row.id).toArray(), [row.id]) ?? []
  return (
    <section aria-label="What has happened">
      <h3 className="font-semibold">What has happened</h3>
      <ul className="mt-1 grid gap-1 text-[14px]">
        {row.events.map((event, nth) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a record only grows
          <li key={nth}>
            <span className="text-soft">{when(practice, event.at)}</span> {eventWords(practice, event)}
          </li>
        ))}
        {mails.map((mail) => (
          <li key={mail.n}>
            <span className="text-soft">{when(practice, mail.at)}</span>{' '}
            {mail.subject || stepTitle(practice, mail.step)}{' '}
            <span
              className={
                mail.state === 'failed' || mail.state === 'unknown' ? 'font-semibold text-clay' : 'text-soft'
              }
            >
              {BECAME[mail.state]}
              {mail.reason ? `: ${reasonWords(mail.reason)}` : ''}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
