import type { Practice } from '@acolhida/core/practice'
import { type Language, languageName } from '@acolhida/core/time'
import { sentenceFaults } from '@acolhida/core/words/check'
import { VOICED, VOICES, type Voice } from '@acolhida/core/words/voices'
import { parse } from '@formatjs/icu-messageformat-parser'
import { useEffect, useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { type OurSentence, sentencesFor } from './books.ts'
import { ChipText } from './chip-text.tsx'
import { MOMENTS, type WayMoment } from './moments.ts'
import { fieldsOfMessage, fromVariants, variantsOf } from './sentences.ts'
import { useSaved } from './use-saved.ts'

/** The practice with some sentences said otherwise in a language; one that is said as ours is left out. */
function withWords(
  practice: Practice,
  language: Language,
  said: Record<string, string | undefined>,
): Practice {
  const now = { ...practice.words?.[language], ...said }
  const kept = Object.fromEntries(
    Object.entries(now).filter((one): one is [string, string] => one[1] !== undefined),
  )
  return { ...practice, words: { ...practice.words, [language]: kept } }
}

/** Every sentence that clients read in a language, by the moments of their way; each can be said otherwise. */
export function Sentences({ practice, language }: { practice: Practice; language: Language }) {
  const [ours, setOurs] = useState<OurSentence[]>()
  const [search, setSearch] = useState('')
  useEffect(() => {
    void sentencesFor(language).then(setOurs)
  }, [language])
  const own = practice.words?.[language] ?? {}
  const wanted = search.trim().toLowerCase()
  const found = (ours ?? []).filter(
    ({ key, message }) =>
      !wanted ||
      key.includes(wanted) ||
      variantsOf(message).some(({ text }) => text.toLowerCase().includes(wanted)) ||
      own[key]?.toLowerCase().includes(wanted),
  )
  const take = (voice: Voice): Promise<void> =>
    changePractice(db, 'the voice', (p) =>
      withWords(p, language, {
        ...Object.fromEntries(VOICED.map((key) => [key, undefined])),
        ...voice.words[language],
      }),
    )
  return (
    <section aria-label={`Sentences in ${languageName(language)}`} className="grid gap-4">
      <div className="sheet grid gap-3 p-5">
        <h2>A voice to begin from</h2>
        <ul className="grid gap-3 sm:grid-cols-3">
          {VOICES.map((voice) => (
            <li key={voice.key} className="grid content-between gap-2">
              <p>
                <b className="block">{voice.name}</b>
                <span className="text-[14px] text-soft">{voice.about}</span>
              </p>
              <ActButton className="press justify-self-start" onAct={() => take(voice)}>
                Speak {voice.name.toLowerCase()}
              </ActButton>
            </li>
          ))}
        </ul>
        <p className="text-[14px] text-soft">
          {Object.keys(own).length === 0
            ? 'All sentences are ours.'
            : `${Object.keys(own).length} are yours; every other is ours.`}
        </p>
      </div>
      <label className="ask">
        Find a sentence
        <input
          className="field mt-1 max-w-[420px]"
          type="search"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </label>
      {MOMENTS.map((moment) => (
        <OfMoment
          key={moment}
          moment={moment}
          open={wanted !== ''}
          language={language}
          own={own}
          sentences={found.filter((one) => one.moment === moment)}
        />
      ))}
    </section>
  )
}

function OfMoment({
  moment,
  open,
  language,
  own,
  sentences,
}: {
  moment: WayMoment
  open: boolean
  language: Language
  own: Readonly<Record<string, string>>
  sentences: readonly OurSentence[]
}) {
  const [seen, setSeen] = useState(false)
  if (sentences.length === 0) return null
  const yours = sentences.filter(({ key }) => own[key] !== undefined).length
  return (
    <details className="sheet px-5 py-3" open={open} onToggle={(event) => setSeen(event.currentTarget.open)}>
      <summary className="cursor-pointer">
        <h2 className="inline text-[19px]">{moment}</h2>{' '}
        <span className="text-[14px] text-soft">
          {sentences.length} sentences{yours > 0 ? `, ${yours} of them yours` : ''}
        </span>
      </summary>
      {(seen || open) && (
        <ul className="mt-2 divide-y divide-line">
          {sentences.map((sentence) => (
            <OneSentence key={sentence.key} sentence={sentence} language={language} own={own[sentence.key]} />
          ))}
        </ul>
      )}
    </details>
  )
}

function OneSentence({
  sentence: { key, message },
  language,
  own,
}: {
  sentence: OurSentence
  language: Language
  own: string | undefined
}) {
  const [editing, setEditing] = useState(false)
  const shown = variantsOf(own === undefined ? message : parse(own))
  return (
    <li className="py-2.5">
      <div className="flex items-start justify-between gap-4">
        <p className="min-w-0 whitespace-pre-line wrap-anywhere" dir="auto">
          {shown[0]?.text}
          {shown.length > 1 && <span className="text-[14px] text-soft"> … in {shown.length} cases</span>}
          {own !== undefined && <span className="tag tag-info ml-2">yours</span>}
        </p>
        <span className="flex shrink-0 gap-1.5">
          <button
            type="button"
            className="press press-quiet"
            aria-expanded={editing}
            aria-label={`Say it otherwise: ${shown[0]?.text}`}
            onClick={() => setEditing(!editing)}
          >
            {editing ? 'Done' : 'Say it otherwise'}
          </button>
          {own !== undefined && (
            <ActButton
              className="press press-quiet"
              aria-label={`Back to ours: ${shown[0]?.text}`}
              onAct={() =>
                changePractice(db, 'a sentence', (p) => withWords(p, language, { [key]: undefined }))
              }
              then={() => setEditing(false)}
            >
              Back to ours
            </ActButton>
          )}
        </span>
      </div>
      {editing && <EditSentence sentenceKey={key} message={message} language={language} own={own} />}
    </li>
  )
}

/** Each case of a sentence, with its fields as chips; what can't be read is not kept, and says why. */
function EditSentence({
  sentenceKey: key,
  message,
  language,
  own,
}: {
  sentenceKey: string
  message: OurSentence['message']
  language: Language
  own: string | undefined
}) {
  const ours = variantsOf(message)
  const read = own === undefined ? ours : variantsOf(parse(own))
  const [texts, setTexts] = useState(() => ours.map(({ text }, i) => read[i]?.text ?? text))
  const fields = Object.fromEntries(fieldsOfMessage(message).map((name) => [name, name]))
  const saved = useSaved((joined) => {
    const said = fromVariants(message, JSON.parse(joined) as string[])
    const [fault] = sentenceFaults(said, message)
    if (fault) throw new Error(fault)
    return changePractice(db, 'a sentence', (p) => withWords(p, language, { [key]: said }))
  })
  return (
    <div className="mt-2 grid gap-3 rounded-lg bg-shade p-3">
      {ours.map(({ when }, i) => (
        <ChipText
          key={when}
          label={when ? `When: ${when}` : 'It says'}
          value={texts[i] ?? ''}
          fields={fields}
          lines={1}
          onChange={(text) => {
            const next = texts.with(i, text)
            setTexts(next)
            saved.type(JSON.stringify(next))
          }}
        />
      ))}
      {saved.problem && (
        <p role="alert" className="font-semibold text-clay">
          {saved.problem} <span className="font-normal">It stays here and is not said.</span>
        </p>
      )}
    </div>
  )
}
