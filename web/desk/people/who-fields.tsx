import type { Practice } from '@acolhida/core/practice'
import type { Language } from '@acolhida/core/time'
import type { ReactNode } from 'react'
import { PlainField } from '../parts/plain-field.tsx'
import { ReadsIn } from '../parts/reads-in.tsx'
import { PersonChoice } from './person-choice.tsx'

/** Somebody as they are typed in at the desk. */
export interface TypedIn {
  name: string
  email: string
  phone: string
}

/** Who it is: somebody known, looked for by name, or somebody new; how they are reached, and in which language. */
export function PersonFields<T extends TypedIn>({
  practice,
  person,
  onPerson,
  language,
  onLanguage,
  children,
}: {
  practice: Practice
  person: T
  onPerson: (change: (now: T) => T) => void
  /** Nothing: the practice's own. */
  language: Language | undefined
  onLanguage: (language: Language) => void
  /** What else is asked about them. */
  children?: ReactNode
}) {
  return (
    <div className="mb-3 grid gap-3 sm:grid-cols-2">
      <PersonChoice
        label="Name"
        typed={person.name}
        onType={(name) => onPerson((now) => ({ ...now, name }))}
        onChoose={({ name, emails, phone = '' }) =>
          onPerson((now) => ({ ...now, name, email: emails[0] ?? now.email, phone }))
        }
      />
      <PlainField
        label="Mail address"
        type="email"
        value={person.email}
        onChange={(email) => onPerson((now) => ({ ...now, email }))}
      />
      <PlainField
        label="Phone number, if there is one"
        type="tel"
        value={person.phone}
        onChange={(phone) => onPerson((now) => ({ ...now, phone }))}
      />
      {children}
      <ReadsIn practice={practice} value={language} onChange={onLanguage} />
    </div>
  )
}
