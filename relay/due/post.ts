import { setTimeout as sleep } from 'node:timers/promises'
import { type Due, nameOf } from '@acolhida/core/agenda'
import { type Handed, handSeveral, unknown, type Went, wentSeveral } from '@acolhida/core/house'
import { DOOR_TOKEN, LINK_TOKEN, letterHtml, WORD_TOKEN, YOURS_TOKEN } from '@acolhida/core/messages'
import type { Practice } from '@acolhida/core/practice'
import { directionOf, type Instant } from '@acolhida/core/time'
import type { SendMailOptions, Transporter } from 'nodemailer'
import { fileTrouble, type Health } from '../ground/health.ts'
import { log } from '../ground/log.ts'
import type { MailNames } from '../ground/settings.ts'
import type { Here } from '../house/here.ts'
import { mailHost } from '../mail/host.ts'
import { invitation } from '../mail/invitation.ts'
import { type MailTrouble, mailTrouble } from '../mail/problem.ts'
import type { SqliteStore } from '../store/sqlite-store.ts'
import { type Gateway, NotTaken } from '../texts/gateway.ts'

export interface MailSettings extends MailNames {
  /** smtp:// or smtps:// address of the host that takes the mail. */
  smtp: string
}

/** How addresses of the door are written in messages. */
export type DoorAddress = (path: string) => string

/**
 * How many messages are marked at once as being handed over; they go over the connections of `mail/host.ts`. Of so many
 * at the most nobody knows what became of them, should the relay end in between.
 */
const AT_ONCE = 10

/** How long an end waits for what is just being handed over, in ms; what is not answered by then is unknown. */
const LAST_PATIENCE = 2_500

/** For how long answers of the hosts are gathered at the most before they are noted together, in ms. */
const GATHER = 20

/** What stands for the private link in a message. */
const LINK = new RegExp(`${LINK_TOKEN}|${WORD_TOKEN}|${YOURS_TOKEN}`, 'g')

const isMessage = ({ doing }: Due): boolean => doing.do === 'message'

/** Why something could not be handed over; `final`: nothing will change that. */
interface Problem {
  problem: string
  final?: boolean
}

/** What the host says of one mail is final in the fives (RFC 5321, §4.2.1); what it says of this relay is to be mended. */
const OF_THE_RELAY = new Set<MailTrouble>(['mail.sign-in', 'mail.certificate', 'mail.no-tls', 'mail.sender'])
const mailProblem = (error: Error & { responseCode?: number }, trouble: MailTrouble): Problem => ({
  problem: error.message,
  ...((error.responseCode ?? 0) >= 500 && !OF_THE_RELAY.has(trouble) ? { final: true } : {}),
})

/** Hands over what is due, one round at a time. Each message is written anew from how things stand then. */
export class Post {
  readonly #here: Here
  readonly #address: DoorAddress
  readonly #deskAddress: DoorAddress
  readonly #names: MailNames
  readonly #health: Health
  readonly #transport: Transporter
  readonly #gateway: Gateway | undefined
  readonly #gone: Went[] = []
  /** Of how many no answer has come yet. */
  #awaited = 0
  #closing = false
  #noting: NodeJS.Timeout | undefined
  #round: Promise<void> | undefined

  /** @param gateway by which texts go; where there is none, they fail */
  constructor(
    here: Here,
    { door, desk }: { door: DoorAddress; desk: DoorAddress },
    { smtp, ...names }: MailSettings,
    health: Health,
    gateway?: Gateway,
  ) {
    this.#here = here
    this.#address = door
    this.#deskAddress = desk
    this.#names = names
    this.#health = health
    this.#gateway = gateway
    this.#transport = mailHost(smtp)
  }

  /** Whether the host takes this relay's mail, before any is due: what is wrong stands at the desk. */
  async verify(): Promise<void> {
    try {
      await this.#transport.verify()
      this.#health.isWell('mail')
    } catch (error) {
      this.#trouble(error as Error)
    }
  }

  #trouble(error: Error): MailTrouble {
    const trouble = mailTrouble(error)
    // What a host says of one box is no trouble with the host.
    const { responseCode, command } = error as { responseCode?: number; command?: string }
    if (responseCode === undefined || OF_THE_RELAY.has(trouble) || command === 'CONN')
      this.#health.is(trouble)
    return trouble
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

  /** The round that is just being sent, if one is. */
  get underWay(): Promise<void> | undefined {
    return this.#round
  }

  async close(): Promise<void> {
    this.#closing = true
    await Promise.race([this.#round, sleep(LAST_PATIENCE, undefined, { ref: false })])
    this.#transport.close()
  }

  async #send(): Promise<void> {
    if (this.#gone.length > 0) this.#note()
    while (!this.#closing) {
      const dues = this.#due()
      if (dues.length === 0) return
      const handed = this.#here.call(handSeveral, { dues })
      const going = handed.flatMap((one, i) => (one ? [{ due: dues[i]!, one }] : []))
      this.#awaited = going.length
      await Promise.all(going.map(({ due, one }) => this.#deliver(due, one).then((went) => this.#came(went))))
    }
  }

  /** What is due now, no two of one subject: they go in the order in which they are meant. */
  #due(): Due[] {
    const dues = new Map<string, Due>()
    const now = this.#here.now()
    for (const due of this.#here.keeper.house.agenda()) {
      if (due.at > now || dues.size === AT_ONCE) break
      const name = nameOf(due.subject)
      if (isMessage(due) && !dues.has(name)) dues.set(name, due)
    }
    return [...dues.values()]
  }

  /** What came of one: noted with whatever else comes meanwhile, as a write for each would take longer than all the rest. */
  #came(went: Went): void {
    this.#gone.push(went)
    this.#awaited--
    if (this.#awaited === 0) this.#note()
    else this.#noting ??= setTimeout(() => this.#noteSome(), GATHER)
  }

  #noteSome(): void {
    try {
      this.#note()
    } catch (error) {
      // They are noted with the next that comes, or before the next round.
      if (fileTrouble(error) === undefined)
        log.error({ err: error }, 'What became of messages could not be noted yet.')
    }
  }

  /** What can't be noted now is kept: nothing that went is forgotten, or goes again, while this process lives. */
  #note(): void {
    clearTimeout(this.#noting)
    this.#noting = undefined
    const all = this.#gone.splice(0)
    try {
      this.#here.call(wentSeveral, { all })
    } catch (error) {
      this.#gone.unshift(...all)
      throw error
    }
  }

  async #deliver(due: Due, handed: Handed): Promise<Went> {
    const { practice } = this.#here.keeper.house
    if (!practice) throw new Error('There is no practice to write for.')
    const { recipient, subject } = handed
    const problem =
      handed.channel === 'text' ? await this.#text(practice, handed) : await this.#mail(practice, handed)
    // Who reads the record must not come by a client's link.
    const text = this.#withDoor(practice, handed.text).replace(LINK, () => '(private link)')
    return { due, recipient, subject, text, ...problem }
  }

  async #text(practice: Practice, handed: Handed): Promise<Problem | undefined> {
    if (!this.#gateway) return { problem: 'no-gateway', final: true }
    const { key: id, recipient: to } = handed
    return this.#gateway.send({ id, to, text: this.#filled(practice, handed) }).then(
      () => undefined,
      (error: unknown) => ({
        problem: (error as Error).message,
        ...(error instanceof NotTaken && error.final ? { final: true } : {}),
      }),
    )
  }

  async #mail(practice: Practice, handed: Handed): Promise<Problem | undefined> {
    return this.#transport
      .sendMail(
        mailOf(
          practice,
          this.#names,
          handed,
          this.#filled(practice, handed),
          {
            unsubscribe: this.#unsubscribe(handed),
            link: handed.link && this.#url(practice.profile.slug, handed.link),
          },
          this.#here.clock.now(),
        ),
      )
      .then(
        () => {
          this.#health.isWell('mail')
          return undefined
        },
        (error: unknown) => mailProblem(error as Error, this.#trouble(error as Error)),
      )
  }

  /** The text as it goes: with the private link, and the door's address. */
  #filled(practice: Practice, { text, link }: Handed): string {
    const { slug } = practice.profile
    return this.#withDoor(
      practice,
      link
        ? text.replace(LINK, (token) =>
            token === YOURS_TOKEN ? this.#yours(slug, link) : this.#url(slug, link),
          )
        : text,
    )
  }

  /** Where one press unsubscribes (RFC 8058), for what can be unsubscribed from. */
  #unsubscribe({ unsubscribe, link }: Handed): string | undefined {
    return unsubscribe && link
      ? this.#address(`/api/link/${this.#here.secrets.of(link.id)}/unsubscribe`)
      : undefined
  }

  #withDoor({ profile }: Practice, text: string): string {
    return text.replaceAll(DOOR_TOKEN, () => this.#address(`/${profile.slug}`))
  }

  /** The page of everything that is theirs; the key to what is half done stands in the fragment, and is sent to nobody. */
  #yours(slug: string, { id, half }: NonNullable<Handed['link']>): string {
    const { secrets } = this.#here
    return this.#address(`/${slug}/yours/${secrets.of(id)}${half ? `#${secrets.of(half)}` : ''}`)
  }

  #url(slug: string, { id, leads, service }: NonNullable<Handed['link']>): string {
    const secret = this.#here.secrets.of(id)
    // In the fragment, it is sent to nobody by looking at it.
    if (leads === 'word') return this.#deskAddress(`/word#${secret}`)
    if (leads === 'yours') return this.#address(`/${slug}/yours/${secret}`)
    if (leads === 'line') return this.#address(`/${slug}/in-line/${secret}`)
    return this.#address(
      leads === 'my' ? `/${slug}/my/${secret}` : `/${slug}/${service}?with=${secret}&quote=${secret}`,
    )
  }
}

/** The part of a message's identity that stands before the @ (RFC 5322, §3.6.4): what names it, and nothing else. */
const idIn = (name: string, domain: string): string =>
  `<${name.replaceAll(/[^A-Za-z0-9._-]/g, '.')}@${domain}>`

/** A mail as it is handed to the host: plain text and HTML from one source, and what machines read of it. */
export function mailOf(
  practice: Practice,
  { from, replyTo, envelope, domain }: MailNames,
  { key, recipient, to, subject, invite, booking, language }: Handed,
  text: string,
  { unsubscribe, link }: { unsubscribe?: string | undefined; link?: string | undefined },
  now: Instant,
): SendMailOptions {
  const { profile, messaging } = practice
  const calendar = invite && booking ? invitation(practice, booking, invite, now, link) : undefined
  const host = domain ?? `${practice.id}.acolhida`
  const thread = booking ? idIn(`booking/${booking.id}`, host) : undefined
  // Whoever answers a mail that comes from another address still reaches the practice.
  const answers = (to === 'client' && messaging?.replyTo) || replyTo || (from ? profile.email : undefined)
  return {
    from: { name: profile.name, address: from ?? profile.email },
    to: recipient,
    ...(envelope ? { envelope: { from: envelope, to: recipient } } : {}),
    ...(answers ? { replyTo: answers } : {}),
    subject,
    text,
    html: letterHtml(text, language, directionOf(language)),
    // The same message keeps its identity, should somebody send it again.
    messageId: idIn(key, host),
    // What belongs to one booking is shown together.
    ...(thread ? { references: thread } : {}),
    date: new Date(now),
    headers: {
      // Nobody answers it by a machine (RFC 3834, §5).
      'Auto-Submitted': 'auto-generated',
      ...(unsubscribe
        ? { 'List-Unsubscribe': `<${unsubscribe}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' }
        : {}),
    },
    ...(calendar && invite
      ? { icalEvent: { method: invite, filename: 'session.ics', content: calendar } }
      : {}),
  }
}
