import { languagesOf, type Practice, type Service, termsValues } from '@acolhida/core/practice'
import { shownTerms, type Terms, type TermsText, type TermsVersion } from '@acolhida/core/terms'
import { type Language, languageName, speaking } from '@acolhida/core/time'
import { hasBook } from '@acolhida/core/words'
import { useEffect, useState } from 'react'
import { ShownTermsText } from '../../terms/shown-terms.tsx'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { fetchTermsBook } from '../messages/books.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { beginIn, type TextDraft, unlike, withAlso } from './change.ts'
import { FIELD_NAMES } from './rich.ts'
import { useDraft } from './use-draft.ts'
import { WriteText } from './write-text.tsx'

/** A version in one of the practice's other languages. */
interface InOther {
  practice: Practice
  terms: Terms
  version: TermsVersion
  language: Language
  /** The services whose clients agree to it. */
  services: readonly Service[]
}

/** The version in force in the practice's other languages: read, or written where it lacks. */
export function OtherLanguages({
  practice,
  terms,
  services,
}: Pick<InOther, 'practice' | 'terms' | 'services'>) {
  const version = terms.versions.at(-1)!
  const [, ...others] = languagesOf(practice)
  return others.map((language) => {
    const of: InOther = { practice, terms, version, language, services }
    const there = version.also?.[language]
    return there ? <Published key={language} {...of} text={there} /> : <Lacking key={language} {...of} />
  })
}

/** What is published stays as it is, and is read as clients read it. */
function Published({ practice, version, language, services, text }: InOther & { text: TermsText }) {
  const [reading, setReading] = useState(false)
  // What fills the fields is said in that language, too, once its catalogue has come.
  const [, setCome] = useState(hasBook(language, 'terms'))
  useEffect(() => {
    void fetchTermsBook(language).then(() => setCome(true))
  }, [language])
  const service = services[0] ?? practice.services[0]
  const tongue = { language, own: practice.words?.[language] }
  const values = service ? speaking(tongue, () => termsValues(practice, service)) : {}
  return (
    <div className="mt-3">
      <button
        type="button"
        className="way text-[14px]"
        aria-expanded={reading}
        onClick={() => setReading((now) => !now)}
      >
        Version {version.number} in {languageName(language)}
        <span className="sr-only">: {version.title}</span>
      </button>
      {reading && (
        <div className="mt-2" lang={language} dir="auto">
          <h3>{text.title}</h3>
          <ShownTermsText shown={shownTerms(text, values)} more="The longer document" />
        </div>
      )}
    </div>
  )
}

/** What is not there yet is begun, and written on until it is published. */
function Lacking(of: InOther) {
  const { terms, version, language } = of
  const name = languageName(language)
  const kept = `acolhida-terms-${terms.id}-${version.number}-${language}`
  const [draft, type] = useDraft<TextDraft>(kept, { title: '', document: '' })
  if (draft) return <Writing {...of} draft={draft} type={type} />
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3 text-[14px]">
      <span>Whoever reads {name} reads it as it is here.</span>
      <button
        type="button"
        className="press press-quiet"
        onClick={() => type(beginIn(terms.versions, language))}
      >
        Write it in {name}
        <span className="sr-only">: {version.title}</span>
      </button>
    </div>
  )
}

const quoted = (names: readonly string[]): string => names.map((name) => `“${name}”`).join(', ')

function Writing({
  practice,
  terms,
  version,
  language,
  services,
  draft,
  type,
}: InOther & { draft: TextDraft; type: (draft: TextDraft | undefined) => void }) {
  const act = useAct()
  const name = languageName(language)
  const { same, left } = unlike(version, draft)
  const publish = async (): Promise<void> => {
    const which = { number: version.number, language }
    await changePractice(db, `the terms in ${name}`, (p) => withAlso(p, terms.id, which, draft))
    type(undefined)
  }
  return (
    <section className="mt-4 grid gap-4 border-t border-line pt-3" aria-label={`${version.title} in ${name}`}>
      <h3>
        Version {version.number} in {name}
      </h3>
      <p className="text-[14px] text-soft">
        It says the same in another language, so nobody has to agree anew. Whoever reads {name} agrees to this
        text as it stands; once published it stays until the next version.
      </p>
      <WriteText practice={practice} services={services} draft={draft} type={type} />
      {same.length > 0 && (
        <p className="note bg-sun-soft text-sun-ink">
          {quoted(same)} {same.length === 1 ? 'reads' : 'read'} as in yours.
        </p>
      )}
      {left.length > 0 && (
        <p className="note bg-sun-soft text-sun-ink">
          {quoted(left.map((field) => FIELD_NAMES[field]))} {left.length === 1 ? 'stands' : 'stand'} in yours
          and not here.
        </p>
      )}
      <ProblemNote of={act} className="" />
      <div className="flex flex-wrap gap-2">
        <button type="button" className="press press-go" onClick={() => act.run(publish)}>
          Publish in {name}
        </button>
        <button type="button" className="press press-quiet" onClick={() => type(undefined)}>
          Leave it
        </button>
      </div>
    </section>
  )
}
