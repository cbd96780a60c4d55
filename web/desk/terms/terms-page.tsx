import { type Practice, termsValues } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import {
  type Again,
  asClauses,
  shownTerms,
  type Terms,
  type TermsVersion,
  versionFingerprint,
} from '@acolhida/core/terms'
import { useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { ShownTermsText } from '../../terms/shown-terms.tsx'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { PlainChoice } from '../parts/plain-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Switch } from '../parts/switch.tsx'
import { Tick } from '../parts/tick.tsx'
import { idsOf } from '../service/make.tsx'
import { type Draft, withPublished, withSeparate, withTermsOf } from './change.ts'
import { OtherLanguages } from './other-languages.tsx'
import { ProveAll } from './prove-all.tsx'
import { useDraft } from './use-draft.ts'
import { VersionDifferences, versionBefore } from './versions.tsx'
import { WriteText } from './write-text.tsx'

/** What is agreed. A version once published never changes; a new wording is a new version. */
export function TermsPage() {
  const { practice } = useDesk()
  const add = (p: Practice): Practice => {
    const id = freeId(idsOf(p.terms), 'terms')
    const first: TermsVersion = { number: 1, title: 'New terms', text: 'What we agree on.' }
    return { ...p, terms: [...p.terms, { id, versions: [first], separate: true }] }
  }
  return (
    <SettingsPage title="Terms" line="Nobody gets a booking without agreeing to those of its service.">
      <div className="grid max-w-[820px] gap-5">
        {practice.terms.map((terms) => (
          <OneText key={`${terms.id} ${terms.versions.length}`} practice={practice} terms={terms} />
        ))}
        <span>
          <ActButton onAct={() => changePractice(db, 'a new text', add)}>Add a text</ActButton>
        </span>
        <ProveAll practice={practice} />
        <section className="sheet p-5">
          <h2>Without agreement</h2>
          <p className="mt-1 text-[14px] text-soft">
            Somebody you book in by hand, and those of whom a new version asks it, agree through their link.
          </p>
          <Switch
            label="A session does not take place before its client has agreed"
            on={practice.unagreed === 'may-not'}
            onChange={(on) =>
              changePractice(db, 'sessions without agreement', ({ unagreed: _, ...p }) =>
                on ? { ...p, unagreed: 'may-not' } : p,
              )
            }
          />
        </section>
      </div>
    </SettingsPage>
  )
}

const AGAIN: readonly { value: Again; name: string }[] = [
  { value: 'next', name: 'Everyone, when they next book' },
  { value: 'newcomers', name: 'Only newcomers' },
  { value: 'before', name: 'Everyone, before their next session' },
]

function OneText({ practice, terms }: { practice: Practice; terms: Terms }) {
  const latest = terms.versions.at(-1)!
  const [number, setNumber] = useState(latest.number)
  const version = terms.versions.find((one) => one.number === number) ?? latest
  const [comparing, setComparing] = useState(false)
  const [draft, type] = useDraft<Draft>(`acolhida-terms-${terms.id}-${latest.number}`, {
    ...{ title: '', document: '', again: 'next' },
  })
  const services = practice.services.filter((service) => service.terms.includes(terms.id))
  const sample = services[0] ?? practice.services[0]
  const earlier = versionBefore(terms, version.number)
  return (
    <section className="sheet p-5">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2>{version.title}</h2>
        <span className="text-[13px] text-soft">
          version {version.number} · fingerprint {versionFingerprint(terms.id, version).slice(0, 8)} …
        </span>
      </div>
      {draft ? (
        <Writing
          practice={practice}
          terms={terms}
          draft={draft}
          type={type}
          services={services}
          latest={latest}
        />
      ) : (
        <>
          <div className="mt-3">
            {comparing && earlier ? (
              <VersionDifferences before={earlier} after={version} />
            ) : (
              <ShownTermsText
                shown={shownTerms(version, sample ? termsValues(practice, sample) : {})}
                more="The longer document"
              />
            )}
          </div>
          <div className="mt-4 flex flex-wrap items-end gap-2">
            <button
              type="button"
              className="press"
              onClick={() =>
                type({
                  title: latest.title,
                  clauses: asClauses(latest),
                  document: latest.document ?? '',
                  again: 'next',
                })
              }
            >
              Write a new version<span className="sr-only">: {latest.title}</span>
            </button>
            {terms.versions.length > 1 && (
              <label className="text-[14px]">
                <span className="sr-only">Which version is shown</span>
                <select
                  className="field"
                  value={version.number}
                  onChange={(event) => setNumber(Number(event.target.value))}
                >
                  {terms.versions.map((one) => (
                    <option key={one.number} value={one.number}>
                      Version {one.number}
                      {one === latest ? ', in force' : ''}
                    </option>
                  ))}
                </select>
              </label>
            )}
            {earlier && (
              <button
                type="button"
                className="press press-quiet"
                aria-pressed={comparing}
                onClick={() => setComparing((now) => !now)}
              >
                {comparing ? 'Show the text' : `What differs from version ${earlier.number}`}
              </button>
            )}
          </div>
          <OtherLanguages practice={practice} terms={terms} services={services} />
          <WhoseTerms practice={practice} terms={terms} />
        </>
      )}
    </section>
  )
}

function Writing({
  practice,
  terms,
  draft,
  type,
  services,
  latest,
}: {
  practice: Practice
  terms: Terms
  draft: Draft
  type: (draft: Draft | undefined) => void
  services: Practice['services']
  latest: TermsVersion
}) {
  const act = useAct()
  const next: TermsVersion = {
    number: latest.number + 1,
    title: draft.title,
    text: '',
    clauses: draft.clauses,
    ...(draft.document ? { document: draft.document } : {}),
  }
  const publish = async (): Promise<void> => {
    await changePractice(db, `version ${next.number} of the terms`, (p) =>
      withPublished(p, terms.id, draft, relayNow()),
    )
    type(undefined)
  }
  return (
    <div className="mt-3 grid gap-4">
      <WriteText practice={practice} services={services} draft={draft} type={type} />
      <details>
        <summary className="way cursor-pointer">What differs from version {latest.number}</summary>
        <div className="mt-2">
          <VersionDifferences before={latest} after={next} />
        </div>
      </details>
      <PlainChoice
        label="Who must agree to it"
        value={draft.again}
        options={AGAIN}
        onChange={(again) => type({ ...draft, again: again as Again })}
      />
      {draft.again === 'before' && (
        <p className="note bg-sun-soft text-sun-ink">
          Whoever has something booked is written to, and agrees through their link.
        </p>
      )}
      <ProblemNote of={act} className="" />
      <div className="flex flex-wrap gap-2">
        <button type="button" className="press press-go" onClick={() => act.run(publish)}>
          Publish as version {next.number}
        </button>
        <button type="button" className="press press-quiet" onClick={() => type(undefined)}>
          Leave it as it is
        </button>
      </div>
    </div>
  )
}

/** Who agrees to it: whoever books some services, or those who are asked to sign it. */
function WhoseTerms({ practice, terms }: { practice: Practice; terms: Terms }) {
  return (
    <fieldset className="mt-4 border-t border-line pt-3">
      <legend className="sr-only">Who agrees to {terms.versions.at(-1)?.title}</legend>
      <Switch
        label="Signed by itself, by those I ask to: a contract, a waiver"
        on={terms.separate ?? false}
        onChange={(on) => changePractice(db, 'who agrees', (p) => withSeparate(p, terms.id, on))}
      />
      {!terms.separate && (
        <div className="grid gap-x-4 sm:grid-cols-2">
          {practice.services.map((service) => (
            <Tick
              key={service.id}
              label={service.name}
              on={service.terms.includes(terms.id)}
              onChange={(on) =>
                changePractice(db, 'who agrees', (p) => withTermsOf(p, service.id, terms.id, on))
              }
            />
          ))}
        </div>
      )}
    </fieldset>
  )
}
