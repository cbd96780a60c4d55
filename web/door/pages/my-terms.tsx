import type { DoorTerms, LinkView, ToldAgreement } from '@acolhida/core/contract'
import { shownAsText } from '@acolhida/core/terms'
import { useState } from 'react'
import { ShownTermsText } from '../../terms/shown-terms.tsx'
import { useAgreeing } from '../parts/agreeing.tsx'
import { clocksNamed, momentAt } from '../parts/clocks.ts'
import { say } from '../parts/say.ts'
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
  const agreeing = useAgreeing(terms)
  const [name, setName] = useState(view.as === 'comes' ? (view.comes ?? '') : view.name)
  const agree = (): void => {
    const agreed = agreeing.agreed()
    if (!agreed) return
    if (name.trim()) act({ do: 'agree', name: name.trim(), agreed })
    else {
      agreeing.say(say('terms.no-name'))
      document.getElementById('agree-name')?.focus()
    }
  }
  return (
    <section className="mt-5" aria-label={say('my.agree')}>
      <h2>{say('my.agree')}</h2>
      <p className="mt-1 text-soft">
        {say(view.unagreed === 'may-not' ? 'my.agree-must' : 'my.agree-please')}
      </p>
      <div className="mt-3 grid gap-3">
        {agreeing.texts}
        <label className="ask" htmlFor="agree-name">
          {say('terms.name')}
          <input
            id="agree-name"
            className="field mt-1"
            autoComplete="name"
            value={name}
            onChange={(event) => {
              setName(event.target.value)
              agreeing.say(undefined)
            }}
          />
        </label>
        {agreeing.wrong}
        <button type="button" className="press press-go justify-self-start" disabled={busy} onClick={agree}>
          {say('my.agree-send')}
        </button>
      </div>
    </section>
  )
}

/** Everything that proves an agreement, as a plain text to keep. */
const asFile = (
  view: Pick<LinkView, 'practitioner' | 'service'>,
  agreement: ToldAgreement,
  when: string,
): string =>
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
export function WasAgreed({
  view,
}: {
  view: Pick<LinkView, 'agreements' | 'clocks' | 'practitioner' | 'service'>
}) {
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
