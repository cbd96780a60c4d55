import type { Place, Practice, Service, TravelZone } from './types.ts'

/** A postal code as it is compared: capitals and digits only. */
const plain = (code: string): string => code.toUpperCase().replaceAll(/[^\p{L}\p{N}]/gu, '')

/** The travel zone of a place by its id. */
export const travelZoneOf = (place: Place | undefined, id: string | undefined): TravelZone | undefined =>
  place?.travel?.find((zone) => zone.id === id)

/** All travel zones of the places a service takes place at. */
export const travelZonesOf = (practice: Practice, service: Service): TravelZone[] =>
  practice.places.flatMap((place) =>
    place.kind === 'client' && service.places.includes(place.id) ? (place.travel ?? []) : [],
  )

/**
 * The travel zone a postal code lies in: the one with the longest beginning that fits. Nothing when it is farther
 * than that.
 */
export function travelZoneAt<Z extends Pick<TravelZone, 'postalCodes'>>(
  zones: readonly Z[],
  postalCode: string,
): Z | undefined {
  const code = plain(postalCode)
  let found: { zone: Z; length: number } | undefined
  for (const zone of zones) {
    for (const beginning of zone.postalCodes.map(plain)) {
      if (!beginning || !code.startsWith(beginning) || beginning.length <= (found?.length ?? 0)) continue
      found = { zone, length: beginning.length }
    }
  }
  return found?.zone
}

/** A service as it counts in a travel zone: the way there and back is kept clear, too. */
export const travelled = (service: Service, zone: TravelZone | undefined): Service =>
  zone?.clear
    ? {
        ...service,
        clearBefore: service.clearBefore + zone.clear,
        clearAfter: service.clearAfter + zone.clear,
      }
    : service
