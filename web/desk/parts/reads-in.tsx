import { languagesOf, ownLanguage, type Practice } from '@acolhida/core/practice'
import { type Language, languageName } from '@acolhida/core/time'
import { PlainChoice } from './plain-field.tsx'

/** In which language somebody is written to; nothing where the practice speaks one alone. */
export function ReadsIn({
  practice,
  value,
  onChange,
}: {
  practice: Practice
  /** Nothing: the practice's own. */
  value: Language | undefined
  onChange: (language: Language) => void
}) {
  const languages = languagesOf(practice)
  if (languages.length < 2) return null
  return (
    <PlainChoice
      label="They read"
      value={value && languages.includes(value) ? value : ownLanguage(practice)}
      options={languages.map((language) => ({ value: language, name: languageName(language) }))}
      onChange={onChange}
    />
  )
}
