import { type Instant, MINUTE, shift } from '@acolhida/core/time'
import nodemailer, { type Transporter } from 'nodemailer'
import type { Clock } from '../clock.ts'
import type { OutboxRow, Store } from '../store/store.ts'

export interface MailSettings {
  /** smtp:// or smtps:// address of the host that takes the mail. */
  smtp: string
}

/** How often a message is tried, and how long after one try the next comes, in minutes. */
const WAITS = [1, 2, 5, 15, 60, 180, 360]

/** Sends what is due, one round at a time. */
export class Post {
  readonly #store: Store
  readonly #clock: Clock
  readonly #transport: Transporter
  #round: Promise<void> | undefined

  constructor(store: Store, clock: Clock, settings: MailSettings) {
    this.#store = store
    this.#clock = clock
    this.#transport = nodemailer.createTransport(settings.smtp, {
      pool: true,
      maxConnections: 2,
      disableFileAccess: true,
      disableUrlAccess: true,
      connectionTimeout: 10_000,
    } as never)
  }

  /** Sends everything due now; a second call joins the round under way. */
  round(): Promise<void> {
    this.#round ??= this.#send().finally(() => {
      this.#round = undefined
    })
    return this.#round
  }

  async close(): Promise<void> {
    await this.#round
    this.#transport.close()
  }

  async #send(): Promise<void> {
    for (;;) {
      const rows = this.#store.outboxDue(this.#clock.now(), 50)
      if (rows.length === 0) return
      const went = await Promise.all(rows.map((row) => this.#deliver(row)))
      if (went.every((ok) => !ok)) return
    }
  }

  async #deliver(row: OutboxRow): Promise<boolean> {
    const { profile } = this.#store.package?.practice ?? {}
    if (!profile) return false
    try {
      await this.#transport.sendMail({
        from: { name: profile.name, address: profile.email },
        to: row.recipient,
        subject: row.subject,
        text: row.body,
        // The same message keeps its identity, should it be sent again after a crash in between.
        messageId: `<${row.key.replaceAll('/', '.')}@${profile.slug}.acolhida>`,
        date: new Date(this.#clock.now()),
        ...(row.calendar
          ? { icalEvent: { method: methodOf(row.calendar), filename: 'session.ics', content: row.calendar } }
          : {}),
      })
      this.#settle(row, 'sent')
      return true
    } catch (error) {
      const wait = WAITS[row.tries]
      if (wait === undefined) this.#settle(row, 'failed', (error as Error).message)
      else this.#store.act(() => this.#store.retryLetter(row.key, shift(this.#clock.now(), wait * MINUTE)))
      return false
    }
  }

  #settle(row: OutboxRow, state: 'sent' | 'failed', reason?: string): void {
    const now: Instant = this.#clock.now()
    this.#store.act(() => {
      this.#store.settleLetter(row.key, state)
      this.#store.appendMail(now, row, {
        step: row.step,
        state,
        to: row.recipient,
        subject: row.subject,
        due: row.due,
        ...(reason ? { reason } : {}),
      })
    })
  }
}

const methodOf = (calendar: string): string => /^METHOD:(\w+)/m.exec(calendar)?.[1] ?? 'REQUEST'
