import { type Instant, instant, MINUTE } from '@acolhida/core/time'
import { useSyncExternalStore } from 'react'
import { saying } from './said.ts'

/** How far the relay's clock is ahead of this browser's, in ms; the relay's decides. */
let ahead = 0
let moved = false
let told = false
const listeners = new Set<() => void>()
let ticker: ReturnType<typeof setInterval> | undefined

const tell = (): void => {
  for (const listener of listeners) listener()
}

/** Notes the time an answer of the relay carries. Small differences are the network's and left alone. */
export function noteRelayTime(header: string | null, isMoved: boolean): void {
  if (!header) return
  const difference = Number(header) - Date.now()
  const next = Math.abs(difference) < 2_000 ? 0 : difference
  const changed = Math.abs(next - ahead) > 1_500 || moved !== isMoved || !told
  ahead = next
  moved = isMoved
  told = true
  if (changed) tock()
}

/** Notes what the headers of an answer say of the relay's time. */
export function noteRelay(headers: Headers): void {
  noteRelayTime(headers.get('x-relay-now'), headers.get('x-relay-moved') === '1')
  noteTroubles(headers.get('x-relay-troubles'))
  const [from, to] = (headers.get('x-relay-leapt') ?? '').split(' ').map(Number)
  const next = from && to ? { from: instant(from), to: instant(to) } : undefined
  if (next?.to === leapt?.to) return
  leapt = next
  tell()
}

/** What hinders the relay, by its own words for it; said to the desk alone. */
let troubles = 'none'
function noteTroubles(said: string | null): void {
  if (said === null || said === troubles) return
  troubles = said
  tell()
}
/** `none`, or what hinders the relay, with spaces between. */
export const useRelayTroubles = (): string => useSyncExternalStore(subscribe, () => troubles)

/** The clock of the relay has leapt, and nothing happens there by itself until the practitioner has said that it is right. */
let leapt: { from: Instant; to: Instant } | undefined
export const useLeapt = (): typeof leapt => useSyncExternalStore(subscribe, () => leapt)

/** The relay's time, as well as this browser knows it. */
export const relayNow = (): Instant => instant(Date.now() + ahead)

/** The relay's time cut to the second, as it was at the last tick: nothing else changes it, however long a drawing takes. */
let tick = instant(0)
const tock = (): void => {
  tick = instant(Math.floor(relayNow() / 1_000) * 1_000)
  tell()
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener)
  if (!ticker) {
    tock()
    ticker = setInterval(tock, 1_000)
  }
  return () => {
    listeners.delete(listener)
    if (listeners.size === 0) {
      clearInterval(ticker)
      ticker = undefined
    }
  }
}

const atTick = (): Instant => {
  // Before the first tick, and where nothing listens, the clock itself is asked.
  if (!ticker) tick = instant(Math.floor(relayNow() / 1_000) * 1_000)
  return tick
}

/** The relay's time, cut to the second. What uses it is drawn anew each second: only what shows seconds. */
export const useNow = (): Instant => useSyncExternalStore(subscribe, atTick)

/** The relay's time, cut to the minute. */
export const useMinute = (): Instant =>
  useSyncExternalStore(subscribe, () => instant(Math.floor(atTick() / MINUTE) * MINUTE))

/**
 * What the clock makes of something; drawn anew only when that becomes another.
 * @param of gives a text, a number, a yes or no
 */
export const useAt = <T extends string | number | boolean | undefined>(of: (now: Instant) => T): T =>
  useSyncExternalStore(subscribe, () => of(atTick()))

/** What to tell somebody whose clock is not the relay's; nothing when they agree to a minute. */
export const useClockNote = (): string | undefined =>
  useSyncExternalStore(subscribe, () => {
    if (Math.abs(ahead) <= MINUTE) return undefined
    if (moved) return saying('clock-moved')
    const minutes = Math.round(Math.abs(ahead) / MINUTE)
    return saying('clock-off', { minutes, way: ahead > 0 ? 'slow' : 'fast' })
  })
