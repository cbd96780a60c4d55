import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Backup } from '@acolhida/core/formats'
import { Calendars } from './calendars/calendars.ts'
import type { Clock } from './clock.ts'
import type { DoorAddress } from './happen.ts'
import { deskApp } from './http/desk.ts'
import { doorApp } from './http/door.ts'
import { Stream } from './http/stream.ts'
import { Post } from './mail/post.ts'
import { Rounds } from './rounds.ts'
import { Store } from './store/store.ts'
import { Trials } from './trial/trials.ts'

export interface Settings {
  /** Path of the relay's one file. */
  file: string
  /** smtp:// address that takes the mail. */
  smtp: string
  /** How the door is reached from outside; made from the port where it is left out. */
  doorUrl?: string
  doorPages: string
  deskPages: string
  requestsPerMinute: number
  /** For how many days finished bookings are remembered; 400 where it is left out. */
  memoryDays?: number
  /** Whether calendars in private networks and on this machine may be read. */
  privateCalendars?: boolean
  /** Hands out the demo practice; only where stand-ins run. */
  demo?: () => Backup
}

/** The doorkeeper: one file, two servers, one clock. */
export class Relay {
  readonly settings: Settings
  readonly clock: Clock
  readonly store: Store
  readonly deskStream = new Stream(8)
  readonly doorStream = new Stream(500)
  readonly #post: Post
  readonly calendars: Calendars
  readonly rounds: Rounds
  readonly trials: Trials
  #door: Server | undefined
  #desk: Server | undefined

  constructor(settings: Settings, clock: Clock) {
    this.settings = settings
    this.clock = clock
    this.store = new Store(settings.file)
    this.#post = new Post(this.store, clock, { smtp: settings.smtp })
    this.calendars = new Calendars(this.store, clock, settings.privateCalendars ?? false, () => {
      this.deskStream.tell('calendars')
      this.doorStream.tell('openings')
    })
    this.rounds = new Rounds(
      this.store,
      clock,
      this.address,
      this.#post,
      this.calendars,
      settings.memoryDays ?? 400,
    )
    this.trials = new Trials(this.store, clock)
    this.store.onChange = () => {
      this.deskStream.tell('record')
      this.doorStream.tell('openings')
    }
  }

  readonly address: DoorAddress = (path) => `${this.settings.doorUrl ?? urlOf(this.#door)}${path}`

  /** Sends what is due without waiting for the next round, once the answer is out. */
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
    return { door: urlOf(this.#door), desk: urlOf(this.#desk) }
  }

  async stop(): Promise<void> {
    this.rounds.stop()
    this.calendars.close()
    this.trials.close()
    this.deskStream.close()
    this.doorStream.close()
    await Promise.all([close(this.#door), close(this.#desk)])
    await this.#post.close()
    this.store.close()
  }
}

/** Starts a server; when its port is taken, on a free one. */
export function listen(server: Server, port: number, host: string): Promise<Server> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE' && port !== 0) resolve(listen(server, 0, host))
      else reject(error)
    })
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
