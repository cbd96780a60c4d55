import { signOf } from '@acolhida/core/money'
import type { Place, Practice, TravelZone } from '@acolhida/core/practice'
import { Plus, X } from 'lucide-react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { amount, wholeTyped } from '../settings/setting.ts'
import { ActButton } from './act.tsx'
import { SavedField } from './saved-field.tsx'
import { currencyOf } from './words.ts'

/** Beginnings of postal codes as they are typed: "30, 31-40". */
export const codesOf = (typed: string): string[] => [
  ...new Set(
    typed
      .split(/[,;\n]+/)
      .map((text) => text.trim())
      .filter(Boolean),
  ),
]

/** How far one travels to clients, by zones one has named. */
export function TravelZones({ practice, place }: { practice: Practice; place: Place }) {
  const { code, decimals } = currencyOf(practice.profile.currency)
  const zones = place.travel ?? []
  const within = (p: Practice, change: (before: TravelZone[]) => TravelZone[]): Practice => ({
    ...p,
    places: p.places.map((other) => {
      if (other.id !== place.id) return other
      const { travel, ...rest } = other
      const next = change(travel ?? [])
      return next.length > 0 ? { ...rest, travel: next } : rest
    }),
  })
  const set = (id: string, part: (typed: string) => Partial<TravelZone>) => (p: Practice, typed: string) =>
    within(p, (before) => before.map((zone) => (zone.id === id ? { ...zone, ...part(typed) } : zone)))
  const what = 'a travel zone'
  const add = (): Promise<void> => {
    let n = zones.length + 1
    while (zones.some((travelZone) => travelZone.id === `zone-${n}`)) n++
    const fresh = { id: `zone-${n}`, name: `Zone ${n}`, surcharge: 0, clear: 15, postalCodes: [] }
    return changePractice(db, 'a travel zone added', (p) => within(p, (before) => [...before, fresh]))
  }
  return (
    <div className="grid gap-3 border-t border-line pt-3">
      <h3>How far you go</h3>
      <p className="text-[13px] text-soft">
        The client chooses a zone, or is found by the beginning of their postal code. Farther than that, they
        write instead.
      </p>
      <ul className="grid gap-4">
        {zones.map((zone) => (
          <li key={zone.id} className="grid grid-cols-2 items-end gap-x-3 gap-y-2">
            <SavedField
              label="Zone"
              what={what}
              value={zone.name}
              change={set(zone.id, (name) => ({ name }))}
            />
            <ActButton
              className="press press-quiet justify-self-end px-2"
              aria-label={`Remove ${zone.name}`}
              onAct={() =>
                changePractice(db, `${zone.name} removed`, (p) =>
                  within(p, (before) => before.filter((other) => other.id !== zone.id)),
                )
              }
            >
              <X size={16} aria-hidden="true" />
            </ActButton>
            <SavedField
              label="Surcharge"
              what={what}
              suffix={signOf(code)}
              value={(zone.surcharge / 10 ** decimals).toFixed(decimals)}
              change={set(zone.id, (typed) => ({ surcharge: amount(typed, decimals) }))}
            />
            <SavedField
              label="Also kept clear"
              what={what}
              type="number"
              suffix="min"
              value={String(zone.clear)}
              change={set(zone.id, (typed) => ({ clear: wholeTyped(typed) }))}
            />
            <div className="col-span-2">
              <SavedField
                label="Postal codes begin with"
                what={what}
                value={zone.postalCodes.join(', ')}
                change={set(zone.id, (typed) => ({ postalCodes: codesOf(typed) }))}
              />
            </div>
          </li>
        ))}
      </ul>
      <ActButton className="press justify-self-start" onAct={add}>
        <Plus size={16} aria-hidden="true" /> Add a zone
      </ActButton>
    </div>
  )
}
