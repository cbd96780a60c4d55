import type { Minor } from '@acolhida/core/money'
import {
  clockTyped,
  type Duration,
  type DurationUnit,
  date,
  duration,
  durationOf,
  inOneUnit,
  type LocalDate,
  type WallTime,
} from '@acolhida/core/time'

interface Common<T> {
  label: string
  /** What is changed, for undo. */
  what: string
  /** Where faults about it are found, below the thing it is a setting of: "notice", "least.by". */
  path?: string
  help?: string
  /** Shown only for things of which this holds. */
  show?: (of: T) => boolean
}

interface Value<T, V> {
  read: (of: T) => V
  /** The thing with another value. @throws Error with a sentence when it can't be that */
  write: (of: T, value: V) => T
}

export interface Option {
  value: string
  name: string
}

/** One setting of something, whatever its kind: how it is called, found and changed. */
export type Setting<T> = Common<T> &
  (
    | ({ is: 'text'; rows?: number; empty?: true } & Value<T, string | undefined>)
    | ({ is: 'whole'; suffix?: string; least?: number; most?: number; empty?: true } & Value<
        T,
        number | undefined
      >)
    /** A limit, which can't be nought. */
    | ({ is: 'limit' } & Value<T, number | undefined>)
    | ({ is: 'duration'; least?: number; suffix?: string } & Value<T, Duration>)
    | ({ is: 'switch' } & Value<T, boolean>)
    | ({ is: 'choice'; options: readonly Option[] } & Value<T, string>)
    /** Times of day, with commas between. */
    | ({ is: 'times' } & Value<T, WallTime[]>)
    | ({ is: 'time'; empty?: true } & Value<T, WallTime | undefined>)
    | ({ is: 'date'; empty?: true } & Value<T, LocalDate | undefined>)
    | ({ is: 'money'; empty?: true } & Value<T, Minor | undefined>)
  )

/** A whole number as typed. @throws Error when it is none, below `least` or above `most` */
export function wholeTyped(typed: string, least = 0, most = Number.POSITIVE_INFINITY): number {
  const value = Number(typed)
  if (typed.trim() === '' || !Number.isInteger(value) || value < least || value > most) {
    const range =
      most < Number.POSITIVE_INFINITY ? ` from ${least} to ${most}` : least > 0 ? ` from ${least} on` : ''
    throw new Error(`Please write a whole number${range}.`)
  }
  return value
}

/** Any number as typed, with a point or a comma. @throws Error when it is none */
export function numberTyped(typed: string): number {
  const value = Number(typed.trim().replace(',', '.'))
  if (typed.trim() === '' || !Number.isFinite(value)) throw new Error('Please write a number.')
  return value
}

/** An amount as typed, in minor units. @throws Error when it is none */
export function amount(typed: string, decimals: number): number {
  const value = Math.round(Number(typed.replace(',', '.')) * 10 ** decimals)
  if (typed.trim() === '' || !Number.isFinite(value) || value < 0)
    throw new Error('Please write an amount, as 95.00.')
  return value
}

/** A limit as typed. @throws Error when nobody could book with it */
export function limit(typed: string): number {
  if (typed.trim() === '0') {
    throw new Error('With a limit of 0 nobody can ever book this. Leave it empty for no limit.')
  }
  return wholeTyped(typed, 1)
}

/** The units that durations are typed in. */
export const UNITS: readonly DurationUnit[] = ['minutes', 'hours', 'days', 'weeks', 'months']
/** A duration that takes several units stays as the standard writes it. */
export const AS_WRITTEN = 'ISO 8601'

/** A duration as it is typed: an amount and a unit. */
export function durationTyped(of: Duration): string {
  const found = inOneUnit(of)
  return found ? `${found.amount} ${found.unit}` : `${of} ${AS_WRITTEN}`
}

function durationFrom(typed: string, least: number): Duration {
  const at = typed.indexOf(' ')
  const [value, unit] = [typed.slice(0, at), typed.slice(at + 1)]
  const known = UNITS.find((other) => other === unit)
  return known ? durationOf(wholeTyped(value, least), known) : duration(value.trim())
}

const blank = (typed: string): boolean => typed.trim() === ''

/** What a setting stands at, as it is typed. @param decimals of the currency */
export function typedOf<T>(setting: Setting<T>, of: T, decimals: number): string {
  switch (setting.is) {
    case 'switch':
      return setting.read(of) ? 'yes' : ''
    case 'times':
      return setting.read(of).join(', ')
    case 'duration':
      return durationTyped(setting.read(of))
    case 'money': {
      const value = setting.read(of)
      return value === undefined ? '' : (value / 10 ** decimals).toFixed(decimals)
    }
    default:
      return String(setting.read(of) ?? '')
  }
}

/** The thing with what was typed. @throws Error with a sentence when it can't be used */
export function withTyped<T>(setting: Setting<T>, of: T, typed: string, decimals: number): T {
  const none = 'empty' in setting && setting.empty === true && blank(typed)
  switch (setting.is) {
    case 'text':
      return setting.write(of, none ? undefined : typed)
    case 'whole':
      return setting.write(of, none ? undefined : wholeTyped(typed, setting.least, setting.most))
    case 'limit':
      return setting.write(of, blank(typed) ? undefined : limit(typed))
    case 'duration':
      return setting.write(of, durationFrom(typed, setting.least ?? 0))
    case 'switch':
      return setting.write(of, typed === 'yes')
    case 'choice':
      return setting.write(of, typed)
    case 'times':
      return setting.write(
        of,
        typed
          .split(/[,;]+/)
          .filter((text) => text.trim())
          .map(clockTyped)
          .sort(),
      )
    case 'time':
      return setting.write(of, none ? undefined : clockTyped(typed))
    case 'date':
      return setting.write(of, none ? undefined : date(typed.trim()))
    case 'money':
      return setting.write(of, none ? undefined : amount(typed, decimals))
  }
}

/** How a value that stands under one key is read and written; what is set to nothing is left out. */
export const under = <T extends object, K extends keyof T & string>(key: K) => ({
  path: key,
  read: (of: T): T[K] => of[key],
  write: (of: T, value: T[K] | undefined): T => {
    const next = { ...of, [key]: value }
    if (value === undefined) Reflect.deleteProperty(next, key)
    return next
  },
})
