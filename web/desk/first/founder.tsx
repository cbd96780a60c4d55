import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { CURRENCIES, zonesWith } from '../settings/choices.ts'

/** Whose practice it is. */
export interface Founder {
  name: string
  email: string
  zone: string
  currency: string
}

/** What is in a browser already: its zone. */
export const nobodyYet = (): Founder => ({
  name: '',
  email: '',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
  currency: 'EUR',
})

/** Whose practice it is, with zone and currency as choices. */
export function FounderFields({ about, onChange }: { about: Founder; onChange: (about: Founder) => void }) {
  const set = (key: keyof Founder) => (value: string) => onChange({ ...about, [key]: value })
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
      <PlainChoice
        label="Your time zone"
        value={about.zone}
        options={zonesWith(about.zone)}
        onChange={set('zone')}
      />
      <PlainChoice
        label="Your currency"
        value={about.currency}
        options={CURRENCIES}
        onChange={set('currency')}
      />
    </div>
  )
}
