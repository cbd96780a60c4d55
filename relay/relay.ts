import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { setTimeout as sleep } from 'node:timers/promises'
import type { Backup } from '@acolhida/core/formats'
import { assumeSent, Doorkeeper, replan } from '@acolhida/core/house'
import { DAY, HOUR, type Instant, instant } from '@acolhida/core/time'
import { Calendars } from './calendars/calendars.ts'
import { Demo } from './demo.ts'
import { type DoorAddress, Post } from './due/post.ts'
import { Rounds } from './due/rounds.ts'
import { Sealings } from './due/sealings.ts'
import { TillRounds } from './due/till-rounds.ts'
import { type Clock, HouseClock } from './ground/clock.ts'
import { Health } from './ground/health.ts'
import { log } from './ground/log.ts'
import type { MailNames } from './ground/settings.ts'
import { Here } from './house/here.ts'
import { deskApp } from './http/desk.ts'
import { doorApp } from './http/door.ts'
import type { HeldLimits } from './http/held.ts'
import { Quotas } from './http/quotas.ts'
import type { Serving } from './http/serving.ts'
import { Stream } from './http/stream.ts'
import { checkpoint, openDatabase } from './store/database.ts'
import { Secrets } from './store/keys.ts'
import { lock } from './store/lock.ts'
import { SqliteStore } from './store/sqlite-store.ts'
import { type Gateway, type GatewaySettings, HttpGateway } from './texts/gateway.ts'
import { type HostedSettings, HostedTill } from './till/hosted.ts'
import type { Till } from './till/till.ts'
import { Trials } from './trial/trials.ts'

export interface Settings {
  /** Path of the relay's one file. */
  file: string
  /** smtp:// address that takes the mail. */
  smtp: string
  /** How the door is reached from outside; made from the port where it is left out. */
  doorUrl?: string
  /** The same of the desk. */
  deskUrl?: string
  doorPages: string
  deskPages: string
  requestsPerMinute: number
  /** How mail names its sender. */
  mail?: MailNames
  /** Whose `X-Forwarded-For` is believed. */
  proxies?: string[]
  /** How many starts may be held without a proof. */
  held?: HeldLimits
  /** How it waits before what is guessed at is answered, by ms. */
  wait?: (ms: number) => Promise<unknown>
  /** For how many days finished bookings are remembered; 400 where it is left out. */
  memoryDays?: number
  /** Where cards are taken, and the secret shared with it; `live` where money is meant. */
  till?: HostedSettings
  /** By which texts go, and the secret shared with it. */
  texts?: GatewaySettings
  /** Whether calendars in private networks and on this machine may be read. */
  privateCalendars?: boolean
  /** Makes the demo practice, with which an empty file begins; only where stand-ins run. */
  demo?: (at: Instant) => Backup
  /** The machine's own count of time in ms, to see leaps of the clock by; false where it is moved on purpose. */
  steady?: (() => number) | false
  /** How far apart two tellings of a stream are, in ms. */
  tellingsApart?: number
}

/** The relay: one file, one doorkeeper, two servers, one clock. */
export class Relay implements Serving {
  readonly settings: Settings
  readonly store: SqliteStore
  readonly clock: HouseClock
  readonly here: Here
  readonly deskStream: Stream
  readonly doorStream: Stream
  readonly calendars: Calendars
  readonly rounds: Rounds
  readonly trials: Trials
  readonly requestsPerMinute: number
  readonly doorPages: string
  readonly deskPages: string
  readonly demo?: Demo
  readonly till?: Till
  readonly gateway?: Gateway
  readonly tillRounds?: TillRounds
  readonly health = new Health()
  readonly quotas: Quotas
  readonly proxies: string[]
  readonly loopbackOnly: boolean
  readonly #post: Post
  readonly #unlock: () => void
  #door: Server | undefined
  #desk: Server | undefined
  #checkpoints: NodeJS.Timeout | undefined

  /** @throws Taken when another relay has the file, NewerFile when it was written by a newer one */
  constructor(settings: Settings, clock: Clock) {
    this.settings = settings
    this.requestsPerMinute = settings.requestsPerMinute
    this.doorPages = settings.doorPages
    this.deskPages = settings.deskPages
    this.quotas = new Quotas(settings.held ?? { byOne: 4, inAll: 24 }, settings.wait)
    this.proxies = settings.proxies ?? []
    this.loopbackOnly = settings.demo !== undefined
    this.#unlock = lock(settings.file)
    this.store = new SqliteStore(openDatabase(settings.file), Secrets.beside(settings.file))
    this.store.health = this.health
    this.store.sealOld()
    const keeper = new Doorkeeper(this.store)
    if (settings.demo) this.demo = new Demo(settings.demo, keeper, this.store, () => clock.now())
    this.clock = new HouseClock(clock, newestIn(this.store), settings.steady)
    this.here = new Here(
      keeper,
      this.clock,
      Secrets.beside(settings.file),
      (settings.memoryDays ?? 400) * DAY,
    )
    const apart = settings.tellingsApart ?? 1_000
    this.deskStream = new Stream(8, apart)
    this.doorStream = new Stream(500, apart)
    keeper.onChange = (what) => {
      this.deskStream.tell('record')
      if (what !== 'record') this.doorStream.tell(what)
    }
    keeper.onBroken = (error) => {
      // What is in memory is no longer what is written: only a start from the file can be trusted.
      log.fatal({ err: error }, 'The relay could not follow what it has written, and ends to start anew.')
      process.exit(70)
    }
    this.#begin()
    if (settings.texts) this.gateway = new HttpGateway(settings.texts, () => this.clock.now())
    this.health.onChange = () => this.deskStream.tell('health')
    this.#post = new Post(
      this.here,
      { door: this.address, desk: this.deskAddress },
      { smtp: settings.smtp, ...settings.mail },
      this.health,
      this.gateway,
    )
    this.#post.begin(this.store)
    this.calendars = new Calendars(this.here, settings.privateCalendars ?? false, () => {
      this.deskStream.tell('calendars')
      this.doorStream.tell('openings')
    })
    if (settings.till) {
      this.till = new HostedTill(settings.till, this.clock)
      this.tillRounds = new TillRounds(this.here, this.till)
    }
    this.rounds = new Rounds(
      this.here,
      {
        post: this.#post,
        calendars: this.calendars,
        sealings: new Sealings(this.here),
        ...(this.tillRounds ? { till: this.tillRounds } : {}),
      },
      (now) => this.store.set('newest', String(now)),
    )
    this.trials = new Trials(this.here)
  }

  /** Plans what is open anew: the program may have changed since the file was written. */
  #begin(): void {
    const waiting = this.store.setting('waiting-before-5')
    if (waiting !== undefined) {
      this.here.call(assumeSent, { but: JSON.parse(waiting) as string[] })
      this.store.unset('waiting-before-5')
    }
    this.here.call(replan, {})
  }

  readonly address: DoorAddress = (path) => `${this.settings.doorUrl ?? urlOf(this.#door)}${path}`

  readonly deskAddress: DoorAddress = (path) => `${this.settings.deskUrl ?? urlOf(this.#desk)}${path}`

  soon(): void {
    setImmediate(() => this.rounds.turn())
  }

  /** Starts both servers, on the ports given or on free ones (0). */
  async start(
    ports: { door: number; desk: number },
    host = '127.0.0.1',
  ): Promise<{ door: string; desk: string }> {
    this.#door = await listen(createServer(doorApp(this)), ports.door, host)
    this.#desk = await listen(createServer(deskApp(this)), ports.desk, host)
    this.rounds.start()
    void this.#post.verify()
    this.#checkpoints = setInterval(() => checkpoint(this.store.db, 'PASSIVE'), HOUR)
    this.#checkpoints.unref()
    return { door: urlOf(this.#door), desk: urlOf(this.#desk) }
  }

  async stop(): Promise<void> {
    this.rounds.stop()
    clearInterval(this.#checkpoints)
    this.calendars.close()
    this.deskStream.close()
    this.doorStream.close()
    await Promise.all([close(this.#door), close(this.#desk)])
    await this.#post.close()
    await Promise.race([this.tillRounds?.close(), sleep(STOPPING, undefined, { ref: false })])
    // What is copied after a clean end is whole by itself.
    checkpoint(this.store.db, 'TRUNCATE')
    this.store.db.close()
    this.#unlock()
  }
}

/** How long an end waits for what is under way outside, in ms. */
const STOPPING = 2_000

/** The newest moment that a file has seen. */
function newestIn(store: SqliteStore): Instant {
  const { at } = store.db
    .prepare('SELECT coalesce(max(at), 0) AS at FROM record WHERE n > (SELECT max(n) - 1000 FROM record)')
    .get() as { at: number }
  return instant(Math.max(at, Number(store.setting('newest') ?? 0)))
}

/** A port that another program has. */
export class PortTaken extends Error {
  constructor(readonly port: number) {
    super(`Port ${port} is taken by another program.`)
  }
}

/** Starts a server; 0 is any free port. @throws PortTaken */
export function listen(server: Server, port: number, host: string): Promise<Server> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      reject(error.code === 'EADDRINUSE' ? new PortTaken(port) : error)
    })
    // Longer than a proxy keeps a connection it may use again: of the two, the proxy ends it.
    server.keepAliveTimeout = 75_000
    server.listen(port, host, () => resolve(server))
  })
}

export function urlOf(server: Server | undefined): string {
  const address = server?.address() as AddressInfo | null | undefined
  return address ? `http://localhost:${address.port}` : ''
}

function close(server: Server | undefined): Promise<void> {
  return new Promise((resolve) => {
    if (!server) {
      resolve()
      return
    }
    server.close(() => resolve())
    server.closeAllConnections()
  })
}
