import type { DoorService } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { isMail, isPhone } from '@acolhida/core/people'
import { holdsHtml } from '@acolhida/core/questions'
import { inForce } from '@acolhida/core/time'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { useNavigate } from 'react-router'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { relayNow, useNow } from '../../relay-client/clock.ts'
import { clocksAt, startWords } from '../parts/clocks.ts'
import { Notice } from '../parts/notice.tsx'
import { rich, say } from '../parts/say.ts'
import { TermsToRead } from '../parts/terms-to-read.tsx'
import { whatHappensWhen } from '../parts/words.ts'
import { useAsking, useDoor, useSlug } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { answersToSend } from '../visit/sealing.ts'
import { endVisit, fillIn, fillingOf, isQuoted, useVisit, wantedOf } from '../visit/visit.ts'

/** Refusals after which the door is looked at anew. */
const REFRESH = new Set(['answers', 'terms-changed', 'service-off', 'changed', 'code'])

type Field = 'name' | 'email' | 'phone' | 'address'

/** What is agreed, and who asks. Nothing can be sent without agreeing. */
export function TermsStep({ service }: { service: DoorService }) {
  const slug = useSlug()
  const { practice, seal, currency } = useDoor()
  const asking = useAsking(service.id)
  const visit = useVisit()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const filling = fillingOf(visit, service.id)
  const kept = filling.kept!
  const place = service.places.find((place) => place.id === kept.place)
  const clocks = clocksAt(place, visit.zone)
  const now = useNow()
  const visits = place?.kind === 'client'
  const calls = place?.kind === 'phone' && place.whoCalls !== 'client'
  const [wrong, setWrong] = useState<Partial<Record<Field | 'agreed', string>>>({})
  const agreedTo = (fingerprint: string): boolean => filling.agreed.includes(fingerprint)

  /** Keeps the same start once more, and so shows what holds now. */
  const keeping = useMutation({
    mutationFn: () =>
      doorRelay.keep(slug, { ...wantedOf(visit, service), place: kept.place, start: kept.start }),
    onSuccess: (again) => fillIn(service.id, { is: 'kept', kept: again }),
    onError: (error) => {
      if (error instanceof RelayError && !error.unreachable)
        fillIn(service.id, { is: 'refused', problem: error.problem, key: newKey() })
    },
  })
  const sending = useMutation({
    mutationFn: async () => {
      const { phone, ...person } = filling.person
      // What has been sent as a quote has been answered already.
      const answers = isQuoted(visit, service.id) ? {} : await answersToSend(service, filling, asking, seal)
      return doorRelay.send(
        slug,
        {
          ...wantedOf(visit, service),
          answers,
          clock: relayNow(),
          place: kept.place,
          start: kept.start,
          shown: kept.shown,
          ...(visits && filling.address ? { address: filling.address } : {}),
          person: { ...person, zone: visit.zone, language: inForce(), ...(phone ? { phone } : {}) },
          agreed: service.terms.map(({ id, number, fingerprint }) => ({ terms: id, number, fingerprint })),
        },
        filling.sendKey,
      )
    },
    onSuccess: ({ link }) => {
      void navigate(`/${slug}/my/${link}`, { replace: true, state: { sent: true } })
      endVisit(service.id)
    },
    onError: (error) => {
      if (!(error instanceof RelayError)) return
      // Only what may have arrived is sent again under the same key; a refusal is final for this sending.
      if (error.unreachable) return
      fillIn(service.id, { is: 'refused', problem: error.problem, key: newKey() })
      if (error.code === 'not-open') void queries.invalidateQueries({ queryKey: ['openings'] })
      if (REFRESH.has(error.code)) void queries.invalidateQueries({ queryKey: ['door'] })
      if (error.code === 'changed') keeping.mutate()
      if (error.code === 'malformed') {
        const field = /^person\.(name|email|phone)$/.exec(error.problem.where ?? '')?.[1] as Field | undefined
        if (field) setWrong({ [field]: say(FIELD_PROBLEMS[field]) })
      }
    },
  })

  const send = (): void => {
    const { name, email, phone } = filling.person
    const found: typeof wrong = {}
    if (!name.trim()) found.name = say('terms.no-name')
    else if (holdsHtml(name)) found.name = say(FIELD_PROBLEMS.name)
    if (!isMail(email)) found.email = say(FIELD_PROBLEMS.email)
    if (phone && !isPhone(phone)) found.phone = say(FIELD_PROBLEMS.phone)
    if (calls && !phone.trim()) found.phone = say('terms.no-phone')
    if (visits && !filling.address?.trim()) found.address = say(FIELD_PROBLEMS.address)
    const missing = service.terms.find((terms) => !agreedTo(terms.fingerprint))
    if (missing) found.agreed = say('terms.agree-first', { title: missing.title })
    setWrong(found)
    const first = (['name', 'email', 'phone', 'address', 'agreed'] as const).find((field) => found[field])
    if (first)
      document.getElementById(first === 'agreed' ? `agreed-${missing?.id ?? ''}` : `field-${first}`)?.focus()
    else sending.mutate()
  }
  const change = (field: Field, value: string): void => {
    fillIn(
      service.id,
      field === 'address'
        ? { is: 'addressed', address: value }
        : { is: 'person', person: { [field]: value } },
    )
    setWrong(({ [field]: _, ...rest }) => rest)
  }
  const quoteNow = sending.error instanceof RelayError ? sending.error.problem.quote : undefined
  const when = startWords(kept.start, clocks)

  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        send()
      }}
    >
      <h1 tabIndex={-1} className="outline-none">
        {say('terms.title')}
      </h1>
      <div className="mt-4 grid gap-3">
        {service.terms.map((terms) => (
          <TermsToRead
            key={terms.id}
            terms={terms}
            agreed={agreedTo(terms.fingerprint)}
            wrong={wrong.agreed !== undefined}
            onChange={(yes) => {
              fillIn(service.id, { is: 'agreed', fingerprint: terms.fingerprint, yes })
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
      {(sending.error || filling.note) && (
        <div className="mt-4">
          <Notice>
            {sending.error?.message ?? filling.note}
            {quoteNow && (
              <>
                {' '}
                <strong>
                  {say('terms.now', {
                    minutes: quoteNow.minutes,
                    price: quoteNow.price === 0 ? say('terms.free') : money(quoteNow.price, currency),
                  })}
                </strong>
              </>
            )}
          </Notice>
        </div>
      )}
      <div className="note mt-5 bg-sun-soft text-sun-ink empty:hidden lg:hidden">
        {whatHappensWhen(kept, kept.price, clocks, now, false).map((line) => (
          <p key={line}>{line}</p>
        ))}
      </div>
      <button type="submit" className="press press-go mt-5 w-full text-[16px]" disabled={sending.isPending}>
        {sending.isPending
          ? say('terms.sending')
          : say(kept.wordUntil === undefined ? 'terms.book' : 'terms.ask', { when })}
      </button>
      <p className="mt-2 text-[14px] text-soft">
        {rich('terms.private', { name: practice.name.split(' ')[0] ?? practice.name })}
      </p>
    </form>
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
