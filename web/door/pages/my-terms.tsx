import type { DoorTerms, LinkView, ToldAgreement } from '@acolhida/core/contract'
import { shownAsText } from '@acolhida/core/terms'
import { useState } from 'react'
import { ShownTermsText } from '../../terms/shown-terms.tsx'
import { clocksNamed, momentAt } from '../parts/clocks.ts'
import { say } from '../parts/say.ts'
import { TermsToRead } from '../parts/terms-to-read.tsx'
import type { LinkAct } from '../visit/relay.ts'

/** What is still to be agreed to before the session: read, ticked, and one's name typed. */
export function AgreeNow({
  view,
  terms,
  act,
  busy,
}: {
  view: LinkView
  terms: DoorTerms[]
  act: (act: LinkAct) => void
  busy: boolean
}) {
  const [read, setRead] = useState<ReadonlySet<string>>(new Set())
  const [name, setName] = useState(view.name)
  const [wrong, setWrong] = useState<string>()
  const agree = (): void => {
    const missing = terms.find(({ fingerprint }) => !read.has(fingerprint))
    if (missing) {
      setWrong(say('terms.agree-first', { title: missing.title }))
      document.getElementById(`agreed-${missing.id}`)?.focus()
    } else if (!name.trim()) {
      setWrong(say('terms.no-name'))
      document.getElementById('agree-name')?.focus()
    } else {
      const agreed = terms.map(({ id, number, fingerprint }) => ({ terms: id, number, fingerprint }))
      act({ do: 'agree', name: name.trim(), agreed })
    }
  }
  return (
    <section className="mt-5" aria-label={say('my.agree')}>
      <h2>{say('my.agree')}</h2>
      <p className="mt-1 text-soft">
        {say(view.unagreed === 'may-not' ? 'my.agree-must' : 'my.agree-please')}
      </p>
      <div className="mt-3 grid gap-3">
        {terms.map((one) => (
          <TermsToRead
            key={one.id}
            terms={one}
            agreed={read.has(one.fingerprint)}
            wrong={wrong !== undefined}
            onChange={(yes) => {
              setWrong(undefined)
              setRead((before) => {
                const next = new Set(before)
                if (yes) next.add(one.fingerprint)
                else next.delete(one.fingerprint)
                return next
              })
            }}
          />
        ))}
        <label className="ask" htmlFor="agree-name">
          {say('terms.name')}
          <input
            id="agree-name"
            className="field mt-1"
            autoComplete="name"
            value={name}
            onChange={(event) => {
              setName(event.target.value)
              setWrong(undefined)
            }}
          />
        </label>
        {wrong && (
          <p id="wrong-agreed" role="alert" className="font-semibold text-clay">
            {wrong}
          </p>
        )}
        <button type="button" className="press press-go justify-self-start" disabled={busy} onClick={agree}>
          {say('my.agree-send')}
        </button>
      </div>
    </section>
  )
}

/** Everything that proves an agreement, as a plain text to keep. */
const asFile = (view: LinkView, agreement: ToldAgreement, when: string): string =>
  [
    `${agreement.title} (${agreement.number})`,
    `${view.practitioner} · ${view.service}`,
    `${when} · ${agreement.name}`,
    `SHA-256 ${agreement.fingerprint}`,
    `№ ${agreement.print}`,
    agreement.shown === undefined ? '' : shownAsText(agreement.shown),
  ]
    .filter(Boolean)
    .join('\n\n')

/** What was agreed to, to be read again and kept as a file. */
export function WasAgreed({ view }: { view: LinkView }) {
  const clocks = clocksNamed(view.clocks)
  if (view.agreements.length === 0) return null
  return (
    <section className="sheet mt-4 p-5">
      <h2>{say('my.agreed')}</h2>
      {view.agreements.map((agreement) => {
        const when = momentAt(agreement.at, clocks)
        const text = asFile(view, agreement, when)
        return (
          <details key={agreement.print} className="mt-2">
            <summary className="cursor-pointer font-semibold">
              {say('my.agreed-to', { title: agreement.title, number: agreement.number, when })}
            </summary>
            {agreement.shown !== undefined && (
              <div className="mt-2">
                <ShownTermsText shown={agreement.shown} more={say('terms.document')} />
              </div>
            )}
            <p className="mt-2 text-[13px] text-soft wrap-anywhere">
              {say('my.agreed-proof', { name: agreement.name, print: agreement.print })}
            </p>
            <a
              className="way mt-1 inline-block"
              download={`${agreement.title}.txt`}
              href={`data:text/plain;charset=utf-8,${encodeURIComponent(text)}`}
            >
              {say('my.agreed-keep')}
            </a>
          </details>
        )
      })}
    </section>
  )
}
