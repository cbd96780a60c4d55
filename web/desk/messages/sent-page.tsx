import {
  aroundService,
  beginSequence,
  checkPractice,
  type Practice,
  READY,
  type Sequence,
  withBegun,
  withMessaging,
  withNewStep,
  withoutSequence,
  withPause,
  withSequence,
} from '@acolhida/core/practice'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { Tick } from '../parts/tick.tsx'
import { withService } from '../service/with-service.ts'
import { Fields } from '../settings/fields.tsx'
import { Alerts } from './alerts.tsx'
import { TO_CLIENTS, TO_ME } from './how-settings.ts'
import { newId, StepEdit } from './step-edit.tsx'
import { TimeLine } from './time-line.tsx'

/** What is sent around each booking, and when: each sequence on one line, and one message of it to be written. */
export function SentPage() {
  const { practice } = useDesk()
  const [search, setSearch] = useSearchParams()
  const sequences = practice.sequences ?? []
  const sequence = sequences.find(({ id }) => id === search.get('sequence')) ?? sequences[0]
  const choose = (id: string): void => setSearch({ sequence: id }, { replace: true })
  const { messaging = {} } = practice
  const change = (p: Practice, to: Parameters<typeof withMessaging>[1]): Practice => withMessaging(p, to)
  return (
    <SettingsPage
      title="What is sent, and when"
      line="Around every booking, by mail and by text. Receipts and confirmations always go; the rest is yours."
    >
      <div className="grid max-w-[1160px] gap-5">
        <div className="flex flex-wrap items-center justify-between gap-3">
          <nav aria-label="Sequences" className="flex flex-wrap gap-2">
            {sequences.map(({ id, name }) => (
              <button
                key={id}
                type="button"
                aria-pressed={id === sequence?.id}
                className={`press ${id === sequence?.id ? 'bg-leaf-soft' : 'press-quiet'}`}
                onClick={() => choose(id)}
              >
                {name}
              </button>
            ))}
          </nav>
          <span className="flex flex-wrap gap-2.5">
            <Link className="way self-center" to="/outbox">
              See what will go
            </Link>
            <Link className="way self-center" to="/words">
              Every sentence, and other languages
            </Link>
          </span>
        </div>
        {sequence ? (
          <OneSequence key={sequence.id} practice={practice} sequence={sequence} />
        ) : (
          <p className="sheet p-5">
            Nothing goes by itself yet but receipts and confirmations. Begin with one of these; everything in
            it can be changed.
          </p>
        )}
        <Beginnings practice={practice} onMade={choose} />
        <div className="grid gap-5 lg:grid-cols-2">
          <section className="sheet grid h-fit gap-3 p-5" aria-label="To clients">
            <h2>To clients</h2>
            <Switch
              label="All of it rests: nothing goes but what tells how a booking stands"
              on={messaging.paused === true}
              onChange={(on) =>
                changePractice(db, 'whether messages rest', (p) => withPause(p, on, relayNow()))
              }
            />
            <Fields
              settings={TO_CLIENTS}
              of={messaging}
              practice={practice}
              change={change}
              faults={checkPractice(practice)}
              path="messaging"
            />
          </section>
          <section className="sheet grid h-fit gap-4 p-5" aria-label="To me">
            <h2>To me</h2>
            <Fields settings={TO_ME} of={messaging} practice={practice} change={change} />
            <Alerts practice={practice} />
          </section>
        </div>
      </div>
    </SettingsPage>
  )
}

function OneSequence({ practice, sequence }: { practice: Practice; sequence: Sequence }) {
  const [chosen, setChosen] = useState(sequence.steps[0]?.id)
  const step = sequence.steps.find(({ id }) => id === chosen)
  const add = (): Promise<void> => {
    const made = { sequence: sequence.id, step: newId('step'), text: newId('text'), now: relayNow() }
    setChosen(made.step)
    return changePractice(db, 'a message added', (p) => withNewStep(p, made))
  }
  return (
    <section aria-label={sequence.name}>
      <div className="sheet p-5">
        <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
          <div className="w-64">
            <SavedField
              label="Name of this sequence"
              what="the name of a sequence"
              value={sequence.name}
              change={(p, typed) => withSequence(p, sequence.id, (one) => ({ ...one, name: typed.trim() }))}
            />
          </div>
          <div className="flex flex-wrap gap-2.5">
            <ActButton onAct={add}>Add a message</ActButton>
            <ActButton
              className="press press-no"
              onAct={() =>
                changePractice(db, `${sequence.name} removed`, (p) =>
                  withoutSequence(p, sequence.id, relayNow()),
                )
              }
            >
              Remove this sequence
            </ActButton>
          </div>
        </div>
        <TimeLine practice={practice} sequence={sequence} chosen={chosen} onChoose={setChosen} />
        <fieldset className="mt-3 flex flex-wrap gap-x-6 border-t border-line pt-3">
          <legend className="sr-only">Around which services</legend>
          {practice.services.map((service) => (
            <Tick
              key={service.id}
              label={service.name}
              on={service.sequence === sequence.id}
              onChange={(on) =>
                changePractice(db, 'what is sent around a service', (p) =>
                  withService(p, service.id, (one) =>
                    aroundService(one, on ? sequence.id : undefined, relayNow()),
                  ),
                )
              }
            />
          ))}
        </fieldset>
      </div>
      {step && (
        <StepEdit
          key={step.id}
          practice={practice}
          sequence={sequence}
          step={step}
          onGone={() => setChosen(sequence.steps.find(({ id }) => id !== step.id)?.id)}
        />
      )}
    </section>
  )
}

/** Sequences to begin with. */
function Beginnings({ practice, onMade }: { practice: Practice; onMade: (id: string) => void }) {
  const make = async (key: (typeof READY)[number]['key']): Promise<void> => {
    const begun = beginSequence(key, {
      texts: practice.texts ?? [],
      ids: () => newId('s'),
      free: practice.services.every(({ price }) => price.kind === 'free'),
    })
    await changePractice(db, `${begun.sequence.name} begun`, (p) => withBegun(p, begun))
    onMade(begun.sequence.id)
  }
  return (
    <section aria-label="Begin another">
      <h2 className="mb-2 text-[19px]">Begin another</h2>
      <ul className="grid gap-3 md:grid-cols-3">
        {READY.map(({ key, name, about }) => (
          <li key={key} className="sheet grid content-between gap-3 p-4">
            <p>
              <b className="block">{name}</b>
              <span className="text-[14px] text-soft">{about}</span>
            </p>
            <ActButton className="press justify-self-start" onAct={() => make(key)}>
              Begin with “{name}”
            </ActButton>
          </li>
        ))}
      </ul>
    </section>
  )
}
