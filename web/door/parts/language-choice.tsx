import { inForce, type Language, languageName } from '@acolhida/core/time'
import { useParams, useSearchParams } from 'react-router'
import { actThrough } from '../visit/relay.ts'
import { say } from './say.ts'
import { choose } from './tongue.ts'

/** In which language one reads: said by its own name, and kept for this browser; with a private link, for what is sent, too. */
export function LanguageChoice({ languages }: { languages: readonly Language[] }) {
  const { secret } = useParams()
  const booking = useSearchParams()[0].get('booking') ?? undefined
  if (languages.length < 2) return null
  const take = async (language: Language): Promise<void> => {
    await choose(language)
    // What is sent follows; if that fails, the page is read in it all the same.
    if (secret) await actThrough(secret, booking, { do: 'speak', language }).catch(() => undefined)
  }
  return (
    <select
      className="field relative w-auto border-white/50 bg-transparent text-[15px] text-white"
      aria-label={say('language')}
      value={inForce()}
      onChange={(event) => void take(event.target.value)}
    >
      {languages.map((language) => (
        <option key={language} value={language} lang={language} className="text-ink">
          {languageName(language)}
        </option>
      ))}
    </select>
  )
}
