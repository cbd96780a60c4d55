import type { DoorService, DoorTerms, Problem } from '@acolhida/core/contract'
import { isMail, isPhone, nameProblem } from '@acolhida/core/people'
import { holdsHtml } from '@acolhida/core/questions'
import { useId, useState } from 'react'
import { fillIn, fillingOf, useVisit } from '../visit/visit.ts'
import { say } from './say.ts'
import { readAs, TermsToRead } from './terms-to-read.tsx'

type Field = 'name' | 'email' | 'phone' | 'address'

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
      const found: typeof wrong = { ...more }
      if (!name.trim()) found.name = say('terms.no-name')
      else if (holdsHtml(name) || nameProblem(name)) found.name = say(FIELD_PROBLEMS.name)
      if (!isMail(email)) found.email = say(FIELD_PROBLEMS.email)
      if (phone && !isPhone(phone)) found.phone = say(FIELD_PROBLEMS.phone)
      if (calls && !phone.trim()) found.phone = say('terms.no-phone')
      if (visits && !filling.address?.trim()) found.address = say(FIELD_PROBLEMS.address)
      const missing = service.terms.find((terms) => !agreedTo(terms))
      if (missing) found.agreed = say('terms.agree-first', { title: missing.title })
      setWrong(found)
      const first = (['name', 'email', 'phone', 'address', 'agreed'] as const).find((field) => found[field])
      if (first)
        document
          .getElementById(first === 'agreed' ? `agreed-${missing?.id ?? ''}` : `field-${first}`)
          ?.focus()
      return first === undefined
    },
    /** What the relay found wrong with a field. */
    refused: ({ where }: Problem): void => {
      const field = /^person\.(name|email|phone)$/.exec(where ?? '')?.[1] as Field | undefined
      if (field) setWrong({ [field]: say(FIELD_PROBLEMS[field]) })
    },
    change: (field: Field, value: string): void => {
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
  const { wrong, change, calls, visits } = who
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
      </div>
    </>
  )
}

const FIELD_PROBLEMS = {
  name: 'terms.bad-name',
  email: 'terms.bad-mail',
  phone: 'terms.bad-phone',
  address: 'terms.no-address',
} as const satisfies Record<Field, string>

function TextField({
  field,
  label,
  optional = false,
  type = 'text',
  autoComplete,
  value,
  problem,
  onChange,
}: {
  field: Field
  label: string
  optional?: boolean
  type?: string
  autoComplete: string
  value: string
  problem: string | undefined
  onChange: (field: Field, value: string) => void
}) {
  const id = useId()
  return (
    <div>
      <label className="ask" htmlFor={`field-${field}`}>
        {label}
        {optional && (
          <>
            {' '}
            <span className="ml-1 text-[13px] font-normal text-soft">{say('optional')}</span>
          </>
        )}
      </label>
      <input
        id={`field-${field}`}
        className="field mt-1"
        type={type}
        autoComplete={autoComplete}
        value={value}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(event) => onChange(field, event.target.value)}
      />
      {problem && (
        <p id={`${id}-problem`} className="mt-1 text-[14px] font-semibold text-clay">
          {problem}
        </p>
      )}
    </div>
  )
}
