import { ROOM } from '@acolhida/core/booking'
import { type Place, type Practice, withoutPlace } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { Plus } from 'lucide-react'
import { Link } from 'react-router'
import { newKey } from '../../relay-client/client.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { TravelZones } from '../parts/travel-zones.tsx'
import { PLACE_KINDS } from '../service/make.tsx'
import { zonesWith } from '../settings/choices.ts'

const TOLD = [
  { value: 'door', name: 'At the door' },
  { value: 'confirmation', name: 'With the confirmation' },
  { value: 'last-reminder', name: 'With the last reminder' },
]
const CALLS = [
  { value: 'practitioner', name: 'I call' },
  { value: 'client', name: 'The client calls' },
]
const ADDRESS: Record<Place['kind'], string> = {
  studio: 'Address',
  video: 'Link; empty: sent later',
  phone: 'Number to call',
  client: 'What the client should know',
  other: 'Address',
}

const withPlace = (practice: Practice, id: string, change: (place: Place) => Place): Practice => ({
  ...practice,
  places: practice.places.map((place) => (place.id === id ? change(place) : place)),
})

/** Without a setting where nothing was typed. */
function optional<K extends 'address' | 'zone'>(place: Place, key: K, typed: string): Place {
  const { [key]: _, ...rest } = place
  return typed.trim() ? { ...place, [key]: typed.trim() } : (rest as Place)
}

/** An address; where each booking gets a room of its own, with the key its codes are made with. */
function withAddress(place: Place, typed: string): Place {
  const next = optional(place, 'address', typed)
  return next.address?.includes(ROOM) && !next.roomKey ? { ...next, roomKey: newKey() } : next
}

/** Where sessions take place. */
export function Places() {
  const { practice } = useDesk()
  return (
    <SettingsPage title="Places" line="Where sessions take place, and when clients are told.">
      <div className="grid max-w-[1020px] gap-5 lg:grid-cols-2">
        {practice.places.map((place) => {
          const used = practice.services.filter((service) => service.places.includes(place.id))
          const change = (part: (place: Place, typed: string) => Place) => (p: Practice, typed: string) =>
            withPlace(p, place.id, (place) => part(place, typed))
          return (
            <section key={place.id} className="sheet grid h-fit gap-3 p-5" aria-label={place.name}>
              <SavedField
                label="How it reads, after “75 minutes …”"
                what="the name of a place"
                value={place.name}
                change={change((place, name) => ({ ...place, name }))}
              />
              <div className="grid grid-cols-2 items-end gap-4">
                <SavedField
                  label="Kind"
                  what="the kind of a place"
                  value={place.kind}
                  options={PLACE_KINDS}
                  change={change((place, kind) => ({
                    ...place,
                    kind: kind as Place['kind'],
                    ...(kind === 'phone' ? { whoCalls: place.whoCalls ?? 'practitioner' } : {}),
                  }))}
                />
                {place.kind === 'phone' && (
                  <SavedField
                    label="Who calls"
                    what="who calls"
                    value={place.whoCalls ?? 'practitioner'}
                    options={CALLS}
                    change={change((place, who) => ({
                      ...place,
                      whoCalls: who as 'practitioner' | 'client',
                    }))}
                  />
                )}
              </div>
              <SavedField
                label={ADDRESS[place.kind]}
                what="the address of a place"
                value={place.address ?? ''}
                change={change(withAddress)}
                {...(place.kind === 'video'
                  ? { help: `With ${ROOM} in it, each booking has a room of its own: https://…/${ROOM}` }
                  : {})}
              />
              <div className="grid grid-cols-2 items-end gap-4">
                <SavedField
                  label="When clients learn the address"
                  what="when a place is told"
                  value={place.told}
                  options={TOLD}
                  change={change((place, told) => ({ ...place, told: told as Place['told'] }))}
                />
                <SavedField
                  label="Its time zone"
                  what="the zone of a place"
                  value={place.zone ?? ''}
                  options={[{ value: '', name: 'As mine' }, ...zonesWith(place.zone)]}
                  change={change((place, zone) => optional(place, 'zone', zone))}
                />
              </div>
              {place.kind === 'client' && <TravelZones practice={practice} place={place} />}
              <p className="text-[14px]">
                <Link className="way" to={`/hours?place=${place.id}`}>
                  {place.hours ? 'It keeps hours of its own' : 'Your usual hours count here'}
                </Link>
              </p>
              <p className="text-[13px] text-soft">
                {used.length > 0
                  ? `For ${used.map((service) => service.name).join(', ')}`
                  : 'No service takes place here.'}
              </p>
              {used.length === 0 && practice.places.length > 1 && (
                <ActButton
                  className="press press-no justify-self-start"
                  onAct={() => changePractice(db, `${place.name} removed`, (p) => withoutPlace(p, place.id))}
                >
                  Remove this place
                </ActButton>
              )}
            </section>
          )
        })}
      </div>
      <ActButton
        className="press press-go mt-4"
        onAct={() =>
          changePractice(db, 'a place added', (p) => {
            const taken = new Set(p.places.map(({ id }) => id))
            return {
              ...p,
              places: [
                ...p.places,
                { id: freeId(taken, 'place'), kind: 'other', name: 'somewhere else', told: 'confirmation' },
              ],
            }
          })
        }
      >
        <Plus size={16} aria-hidden="true" /> Add a place
      </ActButton>
    </SettingsPage>
  )
}
