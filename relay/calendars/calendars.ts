import type { CalendarState } from '@acolhida/core/contract'
import { BadCalendar, type BusyTimes } from '@acolhida/core/formats/busy'
import { calendarRead } from '@acolhida/core/house'
import type { Entry } from '@acolhida/core/openings'
import type { Subscription } from '@acolhida/core/practice'
import { sha256Hex } from '@acolhida/core/terms'
import { DAY, type Instant, MINUTE, shift } from '@acolhida/core/time'
import { log } from '../ground/log.ts'
import type { Here } from '../house/here.ts'
import { CALENDAR_LIMITS, readAddress, Unreadable } from './read-address.ts'
import { Understanding } from './understand.ts'

/** How old what is known of a calendar may be when a request is taken, in ms. */
const FRESH = MINUTE
/** How long a request waits for other calendars, in ms. */
const PATIENCE = 8_000
/** How far ahead intervals are kept. */
const AHEAD = 400 * DAY

type Read = Subscription & { url: string }
/** What came of a text: what it says, or why it could not be understood. */
type Understood = BusyTimes | Unreadable | BadCalendar

/** Reads the practitioner's other calendars, and keeps their intervals, nothing else. */
export class Calendars {
  readonly #here: Here
  readonly #allowPrivate: boolean
  readonly #onChange: () => void
  readonly #reading = new Map<string, Promise<void>>()
  readonly #understanding: Understanding
  readonly #understood = new Map<string, { print: string; at: Instant; said: Understood }>()

  constructor(here: Here, allowPrivate: boolean, onChange: () => void, understanding = new Understanding()) {
    this.#here = here
    this.#allowPrivate = allowPrivate
    this.#onChange = onChange
    this.#understanding = understanding
  }

  close(): void {
    this.#understanding.close()
  }

  get #subscribed(): Read[] {
    const { practice } = this.#here.keeper.house
    return (practice?.calendars ?? []).filter((calendar): calendar is Read => calendar.url !== undefined)
  }

  /** Reads what is due. */
  async round(): Promise<void> {
    const now = this.#here.clock.now()
    const due = new Set<string>()
    for (const { at, doing, subject } of this.#here.keeper.house.agenda()) {
      if (at > now) break
      if (doing.do === 'read-calendar') due.add(subject.id)
    }
    await Promise.all(this.#subscribed.filter(({ id }) => due.has(id)).map((reading) => this.#read(reading)))
  }

  /** Looks again before a request is taken; what does not answer in time keeps its last state. */
  async lookAgain(): Promise<void> {
    const now = this.#here.clock.now()
    const known = new Map(this.#here.keeper.house.calendars().map((calendar) => [calendar.id, calendar]))
    const old = this.#subscribed.filter(({ id, url }) => {
      const state = known.get(id)
      return !state || state.url !== url || state.tried <= now - FRESH
    })
    if (old.length === 0) return
    let timer: NodeJS.Timeout | undefined
    const late = new Promise<void>((resolve) => {
      timer = setTimeout(resolve, PATIENCE)
    })
    await Promise.race([Promise.all(old.map((reading) => this.#read(reading))), late])
    clearTimeout(timer)
  }

  /** What a calendar says, understood anew only when it says something else, or a day has passed. */
  async #understand(id: string, text: string, owners: string[], now: Instant): Promise<BusyTimes> {
    const home = this.#here.keeper.house.practice?.profile.zone ?? 'UTC'
    const print = sha256Hex(`${home} ${owners} ${text}`)
    const before = this.#understood.get(id)
    const same = before && before.print === print && now - before.at < DAY
    const said: Understood = same
      ? before.said
      : await this.#understanding
          .busyTimes({ text, from: shift(now, -DAY), to: shift(now, AHEAD), home, owners })
          .catch((error: unknown) => {
            if (error instanceof Unreadable || error instanceof BadCalendar) return error
            throw error
          })
    this.#understood.set(id, same ? before : { print, at: now, said })
    if (said instanceof Error) throw said
    return said
  }

  #read(calendar: Read): Promise<void> {
    const under = this.#reading.get(calendar.id)
    if (under) return under
    const work = this.#fetch(calendar).finally(() => this.#reading.delete(calendar.id))
    this.#reading.set(calendar.id, work)
    return work
  }

  async #fetch({ id, url, owner }: Read): Promise<void> {
    const { house } = this.#here.keeper
    const before = house.calendars().find((calendar) => calendar.id === id && calendar.url === url)
    const email = house.practice?.profile.email ?? ''
    const state: CalendarState = {
      id,
      url,
      tried: this.#here.clock.now(),
      entries: before?.entries ?? [],
      skipped: before?.skipped ?? [],
    }
    if (before?.read !== undefined) state.read = before.read
    try {
      const text = await readAddress(url, { ...CALENDAR_LIMITS, allowPrivate: this.#allowPrivate })
      const now = this.#here.clock.now()
      const { entries, skipped } = await this.#understand(id, text, owner ? [email, owner] : [email], now)
      // What the events are about is nobody's business here.
      state.entries = entries.map(
        (entry, i): Entry => ({ ...entry, id: `calendar-${id}-${i}`, calendar: id }),
      )
      state.skipped = skipped
      state.read = now
    } catch (error) {
      const known = error instanceof Unreadable || error instanceof BadCalendar
      // Whatever goes wrong here is this calendar's problem alone, and it is not asked again before its time.
      if (!known) log.error({ err: error, calendar: id }, 'A calendar could not be read.')
      state.problem = known ? error.message : 'It could not be read.'
    }
    this.#here.call(calendarRead, state)
    const same =
      before &&
      before.problem === state.problem &&
      JSON.stringify(before.entries) === JSON.stringify(state.entries)
    if (!same) this.#onChange()
  }
}
