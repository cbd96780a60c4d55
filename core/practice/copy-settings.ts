import type { Instant } from '../time/index.ts'
import { aroundService } from './sequences.ts'
import { type SettingsGroup, settingsIn } from './service-settings.ts'
import type { Practice, Service } from './types.ts'

/** What is taken over of something: with a value, or with none any more. */
export type Overlay<T> = { readonly [K in keyof T]?: T[K] | undefined }

/** Takes one value over; what is set to nothing is left out, not kept as nothing. */
function put<T extends object, K extends keyof T>(into: T, key: K, value: T[K] | undefined): void {
  if (value === undefined) delete into[key]
  else into[key] = value
}

/** Something with parts taken over from elsewhere: all that is given, or those that are named. */
export function withParts<T extends object>(
  item: T,
  from: Overlay<T>,
  keys: readonly (keyof T)[] = Object.keys(from) as (keyof T)[],
): T {
  const next = { ...item }
  for (const key of keys) put(next, key, from[key])
  return next
}

/** One service with groups of settings taken from another; what that one leaves out is left out here, too. */
export function withSettings(service: Service, from: Service, groups: readonly SettingsGroup[]): Service {
  const keys = groups.flatMap(settingsIn)
  return withParts(service, from, keys)
}

/** What comes around a service by copying begins then, too. */
function begunFrom({ sequence: before }: Service, { sequence, ...after }: Service, now: Instant): Service {
  return aroundService(before === undefined ? after : { ...after, sequence: before }, sequence, now)
}

/** A practice in which some settings of one service have been copied to others. */
export function copySettings(
  practice: Practice,
  from: string,
  to: readonly string[],
  groups: readonly SettingsGroup[],
  now: Instant,
): Practice {
  const source = practice.services.find((service) => service.id === from)
  if (!source) return practice
  return {
    ...practice,
    services: practice.services.map((service) =>
      to.includes(service.id) && service.id !== from
        ? begunFrom(service, withSettings(service, source, groups), now)
        : service,
    ),
  }
}

/**
 * A practice with a service moved to another place in the order. It comes under the heading of the one before it;
 * at the very beginning, of the one after it.
 */
export function moveService(practice: Practice, from: number, to: number): Practice {
  const services = [...practice.services]
  const [moved] = services.splice(from, 1)
  if (!moved) return practice
  const neighbour = to > 0 ? services[to - 1] : services[0]
  const { section: _, ...plain } = moved
  const section = neighbour ? neighbour.section : moved.section
  services.splice(to, 0, section === undefined ? plain : { ...plain, section })
  return { ...practice, services }
}
