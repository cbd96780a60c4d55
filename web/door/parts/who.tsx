import type { DoorService, DoorTerms, Problem } from '@acolhida/core/contract'
import { isMail, isPhone, nameProblem } from '@acolhida/core/people'
import { holdsHtml } from '@acolhida/core/questions'
import { useState } from 'react'
import { fillIn, fillingOf, useVisit } from '../visit/visit.ts'
import { OTHER_FIELDS, type OtherField, othersProblems, WhoElse } from './others.tsx'
import { say } from './say.ts'
import { readAs, TermsToRead } from './terms-to-read.tsx'
import { TextField } from './text-field.tsx'

type OwnField = 'name' | 'email' | 'phone' | 'address'
type Field = OwnField | OtherField
/** In which order the fields stand. */
const ORDER = ['agreed', 'name', 'email', 'phone', 'address', ...OTHER_FIELDS] as const

/** What is agreed to, and who says so: what is filled in, what is wrong with it, and how it is looked through. */
export function useWho(service: DoorService, place: DoorService['places'][number] | undefined) {
  const visit = useVisit()
  const filling = fillingOf(visit, service.id)
  const [wrong, setWrong] = useState<Partial<Record<Field | 'agreed', string>>>({})
  const visits = place?.kind === 'client'
  const calls = place?.kind === 'phone' && place.whoCalls !== 'client'
  const agreedTo = (terms: DoorTerms): boolean => filling.agreed.includes(readAs(terms))
  return {
    wrong,
    setWrong,
    visits,
    calls,
    agreedTo,
    /** Looks everything through, leads to the first that is wrong, and says whether nothing is. */
    check: (more: Partial<Record<Field, string>> = {}): boolean => {
      const { name, email, phone } = filling.person
      const found: typeof wrong = { ...more, ...othersProblems(filling.person.others) }
      if (!name.trim()) found.name = say('terms.no-name')
      else if (holdsHtml(name) || nameProblem(name)) found.name = say(FIELD_PROBLEMS.name)
      if (!isMail(email)) found.email = say(FIELD_PROBLEMS.email)
      if (phone && !isPhone(phone)) found.phone = say(FIELD_PROBLEMS.phone)
      if (calls && !phone.trim()) found.phone = say('terms.no-phone')
      if (visits && !filling.address?.trim()) found.address = say(FIELD_PROBLEMS.address)
      const missing = service.terms.find((terms) => !agreedTo(terms))
      if (missing) found.agreed = say('terms.agree-first', { title: missing.title })
      setWrong(found)
      const first = ORDER.find((field) => found[field])
      if (first)
        document
          .getElementById(first === 'agreed' ? `agreed-${missing?.id ?? ''}` : `field-${first}`)
          ?.focus()
      return first === undefined
    },
    /** What the relay found wrong with a field. */
    refused: ({ where }: Problem): void => {
      const field = /^person\.(name|email|phone)$/.exec(where ?? '')?.[1] as OwnField | undefined
      if (field) setWrong({ [field]: say(FIELD_PROBLEMS[field]) })
    },
    changed: (field: Field): void => setWrong(({ [field]: _, ...rest }) => rest),
    change: (field: OwnField, value: string): void => {
      fillIn(
        service.id,
        field === 'address'
          ? { is: 'addressed', address: value }
          : { is: 'person', person: { [field]: value } },
      )
      setWrong(({ [field]: _, ...rest }) => rest)
    },
  }
}
type Who = ReturnType<typeof useWho>

/** The terms, each to be read and agreed to. */
export function AgreeTo({ service, who }: { service: DoorService; who: Who }) {
  const { wrong, setWrong, agreedTo } = who
  return (
    <>
      <div className="mt-4 grid gap-3">
        {service.terms.map((terms) => (
          <TermsToRead
            key={terms.id}
            terms={terms}
            agreed={agreedTo(terms)}
            wrong={wrong.agreed !== undefined}
            onChange={(yes) => {
              fillIn(service.id, { is: 'agreed', text: readAs(terms), yes })
              setWrong(({ agreed: _, ...rest }) => rest)
            }}
          />
        ))}
      </div>
      {wrong.agreed && (
        <p id="wrong-agreed" className="mt-2 font-semibold text-clay">
          {wrong.agreed}
        </p>
      )}
    </>
  )
}

/** Name, addresses and phone. */
export function WhoFields({ service, who }: { service: DoorService; who: Who }) {
  const visit = useVisit()
  const filling = fillingOf(visit, service.id)
  const { wrong, change, changed, calls, visits } = who
  return (
    <>
      <h2 className="mt-6 mb-2">{say('terms.who')}</h2>
      <div className="sheet grid gap-4 p-4 sm:grid-cols-2">
        <TextField
          field="name"
          label={say('terms.name')}
          autoComplete="name"
          value={filling.person.name}
          problem={wrong.name}
          onChange={change}
        />
        <TextField
          field="email"
          label={say('terms.mail')}
          type="email"
          autoComplete="email"
          value={filling.person.email}
          problem={wrong.email}
          onChange={change}
        />
        <TextField
          field="phone"
          label={say(calls ? 'terms.phone-needed' : 'terms.phone')}
          optional={!calls}
          type="tel"
          autoComplete="tel"
          value={filling.person.phone}
          problem={wrong.phone}
          onChange={change}
        />
        {visits && (
          <TextField
            field="address"
            label={say('terms.address')}
            autoComplete="street-address"
            value={filling.address ?? ''}
            problem={wrong.address}
            onChange={change}
          />
        )}
        <WhoElse
          others={filling.person.others ?? {}}
          wrong={wrong}
          onChange={(others, field) => {
            fillIn(service.id, { is: 'person', person: { others } })
            if (field) changed(field)
          }}
        />
      </div>
    </>
  )
}

const FIELD_PROBLEMS = {
  name: 'terms.bad-name',
  email: 'terms.bad-mail',
  phone: 'terms.bad-phone',
  address: 'terms.no-address',
} as const satisfies Record<OwnField, string>
