import type { Due } from '@acolhida/core/agenda'
import { type Handed, hand, unknown, went } from '@acolhida/core/house'
import type { Practice } from '@acolhida/core/practice'
import nodemailer, { type Transporter } from 'nodemailer'
import type { Here } from '../house/here.ts'
import { invitation } from '../mail/invitation.ts'
import type { SqliteStore } from '../store/sqlite-store.ts'

export interface MailSettings {
  /** smtp:// or smtps:// address of the host that takes the mail. */
  smtp: string
}

/** How addresses of the door are written in messages. */
export type DoorAddress = (path: string) => string

/** How many messages are handed over at once. */
const AT_ONCE = 50

/** What stands for the private link in a message. */
const LINK = /\{(?:link|word)\}/

const isMessage = ({ doing }: Due): boolean => doing.do === 'message'

/** Hands over what is due, one round at a time. Each message is written anew from how things stand then. */
export class Post {
  readonly #here: Here
  readonly #address: DoorAddress
  readonly #deskAddress: DoorAddress
  readonly #transport: Transporter
  #round: Promise<void> | undefined

  constructor(here: Here, address: DoorAddress, deskAddress: DoorAddress, { smtp }: MailSettings) {
    this.#here = here
    this.#address = address
    this.#deskAddress = deskAddress
    this.#transport = nodemailer.createTransport({
      url: smtp,
      pool: true,
      maxConnections: 2,
      disableFileAccess: true,
      disableUrlAccess: true,
      connectionTimeout: 10_000,
    })
  }

  /** What was being handed over when the relay ended is unknown, and not sent again by itself. */
  begin(store: SqliteStore): void {
    for (const message of store.handed()) this.#here.call(unknown, message)
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
      const dues: Due[] = []
      const now = this.#here.now()
      for (const due of this.#here.keeper.house.agenda()) {
        if (due.at > now || dues.length === AT_ONCE) break
        if (isMessage(due)) dues.push(due)
      }
      if (dues.length === 0) return
      await Promise.all(dues.map((due) => this.#deliver(due)))
    }
  }

  async #deliver(due: Due): Promise<void> {
    const handed = this.#here.call(hand, { due })
    const { practice } = this.#here.keeper.house
    if (!handed || !practice) return
    const { recipient, subject } = handed
    const problem = await this.#transport
      .sendMail(this.#mail(practice, handed))
      .then(() => undefined)
      .catch((error: Error) => error.message)
    // Who reads the record must not come by a client's link.
    const text = this.#withDoor(practice, handed.text).replace(LINK, () => '(private link)')
    this.#here.call(went, {
      due,
      recipient,
      subject,
      text,
      ...(problem === undefined ? {} : { problem }),
    })
  }

  #mail(practice: Practice, { key, recipient, subject, text, link, invite, booking }: Handed) {
    const { profile } = practice
    const now = this.#here.clock.now()
    const calendar = invite && booking ? invitation(practice, booking, invite, now) : undefined
    return {
      from: { name: profile.name, address: profile.email },
      to: recipient,
      subject,
      text: this.#withDoor(practice, link ? text.replace(LINK, () => this.#url(profile.slug, link)) : text),
      // The same message keeps its identity, should somebody send it again.
      messageId: `<${key.replaceAll(/[^A-Za-z0-9._-]/g, '.')}@${practice.id}.acolhida>`,
      date: new Date(now),
      ...(calendar && invite
        ? { icalEvent: { method: invite, filename: 'session.ics', content: calendar } }
        : {}),
    }
  }

  #withDoor({ profile }: Practice, text: string): string {
    return text.replace('{door}', () => this.#address(`/${profile.slug}`))
  }

  #url(slug: string, { id, leads, service }: NonNullable<Handed['link']>): string {
    const secret = this.#here.secrets.of(id)
    // In the fragment, it is sent to nobody by looking at it.
    if (leads === 'word') return this.#deskAddress(`/word#${secret}`)
    return this.#address(
      leads === 'my' ? `/${slug}/my/${secret}` : `/${slug}/${service}?with=${secret}&quote=${secret}`,
    )
  }
}
