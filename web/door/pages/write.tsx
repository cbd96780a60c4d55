import { isMail, nameProblem } from '@acolhida/core/people'
import { holdsHtml, openAnswers } from '@acolhida/core/questions'
import { inForce } from '@acolhida/core/time'
import { useMutation } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { newKey } from '../../relay-client/client.ts'
import { Notice } from '../parts/notice.tsx'
import { say } from '../parts/say.ts'
import { useDoor } from '../visit/follow.ts'
import { doorRelay } from '../visit/relay.ts'
import { fillingOf, useVisit } from '../visit/visit.ts'

const NAME = 'acolhida-message'
const stored = (): { name: string; email: string; message: string } => {
  const empty = { name: '', email: '', message: '' }
  try {
    return { ...empty, ...(JSON.parse(localStorage.getItem(NAME) ?? '{}') as object) }
  } catch {
    return empty
  }
}

/** A message instead of a booking. */
export function Write() {
  const { slug, practice, services } = useDoor()
  const visit = useVisit()
  const [search] = useSearchParams()
  const about = services.find((service) => service.id === search.get('about'))
  const [message, setMessage] = useState(stored)
  const [key] = useState(newKey)
  const [wrong, setWrong] = useState<string>()
  const id = useId()

  const sending = useMutation({
    mutationFn: () =>
      doorRelay.enquire(
        slug,
        {
          visit: visit.id,
          ...message,
          language: inForce(),
          ...(about
            ? {
                service: about.id,
                answers: openAnswers(
                  about.questionnaire?.questions ?? [],
                  fillingOf(visit, about.id).answers,
                ),
              }
            : {}),
        },
        key,
      ),
    onSuccess: () => localStorage.removeItem(NAME),
  })
  const change = (part: Partial<typeof message>): void => {
    const next = { ...message, ...part }
    setMessage(next)
    setWrong(undefined)
    try {
      localStorage.setItem(NAME, JSON.stringify(next))
    } catch {
      // Without storage it lives as long as the page.
    }
  }
  const send = (): void => {
    if (!message.name.trim()) setWrong(say('write.no-name'))
    else if (holdsHtml(message.name) || nameProblem(message.name)) setWrong(say('write.bad-name'))
    else if (!isMail(message.email)) setWrong(say('write.no-mail'))
    else if (!message.message.trim()) setWrong(say('write.no-message'))
    else sending.mutate()
  }

  if (sending.isSuccess) {
    return (
      <section className="max-w-[640px]">
        <title>{say('write.thanks')}</title>
        <h1 ref={(head) => head?.focus()} tabIndex={-1} className="outline-none">
          {say('write.thanks')}
        </h1>
        <p className="sheet mt-4 p-5">
          {say('write.arrived', { name: practice.name, email: message.email })}
        </p>
        <p className="mt-4">
          <Link className="way" to={`/${slug}`}>
            {say('write.back')}
          </Link>
        </p>
      </section>
    )
  }
  return (
    <form
      noValidate
      className="max-w-[640px]"
      onSubmit={(event) => {
        event.preventDefault()
        send()
      }}
    >
      <title>{say('write.title', { name: practice.name })}</title>
      <h1>{say('write.title', { name: practice.name })}</h1>
      {about && <p className="mt-1 text-soft">{say('write.about', { service: about.name })}</p>}
      <div className="sheet mt-4 grid gap-4 p-4">
        <div>
          <label className="ask" htmlFor={`${id}-message`}>
            {say('write.message')}
          </label>
          <textarea
            id={`${id}-message`}
            className="field mt-1 min-h-36"
            maxLength={10_000}
            value={message.message}
            onChange={(e) => change({ message: e.target.value })}
          />
        </div>
        <div className="grid gap-4 sm:grid-cols-2">
          <div>
            <label className="ask" htmlFor={`${id}-name`}>
              {say('terms.name')}
            </label>
            <input
              id={`${id}-name`}
              className="field mt-1"
              autoComplete="name"
              value={message.name}
              onChange={(e) => change({ name: e.target.value })}
            />
          </div>
          <div>
            <label className="ask" htmlFor={`${id}-email`}>
              {say('terms.mail')}
            </label>
            <input
              id={`${id}-email`}
              className="field mt-1"
              type="email"
              autoComplete="email"
              value={message.email}
              onChange={(e) => change({ email: e.target.value })}
            />
          </div>
        </div>
      </div>
      {(wrong || sending.error) && (
        <div className="mt-4">
          <Notice>{wrong ?? sending.error?.message}</Notice>
        </div>
      )}
      <button type="submit" className="press press-go mt-4" disabled={sending.isPending}>
        {say(sending.isPending ? 'terms.sending' : 'write.send')}
      </button>
    </form>
  )
}
