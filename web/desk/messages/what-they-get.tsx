import { DOOR_TOKEN, LINK_TOKEN, languageFor, letterFor, outlookOf } from '@acolhida/core/messages'
import {
  aroundService,
  beginSequence,
  languagesOf,
  type Practice,
  READY,
  type Service,
  withBegun,
} from '@acolhida/core/practice'
import { languageName, moment } from '@acolhida/core/time'
import { useState } from 'react'
import { Link } from 'react-router'
import { relayNow, useMinute } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { asOptions, PlainChoice } from '../parts/plain-field.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { homeZone } from '../parts/words.ts'
import { withService } from '../service/with-service.ts'
import { exampleBooking, somebody } from './example.ts'
import { newId } from './step-edit.tsx'
import { stepTitle } from './titles.ts'

/** What is sent around a booking of a service: which sequence, and a client's whole way as they will read it. */
export function WhatTheyGet({ practice, service }: { practice: Practice; service: Service }) {
  const now = useMinute()
  const languages = languagesOf(practice)
  const [language, setLanguage] = useState(languages[0] ?? 'en')
  const booking = exampleBooking(practice, service, somebody(practice, language), now)
  const where = homeZone(practice)
  const asked = { ...booking, status: 'requested' as const }
  const first = [
    { which: { step: 'asked' as const, anchor: 1 }, at: booking.asked.at, of: asked },
    { which: { step: 'confirmation' as const, anchor: booking.seq }, at: now, of: booking },
  ]
  const coming = outlookOf(booking, practice, now)
    .filter(({ to, is, step }) => to === 'client' && is === 'planned' && step !== 'confirmation')
    .map(({ at, ...which }) => ({ which, at, of: booking }))
  const make = (key: (typeof READY)[number]['key']): Promise<void> => {
    const begun = beginSequence(key, {
      texts: practice.texts ?? [],
      ids: () => newId('s'),
      free: service.price.kind === 'free',
    })
    return changePractice(db, `${begun.sequence.name} begun`, (p) =>
      withService(withBegun(p, begun), service.id, (one) =>
        aroundService(one, begun.sequence.id, relayNow()),
      ),
    )
  }
  return (
    <section className="sheet grid gap-3 p-5" aria-label="What each booking gets">
      <h2>What each booking gets</h2>
      <SavedField
        label="Sequence"
        what="what is sent around a service"
        value={service.sequence ?? ''}
        options={[
          { value: '', name: 'Receipt and confirmation only' },
          ...asOptions(practice.sequences ?? []),
        ]}
        change={(p, typed) =>
          withService(p, service.id, (one) => aroundService(one, typed || undefined, relayNow()))
        }
      />
      {service.sequence === undefined && (
        <p className="flex flex-wrap items-center gap-2 text-[14px]">
          Or begin one here:
          {READY.map(({ key, name }) => (
            <ActButton key={key} className="press press-quiet" onAct={() => make(key)}>
              {name}
            </ActButton>
          ))}
        </p>
      )}
      {languages.length > 1 && (
        <PlainChoice
          label="Read by somebody who reads"
          value={language}
          options={languages.map((value) => ({ value, name: languageName(value) }))}
          onChange={setLanguage}
        />
      )}
      <ol className="grid gap-1.5 text-[14px]">
        {[...first, ...coming].map(({ which, at, of }) => {
          const letter = letterFor(practice, of, which, at)
          return letter ? (
            <li key={`${which.step} ${which.anchor}`}>
              <details>
                <summary className="cursor-pointer">
                  <b>{stepTitle(practice, which.step)}</b>
                  {letter.channel === 'text' ? ' (text)' : ''}{' '}
                  <span className="text-soft">{moment(at, where)}</span>
                </summary>
                {letter.subject && <p className="mt-1 font-semibold wrap-anywhere">{letter.subject}</p>}
                <p
                  className="mt-1 rounded-lg bg-shade p-3 whitespace-pre-line wrap-anywhere"
                  lang={languageFor(practice, of.asked.person)}
                >
                  {letter.text.replaceAll(LINK_TOKEN, 'https://…').replaceAll(DOOR_TOKEN, 'https://…')}
                </p>
              </details>
            </li>
          ) : null
        })}
      </ol>
      <Link
        className="way text-[14px]"
        to={`/sent${service.sequence ? `?sequence=${service.sequence}` : ''}`}
      >
        Write what is sent, and when
      </Link>
    </section>
  )
}
