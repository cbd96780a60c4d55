import { type Terms, versionFingerprint } from '@acolhida/core/terms'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { withTermsVersion } from '../parts/terms-version.ts'

/** What is agreed. A version once published never changes; a new wording is a new version. */
export function TermsPage() {
  const { practice } = useDesk()
  return (
    <SettingsPage title="Terms" line="Nobody gets a booking without agreeing to these.">
      <div className="grid max-w-[760px] gap-5">
        {practice.terms.map((terms) => (
          <OneText key={`${terms.id} ${terms.versions.length}`} terms={terms} />
        ))}
      </div>
    </SettingsPage>
  )
}

function OneText({ terms }: { terms: Terms }) {
  const version = terms.versions.at(-1)!
  const draftName = `acolhida-terms-${terms.id}-${version.number}`
  const stored = localStorage.getItem(draftName)
  const [draft, setDraft] = useState<{ title: string; text: string } | undefined>(
    stored ? (JSON.parse(stored) as { title: string; text: string }) : undefined,
  )
  const type = (next: { title: string; text: string }): void => {
    setDraft(next)
    localStorage.setItem(draftName, JSON.stringify(next))
  }
  const [problem, setProblem] = useState<string>()
  return (
    <section className="sheet p-5">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2>{version.title}</h2>
        <span className="text-[13px] text-soft">
          version {version.number} · fingerprint {versionFingerprint(terms.id, version).slice(0, 8)} …
        </span>
      </div>
      {draft ? (
        <div className="mt-3 grid gap-3">
          <label className="ask" htmlFor={`title-${terms.id}`}>
            Title
          </label>
          <input
            id={`title-${terms.id}`}
            className="field"
            value={draft.title}
            onChange={(event) => type({ ...draft, title: event.target.value })}
          />
          <label className="ask" htmlFor={`text-${terms.id}`}>
            Text
          </label>
          <textarea
            id={`text-${terms.id}`}
            className="field min-h-64"
            value={draft.text}
            onChange={(event) => type({ ...draft, text: event.target.value })}
          />
          {problem && (
            <p role="alert" className="font-semibold text-clay">
              {problem}
            </p>
          )}
          <div className="flex gap-2">
            <ActButton
              className="press press-go"
              onAct={() =>
                changePractice(db, 'a version of the terms', (p) =>
                  withTermsVersion(p, terms.id, draft.title.trim(), draft.text),
                )
                  .then(() => localStorage.removeItem(draftName))
                  .catch((error: Error) => setProblem(error.message))
              }
            >
              Publish as version {version.number + 1}
            </ActButton>
            <button
              type="button"
              className="press press-quiet"
              onClick={() => {
                localStorage.removeItem(draftName)
                setDraft(undefined)
              }}
            >
              Leave it as it is
            </button>
          </div>
        </div>
      ) : (
        <>
          <p className="mt-3 whitespace-pre-line">{version.text}</p>
          <button
            type="button"
            className="press mt-4"
            onClick={() => type({ title: version.title, text: version.text })}
          >
            Write a new version
          </button>
        </>
      )}
    </section>
  )
}
