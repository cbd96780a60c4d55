import { ownLanguage } from '@acolhida/core/practice'
import { LANGUAGES, languageName } from '@acolhida/core/time'
import { useState } from 'react'
import { useDesk } from '../data/live.ts'
import { SettingsPage } from '../parts/settings-page.tsx'
import { Languages } from './languages.tsx'
import { Sentences } from './own-sentences.tsx'
import { WordsFiles } from './words-files.tsx'

/** Every word that clients read: ours, to be changed; one's own, in other languages. */
export function WordsPage() {
  const { practice } = useDesk()
  const [language, setLanguage] = useState(ownLanguage(practice))
  return (
    <SettingsPage
      title="Words and languages"
      line="Every sentence your clients read, at the door and in messages, in the order in which they come upon it."
    >
      <div className="grid max-w-[1080px] gap-5">
        <Languages practice={practice} />
        <div className="flex flex-wrap items-center gap-2">
          {LANGUAGES.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === language}
              className={`press ${one === language ? 'bg-leaf-soft' : 'press-quiet'}`}
              onClick={() => setLanguage(one)}
            >
              Sentences in {languageName(one)}
            </button>
          ))}
        </div>
        <Sentences key={language} practice={practice} language={language} />
        <WordsFiles practice={practice} language={language} />
      </div>
    </SettingsPage>
  )
}
