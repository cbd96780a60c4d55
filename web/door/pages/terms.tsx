import type { DoorService } from '@acolhida/core/door'
import { isMail } from '@acolhida/core/people'
import { holdsHtml } from '@acolhida/core/questions'
import { dateAt, shortDate, timeAt, zone } from '@acolhida/core/time'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { useNavigate } from 'react-router'
import { newKey, RelayError } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { Notice } from '../parts/notice.tsx'
import { useAsking, useDoor, useSlug } from '../visit/follow.ts'
import { relay } from '../visit/relay.ts'
import { answersToSend } from '../visit/sealing.ts'
import { changeDraft, draftOf, endVisit, isQuoted, useVisit, wantedOf } from '../visit/visit.ts'
import type { Step } from './flow.tsx'

type Field = 'name' | 'email' | 'phone' | 'address'

/** What is agreed, and who asks. Nothing can be sent without agreeing. */
export function Terms({
  service,
  go,
  told,
}: {
  service: DoorService
  go: (step: Step, message?: string) => void
  told?: string | undefined
}) {
  const slug = useSlug()
  const { practice, seal } = useDoor()
  const asking = useAsking(service.id)
  const visit = useVisit()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const draft = draftOf(visit, service.id)
  const kept = draft.kept!
  const where = zone(visit.zone)
  const visits = service.places.find((one) => one.id === kept.place)?.kind === 'client'
  const [wrong, setWrong] = useState<Partial<Record<Field | 'agreed', string>>>({})
  const agreedTo = (fingerprint: string): boolean => draft.agreed.includes(fingerprint)

  const sending = useMutation({
    mutationFn: async () => {
      const { phone, ...person } = draft.person
      // What has been sent as a quote has been answered already.
      const answers = isQuoted(visit, service.id) ? {} : await answersToSend(service, draft, asking, seal)
      return relay.send(
        slug,
        {
          ...wantedOf(visit, service),
          answers,
          clock: relayNow(),
          place: kept.place,
          start: kept.start,
          ...(visits && draft.address ? { address: draft.address } : {}),
          person: { ...person, zone: visit.zone, ...(phone ? { phone } : {}) },
          agreed: service.terms.map(({ id, number, fingerprint }) => ({ terms: id, number, fingerprint })),
        },
        draft.sendKey,
      )
    },
    onSuccess: ({ link }) => {
      navigate(`/${slug}/my/${link}`, { replace: true, state: { sent: true } })
      endVisit(service.id)
    },
    onError: (error) => {
      if (!(error instanceof RelayError)) return
      // A refusal is final for this sending; only what may have arrived is sent again under the same key.
      if (!error.unreachable) changeDraft(service.id, { sendKey: newKey() })
      if (error.code === 'not-open') {
        queries.invalidateQueries({ queryKey: ['openings'] })
        changeDraft(service.id, { kept: undefined as never })
        go('time', error.message)
      } else if (error.code === 'answers' || error.code === 'closed') {
        changeDraft(service.id, { reading: undefined as never })
        go('questions')
      } else if (error.code === 'terms-changed' || error.code === 'service-off') {
        queries.invalidateQueries({ queryKey: ['door'] })
      } else if (error.code === 'malformed') {
        const field = /^person\.(name|email|phone)$/.exec(error.problem.where ?? '')?.[1] as Field | undefined
        if (field) setWrong({ [field]: FIELD_PROBLEMS[field] })
      }
    },
  })

  const send = (): void => {
    const { name, email, phone } = draft.person
    const found: typeof wrong = {}
    if (!name.trim()) found.name = 'Please write your name.'
    else if (holdsHtml(name)) found.name = FIELD_PROBLEMS.name
    if (!isMail(email)) found.email = FIELD_PROBLEMS.email
    if (phone && !/^[0-9+()\-.\s/]*$/.test(phone)) found.phone = FIELD_PROBLEMS.phone
    if (visits && !draft.address?.trim()) found.address = FIELD_PROBLEMS.address
    const missing = service.terms.find((terms) => !agreedTo(terms.fingerprint))
    if (missing) found.agreed = `Please agree to “${missing.title}” first.`
    setWrong(found)
    const first = (['name', 'email', 'phone', 'address', 'agreed'] as const).find((field) => found[field])
    if (first) document.getElementById(`field-${first}`)?.focus()
    else sending.mutate()
  }
  const change = (field: Field, value: string): void => {
    changeDraft(service.id, ({ person }) =>
      field === 'address' ? { address: value } : { person: { ...person, [field]: value } },
    )
    setWrong(({ [field]: _, ...rest }) => rest)
  }
  const when = `${shortDate(dateAt(where, kept.start))}, ${timeAt(where, kept.start)}`

  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        send()
      }}
    >
      <h1>What we agree</h1>
      <div className="mt-4 grid gap-3">
        {service.terms.map((terms) => (
          <article key={terms.id} className="sheet p-4">
            <h2>
              {terms.title}{' '}
              <span className="font-sans text-[13px] font-normal text-soft">version {terms.number}</span>
            </h2>
            <section
              className="mt-2 max-h-56 overflow-y-auto pr-2 whitespace-pre-line"
              // biome-ignore lint/a11y/noNoninteractiveTabindex: a long text must be scrollable by keyboard
              tabIndex={0}
              aria-label={`${terms.title}, text`}
            >
              {terms.text}
            </section>
            <label className="mt-2 flex min-h-[44px] cursor-pointer items-center gap-3 font-semibold">
              <input
                id="field-agreed"
                type="checkbox"
                className="checkbox checkbox-primary"
                checked={agreedTo(terms.fingerprint)}
                aria-describedby={wrong.agreed ? 'wrong-agreed' : undefined}
                onChange={(event) => {
                  const { checked } = event.target
                  changeDraft(service.id, ({ agreed }) => ({
                    agreed: checked
                      ? [...agreed, terms.fingerprint]
                      : agreed.filter((one) => one !== terms.fingerprint),
                  }))
                  setWrong(({ agreed: _, ...rest }) => rest)
                }}
              />
              I agree to {terms.title}
            </label>
          </article>
        ))}
      </div>
      {wrong.agreed && (
        <p id="wrong-agreed" className="mt-2 font-semibold text-clay">
          {wrong.agreed}
        </p>
      )}
      <h2 className="mt-6 mb-2">Who is coming</h2>
      <div className="sheet grid gap-4 p-4 sm:grid-cols-2">
        <TextField
          field="name"
          label="Your name"
          autoComplete="name"
          value={draft.person.name}
          problem={wrong.name}
          onChange={change}
        />
        <TextField
          field="email"
          label="Your mail address"
          type="email"
          autoComplete="email"
          value={draft.person.email}
          problem={wrong.email}
          onChange={change}
        />
        <TextField
          field="phone"
          label="Your phone"
          optional
          type="tel"
          autoComplete="tel"
          value={draft.person.phone}
          problem={wrong.phone}
          onChange={change}
        />
        {visits && (
          <TextField
            field="address"
            label="Where I should come"
            autoComplete="street-address"
            value={draft.address ?? ''}
            problem={wrong.address}
            onChange={change}
          />
        )}
      </div>
      {(sending.error || told) && (
        <div className="mt-4">
          <Notice>{sending.error?.message ?? told}</Notice>
        </div>
      )}
      <button type="submit" className="press press-go mt-5 w-full text-[16px]" disabled={sending.isPending}>
        {sending.isPending ? 'Sending …' : kept.wordUntil === undefined ? `Book ${when}` : `Ask for ${when}`}
      </button>
      <p className="mt-2 text-[14px] text-soft">
        You get a mail with a private link. {practice.name.split(' ')[0]} sees your answers, and nobody else
        does.
      </p>
    </form>
  )
}

const FIELD_PROBLEMS: Record<Field, string> = {
  name: 'Please write your name on one line, without HTML.',
  email: 'This is not a mail address; write it as name@example.org.',
  phone: 'This is not a phone number; write it as +351 239 555 0100.',
  address: 'Please write street, number and town.',
}

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
        {optional && <span className="ml-2 text-[13px] font-normal text-soft">if you like</span>}
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
