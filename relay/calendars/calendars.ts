import type { CalendarState } from '@acolhida/core/door'
import { BadCalendar, type BusyTimes } from '@acolhida/core/formats/busy'
import type { Entry } from '@acolhida/core/openings'
import type { Subscription } from '@acolhida/core/practice'
import { sha256Hex } from '@acolhida/core/terms'
import { DAY, type Instant, MINUTE, shift } from '@acolhida/core/time'
import type { Clock } from '../clock.ts'
import type { Store } from '../store/store.ts'
import { CALENDAR_LIMITS, readAddress, Unreadable } from './read-address.ts'
import { Understanding } from './understand.ts'

/** How often each calendar is read, and how old what is known may be when a request is taken, in ms. */
const EVERY = 5 * MINUTE
const FRESH = MINUTE
/** How long a request waits for other calendars, in ms. */
const PATIENCE = 8_000
/** How far ahead intervals are kept. */
const AHEAD = 400 * DAY

type Read = Subscription & { url: string }

/** Reads the practitioner's other calendars, and keeps their intervals, nothing else. */
export class Calendars {
  readonly #store: Store
  readonly #clock: Clock
  readonly #allowPrivate: boolean
  readonly #onChange: () => void
  readonly #reading = new Map<string, Promise<void>>()
  readonly #understanding = new Understanding()
  readonly #understood = new Map<string, { print: string; at: Instant; said: BusyTimes }>()

  constructor(store: Store, clock: Clock, allowPrivate: boolean, onChange: () => void) {
    this.#store = store
    this.#clock = clock
    this.#allowPrivate = allowPrivate
    this.#onChange = onChange
  }

  close(): void {
    this.#understanding.close()
  }

  get #subscribed(): Read[] {
    return (this.#store.package?.practice.calendars ?? []).filter((one): one is Read => one.url !== undefined)
  }

  /** Reads what is due; part of each round. */
  async round(): Promise<void> {
    const kept = new Set(this.#subscribed.map((one) => one.id))
    const gone = this.#store.calendars.all().filter((one) => !kept.has(one.id))
    if (gone.length > 0) {
      this.#store.act(() => {
        for (const { id } of gone) this.#store.calendars.drop(id)
      })
      this.#onChange()
    }
    await this.#readOlderThan(EVERY)
  }

  /** Looks again before a request is taken; what does not answer in time keeps its last state. */
  async lookAgain(): Promise<void> {
    let timer: NodeJS.Timeout | undefined
    const late = new Promise<void>((resolve) => {
      timer = setTimeout(resolve, PATIENCE)
    })
    await Promise.race([this.#readOlderThan(FRESH), late])
    clearTimeout(timer)
  }

  /** What a calendar says, understood anew only when it says something else, or a day has passed. */
  async #understand(id: string, text: string, owners: string[], now: Instant): Promise<BusyTimes> {
    const home = this.#store.package!.practice.profile.zone
    const print = sha256Hex(`${home} ${owners} ${text}`)
    const before = this.#understood.get(id)
    if (before && before.print === print && now - before.at < DAY) return before.said
    const said = await this.#understanding.busyTimes({
      text,
      from: shift(now, -DAY),
      to: shift(now, AHEAD),
      home,
      owners,
    })
    this.#understood.set(id, { print, at: now, said })
    return said
  }

  async #readOlderThan(age: number): Promise<void> {
    const now = this.#clock.now()
    const known = new Map(this.#store.calendars.all().map((one) => [one.id, one]))
    const due = this.#subscribed.filter((one) => {
      const state = known.get(one.id)
      return !state || state.url !== one.url || state.tried <= now - age
    })
    await Promise.all(due.map((one) => this.#read(one)))
  }

  #read(calendar: Read): Promise<void> {
    const under = this.#reading.get(calendar.id)
    if (under) return under
    const work = this.#fetch(calendar).finally(() => this.#reading.delete(calendar.id))
    this.#reading.set(calendar.id, work)
    return work
  }

  async #fetch({ id, url, owner }: Read): Promise<void> {
    const before = this.#store.calendars.all().find((one) => one.id === id && one.url === url)
    const { profile } = this.#store.package!.practice
    const state: CalendarState = {
      id,
      url,
      tried: this.#clock.now(),
      entries: before?.entries ?? [],
      skipped: before?.skipped ?? [],
    }
    if (before?.read !== undefined) state.read = before.read
    try {
      const text = await readAddress(url, { ...CALENDAR_LIMITS, allowPrivate: this.#allowPrivate })
      const now = this.#clock.now()
      const { entries, skipped } = await this.#understand(
        id,
        text,
        owner ? [profile.email, owner] : [profile.email],
        now,
      )
      // What the events are about is nobody's business here.
      state.entries = entries.map((entry, i): Entry => ({ ...entry, id: `calendar-${id}-${i}` }))
      state.skipped = skipped
      state.read = now
    } catch (error) {
      if (!(error instanceof Unreadable) && !(error instanceof BadCalendar)) throw error
      state.problem = error.message
    }
    this.#store.act(() => this.#store.calendars.save(state))
    const same =
      before &&
      before.problem === state.problem &&
      JSON.stringify(before.entries) === JSON.stringify(state.entries)
    if (!same) this.#onChange()
  }
}
