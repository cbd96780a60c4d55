import { useId } from 'react'
import { PlainField } from '../parts/plain-field.tsx'
import { CURRENCIES, zonesWith } from '../settings/choices.ts'
import type { Option } from '../settings/setting.ts'

/** Whose practice it is. */
export interface About {
  name: string
  email: string
  zone: string
  currency: string
}

/** What is in a browser already: its zone. */
export const nobodyYet = (): About => ({
  name: '',
  email: '',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
  currency: 'EUR',
})

/** Whose practice it is, with zone and currency as choices. */
export function AboutFields({ about, onChange }: { about: About; onChange: (about: About) => void }) {
  const set = (key: keyof About) => (value: string) => onChange({ ...about, [key]: value })
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <PlainField label="Your name" required value={about.name} onChange={set('name')} />
      <PlainField
        label="Where clients’ answers go"
        type="email"
        required
        value={about.email}
        onChange={set('email')}
      />
      <Choice
        label="Your time zone"
        value={about.zone}
        options={zonesWith(about.zone)}
        onChange={set('zone')}
      />
      <Choice label="Your currency" value={about.currency} options={CURRENCIES} onChange={set('currency')} />
    </div>
  )
}

/** One of several, in a form that is sent as a whole. */
export function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly Option[]
  onChange: (value: string) => void
}) {
  const id = useId()
  return (
    <div>
      <label className="ask" htmlFor={id}>
        {label}
      </label>
      <select id={id} className="field mt-1" value={value} onChange={(event) => onChange(event.target.value)}>
        {options.map(({ value, name }) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </div>
  )
}
