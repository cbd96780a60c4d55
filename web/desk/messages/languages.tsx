import {
  lackingTerms,
  lackingTexts,
  type OwnText,
  ownLanguage,
  ownTexts,
  type Practice,
} from '@acolhida/core/practice'
import { LANGUAGES, type Language, languageName } from '@acolhida/core/time'
import { useState } from 'react'
import { Link } from 'react-router'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { Tick } from '../parts/tick.tsx'
import { counted } from '../parts/words.ts'
import { grouped } from './coming.ts'

/** The practice with one of its texts in another language; with nothing, it stands as it was written. */
function withTranslated(practice: Practice, language: Language, of: OwnText, text: string): Practice {
  const { [of.key]: _, ...others } = practice.translated?.[language] ?? {}
  const now = text.trim() ? { ...others, [of.key]: { text, of: of.text } } : others
  return { ...practice, translated: { ...practice.translated, [language]: now } }
}

/** In which languages clients can read, and what of one's own still lacks in them. */
export function Languages({ practice }: { practice: Practice }) {
  const own = ownLanguage(practice)
  const others = LANGUAGES.filter((one) => one !== own)
  const [writing, setWriting] = useState<Language>()
  return (
    <section className="sheet grid gap-3 p-5" aria-label="Languages">
      <h2>Languages</h2>
      <div className="grid gap-4 sm:grid-cols-2">
        <SavedField
          label="What I write is in"
          what="the language"
          value={own}
          options={LANGUAGES.map((value) => ({ value, name: languageName(value) }))}
          change={(p, language) => ({
            ...p,
            language,
            languages: (p.languages ?? []).filter((one) => one !== language),
          })}
        />
        <div>
          <p className="ask">Clients can also read in</p>
          {others.map((language) => {
            const on = practice.languages?.includes(language) ?? false
            const lacking = on ? lackingTexts(practice, language).length : 0
            return (
              <div key={language}>
                <Tick
                  label={languageName(language)}
                  on={on}
                  onChange={(next) =>
                    changePractice(db, 'the languages', (p) => ({
                      ...p,
                      languages: next
                        ? [...(p.languages ?? []), language]
                        : (p.languages ?? []).filter((one) => one !== language),
                    }))
                  }
                />
                {on && (
                  <button
                    type="button"
                    className="way block text-[14px]"
                    aria-expanded={writing === language}
                    onClick={() => setWriting((now) => (now === language ? undefined : language))}
                  >
                    {lacking === 0
                      ? 'Everything of yours is there'
                      : `${counted(lacking, 'text of yours lacks', 'texts of yours lack')}: write them`}
                  </button>
                )}
                {on &&
                  lackingTerms(practice, language).map(({ id, title }) => (
                    <Link key={id} to="/terms" className="way block text-[14px]">
                      The terms “{title}” lack: write them
                    </Link>
                  ))}
              </div>
            )
          })}
        </div>
      </div>
      {writing && practice.languages?.includes(writing) && (
        <OwnTexts practice={practice} language={writing} />
      )}
    </section>
  )
}

function OwnTexts({ practice, language }: { practice: Practice; language: Language }) {
  const [lackingOnly, setLackingOnly] = useState(true)
  // What is written just now stays where it is, though it lacks no more.
  const [shown] = useState(() => new Set(lackingTexts(practice, language).map(({ key }) => key)))
  const lacking = new Map(lackingTexts(practice, language).map((one) => [one.key, one.is]))
  const texts = ownTexts(practice).filter(({ key }) => !lackingOnly || shown.has(key) || lacking.has(key))
  return (
    <div className="border-t border-line pt-3">
      <Tick label="Only what lacks" on={lackingOnly} onChange={setLackingOnly} />
      {texts.length === 0 && <p className="text-soft">Nothing lacks.</p>}
      {[...grouped(texts, ({ of }) => of)].map(([of, list]) => (
        <fieldset key={of} className="mt-4">
          <legend className="font-semibold">{of}</legend>
          <div className="grid gap-3">
            {list.map((one) => (
              <div key={one.key} className="grid gap-x-4 sm:grid-cols-2">
                <p className="text-[14px] whitespace-pre-line wrap-anywhere text-soft" dir="auto">
                  {one.text}
                </p>
                <SavedField
                  label={`${of}: ${one.what}, in ${languageName(language)}`}
                  what="a text in another language"
                  value={practice.translated?.[language]?.[one.key]?.text ?? ''}
                  {...(one.text.length > 80 ? { rows: 3 } : {})}
                  warning={
                    lacking.get(one.key) === 'changed'
                      ? 'Yours has changed since this was written.'
                      : undefined
                  }
                  change={(p, typed) => withTranslated(p, language, one, typed)}
                />
              </div>
            ))}
          </div>
        </fieldset>
      ))}
    </div>
  )
}
