import type { AgreedVersion, DoorTerms } from '@acolhida/core/contract'
import { type ReactNode, useState } from 'react'
import { say } from './say.ts'
import { agreedAs, readAs, TermsToRead } from './terms-to-read.tsx'

/** Texts being read and ticked on a page behind a private link. */
export interface Agreeing {
  /** The texts, each with its tick. */
  texts: ReactNode
  /** What keeps one from going on, where it was pressed too early. */
  wrong: ReactNode
  /** What has been agreed to; without all of it, says what is missing, leads there, and gives nothing. */
  agreed(): AgreedVersion[] | undefined
  /** Says something else that is missing in the same place; `undefined` takes back what was said. */
  say(wrong: string | undefined): void
}

/** The way to agree to several texts, where the way through the door is long behind. */
export function useAgreeing(terms: readonly DoorTerms[]): Agreeing {
  const [read, setRead] = useState<ReadonlySet<string>>(new Set())
  const [wrong, setWrong] = useState<string>()
  return {
    texts: terms.map((one) => (
      <TermsToRead
        key={one.id}
        terms={one}
        agreed={read.has(readAs(one))}
        wrong={wrong !== undefined}
        onChange={(yes) => {
          setWrong(undefined)
          setRead((before) => {
            const next = new Set(before)
            if (yes) next.add(readAs(one))
            else next.delete(readAs(one))
            return next
          })
        }}
      />
    )),
    wrong: wrong && (
      <p id="wrong-agreed" role="alert" className="font-semibold text-clay">
        {wrong}
      </p>
    ),
    agreed: () => {
      const missing = terms.find((one) => !read.has(readAs(one)))
      if (!missing) return terms.map(agreedAs)
      setWrong(say('terms.agree-first', { title: missing.title }))
      document.getElementById(`agreed-${missing.id}`)?.focus()
    },
    say: setWrong,
  }
}
