import type { AgreedVersion, DoorTerms } from '@acolhida/core/contract'
import { ShownTermsText } from '../../terms/shown-terms.tsx'
import { say } from './say.ts'

/** What was read, as it is said with one's agreement. */
export const agreedAs = ({ id, number, fingerprint, language }: DoorTerms): AgreedVersion => ({
  terms: id,
  number,
  fingerprint,
  language,
})

/** Which text was read: its version, and in which language. */
export const readAs = ({ fingerprint, language }: DoorTerms): string => `${fingerprint} ${language}`

/** One text to be read, and the tick with which it is agreed to. */
export function TermsToRead({
  terms,
  agreed,
  wrong,
  onChange,
}: {
  terms: DoorTerms
  agreed: boolean
  /** Whether agreeing has been missed; `wrong-agreed` says so. */
  wrong: boolean
  onChange: (yes: boolean) => void
}) {
  return (
    <article className="sheet p-4">
      <h2>
        <span lang={terms.language}>{terms.title}</span>{' '}
        <span className="font-sans text-[13px] font-normal text-soft">
          {say('terms.version', { number: terms.number })}
        </span>
      </h2>
      <section
        className="mt-2 max-h-72 overflow-y-auto pr-2"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a long text must be scrollable by keyboard
        tabIndex={0}
        aria-label={say('terms.text', { title: terms.title })}
      >
        <div lang={terms.language} dir="auto">
          <ShownTermsText shown={terms.shown} more={say('terms.document')} />
        </div>
      </section>
      <label className="mt-2 flex min-h-[44px] cursor-pointer items-center gap-3 font-semibold">
        <input
          id={`agreed-${terms.id}`}
          type="checkbox"
          className="checkbox checkbox-primary"
          checked={agreed}
          aria-describedby={wrong ? 'wrong-agreed' : undefined}
          onChange={(event) => onChange(event.target.checked)}
        />
        {say('terms.agree', { title: terms.title })}
      </label>
    </article>
  )
}
