import type { Service } from '@acolhida/core/practice'
import { duration, time } from '@acolhida/core/time'

/** One setting of a service as it is shown and typed. */
export interface ServiceField {
  label: string
  /** What is changed, for undo. */
  what: string
  read: (service: Service) => string
  /** The service with what was typed. @throws Error with a sentence when it can't be used */
  write: (service: Service, typed: string, decimals: number) => Service
  /** Where faults about it are found, beside `service`: "notice". */
  at?: keyof Service
  /** An amount in minor units, shown in the currency's own. */
  money?: boolean
  help?: string
  suffix?: string
  rows?: number
  type?: 'number' | 'text' | 'time' | 'date'
  options?: readonly { value: string; name: string }[]
  /** Shown only for services of which this holds. */
  show?: (service: Service) => boolean
}

/** A whole number as typed. @throws Error when it is none, or below `least` */
export function whole(typed: string, least = 0): number {
  const value = Number(typed)
  if (typed.trim() === '' || !Number.isInteger(value) || value < least) {
    throw new Error(`Please write a whole number${least > 0 ? ` from ${least} on` : ''}.`)
  }
  return value
}

/** An amount as typed, in minor units. @throws Error when it is none */
export function amount(typed: string, decimals: number): number {
  const value = Math.round(Number(typed.replace(',', '.')) * 10 ** decimals)
  if (typed.trim() === '' || !Number.isFinite(value) || value < 0)
    throw new Error('Please write an amount, as 95.00.')
  return value
}

/** The service with an optional setting given, or taken away where nothing was typed. */
export function optional<K extends keyof Service>(
  service: Service,
  key: K,
  typed: string,
  read: (typed: string) => Service[K],
): Service {
  const { [key]: _, ...rest } = service
  return typed.trim() === '' ? (rest as Service) : { ...service, [key]: read(typed) }
}

/** A time of day as typed in one of several hands: 9, 9:30, 9h30. */
export function clock(typed: string): ReturnType<typeof time> {
  const match = /^(\d{1,2})(?:[:.h](\d{2}))?$/.exec(typed.trim())
  if (!match) throw new Error(`“${typed.trim()}” is not a time of day; write it as 9:30.`)
  return time(`${match[1]!.padStart(2, '0')}:${match[2] ?? '00'}`)
}

/** A limit as typed. @throws Error when nobody could book with it */
export function limit(typed: string): number {
  if (typed.trim() === '0') {
    throw new Error('With a limit of 0 nobody can ever book this. Leave it empty for no limit.')
  }
  return whole(typed, 1)
}

/** A number of hours as an exact duration. */
export const hours = (typed: string, least = 0): Service['notice'] => duration(`PT${whole(typed, least)}H`)

/** A duration in whole hours; days count as 24. */
export function hoursOf(of: Service['notice']): string {
  const [, days = '0', inHours = '0', minutes = '0'] =
    /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?)?$/.exec(of) ?? []
  return String(Number(days) * 24 + Number(inHours) + Number(minutes) / 60)
}

export const text = (value: number | string | undefined): string => (value === undefined ? '' : String(value))
