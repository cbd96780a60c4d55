import { schemas } from '@acolhida/core/contract/schemas'
import type { DeskEnquiry } from '@acolhida/core/formats'
import { money } from '@acolhida/core/money'
import { questionnaireOf, serviceOf, travelZonesOf } from '@acolhida/core/practice'
import type { Answers } from '@acolhida/core/questions'
import { letIn } from '@acolhida/core/schemas'
import { DAY, type Language, moment, shift } from '@acolhida/core/time'
import { refusalWords } from '@acolhida/core/words'
import { useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { AskThem, WhatItComesTo } from '../diary/ask-them.tsx'
import { useAct } from '../parts/act.tsx'
import { CodeField } from '../parts/code-field.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { FormProblems } from '../parts/form-problems.tsx'
import { asOptions, PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { ReadsIn } from '../parts/reads-in.tsx'
import { printOf, reckonFor, useBehind } from '../parts/reckoned.ts'
import { currencyOf, homeZone } from '../parts/words.ts'
import { sendQuote } from '../sync/acts.ts'

const WAYS = [
  { value: 'email', name: 'by mail' },
  { value: 'text', name: 'by text message' },
]

/** For how many days a quote can stand. */
const DAYS = [1, 2, 3, 5, 7, 14, 30]

/** The same questions as at the door, for somebody on the phone or who has written: a quote that is sent, and stands. */
export function QuoteDialog({
  desk,
  enquiry,
  close,
}: {
  desk: Desk
  /** Absent: somebody on the phone. */
  enquiry?: DeskEnquiry
  close: () => void
}) {
  const { practice } = desk
  const now = useMinute()
  const [id, setId] = useState(enquiry?.service ?? practice.services[0]!.id)
  const service = serviceOf(practice, id) ?? practice.services[0]!
  const questionnaire = questionnaireOf(practice, service)
  const [person, setPerson] = useState({ name: enquiry?.name ?? '', email: enquiry?.email ?? '', phone: '' })
  const [way, setWay] = useState<'email' | 'text'>('email')
  const [asking, setAsking] = useState(true)
  const [answers, setAnswers] = useState<Answers>(enquiry?.answers ?? {})
  const [extras, setExtras] = useState<string[]>([])
  const [code, setCode] = useState('')
  const [days, setDays] = useState(3)
  const [text, setText] = useState('')
  const [checked, setChecked] = useState(false)
  const act = useAct()
  const known = useBehind(person.email)
  const [chosenLanguage, setLanguage] = useState<Language>()
  const language = chosenLanguage ?? enquiry?.language ?? known.language
  const zones = travelZonesOf(practice, service)
  const [travel, setTravel] = useState('')
  const zone = zones.find((travelZone) => travelZone.id === travel)
  const reckoned = reckonFor(
    practice,
    { service: service.id, answers: asking ? answers : undefined, extras, travel: zone?.id, code },
    known,
    now,
  )
  const { reading, problems, codeProblem } = reckoned
  const until = shift(now, days * DAY)
  const send = (): void => {
    setChecked(true)
    if (problems.length > 0) return
    const { phone, ...others } = person
    const body = {
      enquiry: enquiry?.id ?? newKey(),
      service: service.id,
      person: {
        ...{ ...others, zone: practice.profile.zone },
        ...(phone.trim() ? { phone: phone.trim() } : {}),
        ...(language ? { language } : {}),
      },
      ...(way === 'text' ? { by: 'text' as const } : {}),
      ...(asking && questionnaire ? { answers } : {}),
      ...(extras.length > 0 ? { extras } : {}),
      ...(zone ? { travel: zone.id } : {}),
      ...(code.trim() ? { code: code.trim() } : {}),
      until,
      text,
      shown: printOf(reckoned),
    }
    act.run(async () => {
      if (way === 'text' && !phone.trim()) throw new Error('Please write the number it goes to.')
      await sendQuote(letIn(schemas.quote, body, 'The quote'))
    }, close)
  }
  return (
    <Dialog title="A quote for somebody" close={close} wide>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          send()
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <PlainField label="Name" value={person.name} onChange={(name) => setPerson({ ...person, name })} />
          <PlainField
            label="Mail address"
            type="email"
            value={person.email}
            onChange={(email) => setPerson({ ...person, email })}
          />
          <PlainChoice
            label="It goes"
            value={way}
            options={WAYS}
            onChange={(to) => setWay(to as typeof way)}
          />
          <PlainField
            label={way === 'text' ? 'Phone number' : 'Phone number, if there is one'}
            value={person.phone}
            onChange={(phone) => setPerson({ ...person, phone })}
          />
          <ReadsIn practice={practice} value={language} onChange={setLanguage} />
          <div className="col-span-2">
            <PlainChoice
              label="Service"
              value={service.id}
              options={asOptions(practice.services)}
              onChange={(id) => {
                setId(id)
                setAnswers({})
                setExtras([])
              }}
            />
          </div>
        </div>
        {zones.length > 0 && (
          <div className="mt-3">
            <PlainChoice
              label="How far you travel"
              value={travel}
              options={[{ value: '', name: 'not to them' }, ...asOptions(zones)]}
              onChange={setTravel}
            />
          </div>
        )}
        <AskThem
          practice={practice}
          service={service}
          asking={asking}
          asked={reckoned.questions}
          onAsking={setAsking}
          answers={answers}
          onAnswers={setAnswers}
          extras={extras}
          onExtras={setExtras}
          problems={checked ? problems : []}
        />
        <WhatItComesTo practice={practice} reading={reading} />
        <div className="mt-3 grid grid-cols-2 gap-3">
          <label className="ask">
            It stands for
            <select
              className="field mt-1"
              value={days}
              onChange={(event) => setDays(Number(event.target.value))}
            >
              {DAYS.map((number) => (
                <option key={number} value={number}>
                  {number} {number === 1 ? 'day' : 'days'}
                </option>
              ))}
            </select>
          </label>
          <CodeField
            desk={desk}
            value={code}
            problem={codeProblem && refusalWords(codeProblem.code, codeProblem.data)}
            onChange={setCode}
          />
          <div className="col-span-2">
            <PlainField label="What you write with it" rows={3} value={text} onChange={setText} />
          </div>
        </div>
        <p className="mt-2 text-[14px] text-soft">
          They get a link {way === 'text' ? 'by text message' : 'by mail'}, choose a time with it until{' '}
          {moment(until, homeZone(practice))}, and are booked.
        </p>
        <FormProblems answers={checked ? problems.length : 0} problem={act.problem} />
        <button
          type="submit"
          className="press press-go mt-3"
          disabled={!person.name.trim() || codeProblem !== undefined}
        >
          Send the quote
          {reading.quote.price > 0
            ? ` of ${money(reading.quote.price, currencyOf(practice.profile.currency))}`
            : ''}
        </button>
      </form>
    </Dialog>
  )
}
