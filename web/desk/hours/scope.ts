import { type Block, type Hours, type Practice, placeOf, zoneOf } from '@acolhida/core/practice'
import { type Zone, zone } from '@acolhida/core/time'

/** Whose hours are looked at and changed: the practitioner's usual ones, or those of one place. */
export interface Scope {
  /** Absent for the usual hours. */
  place?: string
  hours: Hours
  zone: Zone
  /** The practice with these hours changed. */
  change: (practice: Practice, change: (hours: Hours) => Hours) => Practice
}

/** The hours of a place, if it keeps hours of its own; else the usual ones. */
export function scopeOf(practice: Practice, id: string | undefined): Scope {
  const place = id === undefined ? undefined : placeOf(practice, id)
  if (!place?.hours) {
    return {
      hours: practice.hours,
      zone: zone(practice.profile.zone),
      change: (p, change) => ({ ...p, hours: change(p.hours) }),
    }
  }
  return {
    place: place.id,
    hours: place.hours,
    zone: zoneOf(practice, place),
    change: (p, change) => ({
      ...p,
      places: p.places.map((other) =>
        other.id === place.id && other.hours ? { ...other, hours: change(other.hours) } : other,
      ),
    }),
  }
}

/** Gives a place hours of its own, beginning with the usual ones, or takes them away. */
export const withOwnHours = (practice: Practice, id: string, own: boolean): Practice => ({
  ...practice,
  places: practice.places.map((place) => {
    if (place.id !== id) return place
    const { hours: _, ...rest } = place
    return own ? { ...rest, hours: place.hours ?? practice.hours } : rest
  }),
})

/** Hours with those of one weekday (0 is Monday) set. */
export const withDay = (hours: Hours, day: number, blocks: Block[]): Hours => ({
  ...hours,
  weekly: hours.weekly.map((before, i) => (i === day ? blocks : before)) as Hours['weekly'],
})

/** For whom a block is kept, in words; nothing when it is for everybody. */
export function keptFor(practice: Practice, block: Block): string {
  const { services, places, known } = block.reservedFor ?? {}
  const named = (
    ids: readonly string[] | undefined,
    list: readonly { id: string; name: string }[],
  ): string[] => (ids ?? []).flatMap((id) => list.find((place) => place.id === id)?.name ?? [])
  return [
    named(services, practice.services).join(' or '),
    named(places, practice.places).join(' or '),
    known ? 'people I know' : '',
  ]
    .filter(Boolean)
    .join(', ')
}
