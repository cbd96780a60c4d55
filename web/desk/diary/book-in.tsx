import { schemas } from '@acolhida/core/contract/schemas'
import { placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import type { Answers } from '@acolhida/core/questions'
import { letIn } from '@acolhida/core/schemas'
import { dateTimeAt, type Instant, type Language, MINUTE, shift } from '@acolhida/core/time'
import { refusalWords } from '@acolhida/core/words'
import { useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { useAct } from '../parts/act.tsx'
import { CodeField } from '../parts/code-field.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { FormProblems } from '../parts/form-problems.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { printOf, reckonFor, useBehind } from '../parts/reckoned.ts'
import { type GoesWith, WordOrSilence } from '../parts/word.tsx'
import { PersonFields } from '../people/who-fields.tsx'
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
  booked?: () => unknown
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
  const [person, setPerson] = useState({
    ...{ name: about?.name ?? '', email: about?.email ?? '', phone: '', address: '' },
  })
  const [asking, setAsking] = useState(Object.keys(about?.answers ?? {}).length > 0)
  const [answers, setAnswers] = useState<Answers>(about?.answers ?? {})
  const [extras, setExtras] = useState<string[]>([])
  const [checked, setChecked] = useState(false)
  const weighed = useWeighed(desk, chosen)
  const known = useBehind(person.email)
  const [chosenLanguage, setLanguage] = useState<Language>()
  const language = chosenLanguage ?? known.language
  const act = useAct()
  const [code, setCode] = useState('')
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const service = serviceOf(practice, chosen.service)!
  const place = placeOf(practice, chosen.place)
  /** What it comes to for this person, by the same reckoning as the relay's. */
  const reckoned = (given: Answers, added: readonly string[]) =>
    reckonFor(
      practice,
      {
        service: chosen.service,
        place: chosen.place,
        answers: asking ? given : undefined,
        extras: added,
        travel: chosen.travel,
        code,
      },
      known,
      relayNow(),
    )
  const now = reckoned(answers, extras)
  const { problems, reading, codeProblem } = now

  /** Answers and extras lengthen the session; a length typed by hand stays until they change again. */
  const answer = (next: Answers): void => {
    setAnswers(next)
    setChosen({ ...chosen, minutes: reckoned(next, extras).reading.quote.minutes })
  }
  const add = (next: string[]): void => {
    setExtras(next)
    setChosen({ ...chosen, minutes: reckoned(answers, next).reading.quote.minutes })
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
    act.run(() => keepForMyself(practice, start, shift(start, chosen.minutes * MINUTE), person.name), close)
  }
  const book = (): void => {
    if (weighed.start === undefined) return
    setChecked(true)
    if (problems.length > 0) return
    const { address, phone, ...who } = person
    const body = {
      service: chosen.service,
      place: chosen.place,
      start: weighed.start,
      minutes: chosen.minutes,
      person: {
        ...{ ...who, zone: practice.profile.zone },
        ...(phone.trim() ? { phone: phone.trim() } : {}),
        ...(language ? { language } : {}),
      },
      clash: weighed.clash,
      shown: printOf(now, chosen.minutes),
      ...(asking ? { answers } : {}),
      ...(extras.length > 0 ? { extras } : {}),
      ...(chosen.travel ? { travel: chosen.travel } : {}),
      ...(code.trim() ? { code: code.trim() } : {}),
      ...(said.silent ? { silent: true } : said.text.trim() ? { text: said.text.trim() } : {}),
      ...(address.trim() && place?.kind === 'client' ? { address } : {}),
    }
    act.run(async () => {
      await enterBooking(letIn(schemas.enter, { ...body, id: newKey() }, 'The booking'))
      await booked?.()
    }, close)
  }
  return (
    <Dialog title="Book somebody in" close={close} wide>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          book()
        }}
      >
        <PersonFields
          practice={practice}
          person={person}
          onPerson={setPerson}
          language={language}
          onLanguage={setLanguage}
        >
          {place?.kind === 'client' && (
            <PlainField
              label="Where to come"
              value={person.address}
              onChange={(address) => setPerson((now) => ({ ...now, address }))}
            />
          )}
        </PersonFields>
        <StartChoice desk={desk} chosen={chosen} weighed={weighed} onChange={choose} />
        <AskThem
          practice={practice}
          service={service}
          asking={asking}
          asked={now.questions}
          onAsking={setAsking}
          answers={answers}
          onAnswers={answer}
          extras={extras}
          onExtras={add}
          problems={checked ? problems : []}
        />
        <div className="mt-3">
          <CodeField
            desk={desk}
            value={code}
            problem={codeProblem && refusalWords(codeProblem.code, codeProblem.data)}
            onChange={setCode}
          />
        </div>
        <WhatItComesTo practice={practice} reading={reading} minutes={chosen.minutes} />
        <WordOrSilence said={said} onChange={setSaid} />
        <FormProblems answers={checked ? problems.length : 0} problem={act.problem} />
        <button
          type="submit"
          className="press press-go mt-3"
          disabled={
            weighed.blocked || weighed.start === undefined || !person.name.trim() || codeProblem !== undefined
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
