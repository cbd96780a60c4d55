import {
  placeOf,
  questionnaireOf,
  type Service,
  serviceOf,
  travelZoneOf,
  zoneOf,
} from '@acolhida/core/practice'
import {
  type Answers,
  atDesk,
  newcomer,
  problemsIn,
  type Reading,
  readAnswers,
} from '@acolhida/core/questions'
import { enterBody, letIn } from '@acolhida/core/schemas'
import { dateTimeAt, type Instant, MINUTE, shift } from '@acolhida/core/time'
import { useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { CodeField, codeTyped } from '../parts/code-field.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { FormProblems } from '../parts/form-problems.tsx'
import { problemWords } from '../parts/problem-words.ts'
import { enterBooking } from '../sync/acts.ts'
import { AskThem, WhatItComesTo } from './ask-them.tsx'
import { keepForMyself } from './own-time.ts'
import { StartChoice, useWeighed } from './start-choice.tsx'
import type { Chosen } from './weigh.ts'

/** Books somebody in by hand: through the same questions and quote as at the door, or without. */
export function BookIn({
  desk,
  service: id,
  at,
  about,
  booked,
  close,
}: {
  desk: Desk
  service: string
  at: Instant
  /** Who it is, and what they have answered already. */
  about?: { name: string; email: string; answers: Answers }
  booked?: () => void
  close: () => void
}) {
  const { practice } = desk
  const first = serviceOf(practice, id) ?? practice.services[0]!
  const [chosen, setChosen] = useState<Chosen>({
    service: first.id,
    place: first.places[0]!,
    at: dateTimeAt(zoneOf(practice, placeOf(practice, first.places[0]!)), at),
    minutes: first.minutes,
  })
  const [person, setPerson] = useState({ name: about?.name ?? '', email: about?.email ?? '', address: '' })
  const [asking, setAsking] = useState(Object.keys(about?.answers ?? {}).length > 0)
  const [answers, setAnswers] = useState<Answers>(about?.answers ?? {})
  const [extras, setExtras] = useState<string[]>([])
  const [problem, setProblem] = useState<string>()
  const [checked, setChecked] = useState(false)
  const weighed = useWeighed(desk, chosen)
  const [code, setCode] = useState('')
  const found = codeTyped(desk, code, { service: chosen.service, email: person.email }, relayNow())
  const service = serviceOf(practice, chosen.service)!
  const place = placeOf(practice, chosen.place)
  const questionnaire = questionnaireOf(practice, service)
  const readingOf = (
    of: Service,
    given: Answers,
    added: readonly string[],
    travel = chosen.travel,
  ): Reading =>
    readAnswers(of, asking ? questionnaireOf(practice, of) : undefined, given, newcomer, {
      extras: added,
      travel: travelZoneOf(place, travel),
      whole: false,
      code: typeof found === 'string' ? undefined : found,
    })
  const reading = readingOf(service, answers, extras)
  const problems =
    asking && questionnaire ? problemsIn(atDesk(questionnaire.questions), answers, newcomer) : []

  /** Answers and extras lengthen the session; a length typed by hand stays until they change again. */
  const answer = (next: Answers): void => {
    setAnswers(next)
    setChosen({ ...chosen, minutes: readingOf(service, next, extras).quote.minutes })
  }
  const add = (next: string[]): void => {
    setExtras(next)
    setChosen({ ...chosen, minutes: readingOf(service, answers, next).quote.minutes })
  }
  const choose = (next: Chosen): void => {
    if (next.service !== chosen.service) {
      setAnswers({})
      setExtras([])
    }
    setChosen(next)
  }
  const ownTime = (): void => {
    const { start } = weighed
    if (start === undefined) return
    keepForMyself(practice, start, shift(start, chosen.minutes * MINUTE), person.name)
      .then(close)
      .catch((error: unknown) => setProblem(String(error)))
  }
  const book = (): void => {
    if (weighed.start === undefined) return
    setChecked(true)
    if (problems.length > 0) return
    const { address, ...who } = person
    const body = {
      service: chosen.service,
      place: chosen.place,
      start: weighed.start,
      minutes: chosen.minutes,
      person: { ...who, zone: practice.profile.zone },
      clash: weighed.clash,
      ...(asking ? { answers } : {}),
      ...(extras.length > 0 ? { extras } : {}),
      ...(chosen.travel ? { travel: chosen.travel } : {}),
      ...(code.trim() ? { code: code.trim() } : {}),
      ...(address.trim() && place?.kind === 'client' ? { address } : {}),
    }
    try {
      const { id: _, ...clean } = letIn<Parameters<typeof enterBooking>[0] & { id: string }>(
        enterBody,
        { ...body, id: 'x'.repeat(20) },
        'The booking',
      )
      enterBooking(clean)
      booked?.()
      close()
    } catch (error) {
      setProblem(problemWords(error))
    }
  }
  const text = (key: keyof typeof person, label: string, type = 'text') => (
    <label className="ask">
      {label}
      <input
        className="field mt-1"
        type={type}
        value={person[key]}
        onChange={(event) => setPerson({ ...person, [key]: event.target.value })}
      />
    </label>
  )
  return (
    <Dialog title="Book somebody in" close={close} wide={asking}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          book()
        }}
      >
        <div className="mb-3 grid grid-cols-2 gap-3">
          <label className="ask">
            Name
            <input
              className="field mt-1"
              list="known-people"
              value={person.name}
              onChange={(event) => {
                const known = desk.people.find((one) => one.name === event.target.value)
                const email = known?.emails[0] ?? person.email
                setPerson({ ...person, name: event.target.value, email })
              }}
            />
          </label>
          {text('email', 'Mail address', 'email')}
          {place?.kind === 'client' && text('address', 'Where to come')}
          <datalist id="known-people">
            {desk.people.map((one) => (
              <option key={one.id} value={one.name} />
            ))}
          </datalist>
        </div>
        <StartChoice desk={desk} chosen={chosen} weighed={weighed} onChange={choose} />
        <AskThem
          practice={practice}
          service={service}
          asking={asking}
          onAsking={setAsking}
          answers={answers}
          onAnswers={answer}
          extras={extras}
          onExtras={add}
          problems={checked ? problems : []}
        />
        <div className="mt-3">
          <CodeField desk={desk} value={code} found={found} onChange={setCode} />
        </div>
        {(asking || extras.length > 0 || chosen.travel || code) && (
          <WhatItComesTo practice={practice} reading={reading} />
        )}
        <FormProblems answers={checked ? problems.length : 0} problem={problem} />
        <button
          type="submit"
          className="press press-go mt-3"
          disabled={
            weighed.blocked || weighed.start === undefined || !person.name.trim() || typeof found === 'string'
          }
        >
          {weighed.clash && !weighed.blocked
            ? 'Book in all the same, as a clash'
            : `Book ${person.name.trim() || 'somebody'} in`}
        </button>
        <button type="button" className="press ml-2" disabled={weighed.start === undefined} onClick={ownTime}>
          Keep this time for myself
        </button>
      </form>
    </Dialog>
  )
}
