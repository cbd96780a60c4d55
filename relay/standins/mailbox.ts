import { buffer } from 'node:stream/consumers'
import { type AddressObject, type ParsedMail, simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import type { Manner } from './manner.ts'

export interface Received {
  id: number
  to: string
  from: string
  subject: string
  text: string
  html: string
  /** The whole of it, as it came over the wire. */
  raw: Buffer
  /** Its header fields as they came, by their names in small letters. */
  headers: Record<string, string>
  /** When it was received, epoch ms. */
  at: number
  calendar?: string
  /** As its sender named it. */
  messageId: string
}

/** An answer of a mail host that refuses. */
const answer = (responseCode: number, message: string): Error =>
  Object.assign(new Error(message), { responseCode })

/** The stand-in for a mail host: real SMTP on a loopback port, kept in memory. */
export class Mailbox {
  readonly received: Received[] = []
  /** How it behaves. */
  manner: Manner = 'takes'
  /** Addresses that it refuses for good. */
  readonly refused = new Set<string>()
  readonly #late: (() => void)[] = []
  readonly #server: SMTPServer
  #count = 0

  constructor() {
    this.#server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      disableReverseLookup: true,
      onRcptTo: (address, _session, done) => {
        if (this.manner === 'down') done(answer(421, 'Try again later'))
        else if (this.manner === 'refuses' || this.refused.has(address.address))
          done(answer(550, 'No such mailbox'))
        else done()
      },
      onData: (stream, _session, done) => {
        buffer(stream)
          .then(async (raw) => {
            const mail = await simpleParser(raw)
            const take = (): void => {
              this.#keep(mail, raw)
              done()
            }
            if (this.manner === 'slow') this.#late.push(take)
            else take()
          })
          .catch(done)
      },
    })
    this.#server.on('error', (error) => console.error('The mail stand-in:', error.message))
  }

  /** Takes what it has been slow about. */
  catchUp(): void {
    for (const take of this.#late.splice(0)) take()
  }

  #keep(mail: ParsedMail, raw: Buffer): void {
    const calendar = mail.attachments.find((attachment) => attachment.contentType === 'text/calendar')
    const named = (address: AddressObject | AddressObject[] | undefined): string =>
      [address ?? []]
        .flat()
        .map((address) => address.text)
        .join(', ')
    this.received.push({
      id: ++this.#count,
      raw,
      to: named(mail.to),
      from: named(mail.from),
      subject: mail.subject ?? '',
      text: (mail.text ?? '').replace(/\n$/, ''),
      html: typeof mail.html === 'string' ? mail.html : '',
      headers: Object.fromEntries(mail.headerLines.map(({ key, line }) => [key, line])),
      at: mail.date?.getTime() ?? Date.now(),
      messageId: mail.messageId ?? '',
      ...(calendar ? { calendar: calendar.content.toString('utf8') } : {}),
    })
  }

  /** Starts it on a port (0: a free one) and gives its smtp:// address. */
  start(port = 0): Promise<string> {
    return new Promise((resolve, reject) => {
      this.#server.once('error', reject)
      this.#server.listen(port, '127.0.0.1', () => {
        const address = this.#server.server.address()
        resolve(`smtp://127.0.0.1:${typeof address === 'object' && address ? address.port : port}`)
      })
    })
  }

  stop(): Promise<void> {
    this.catchUp()
    return new Promise((resolve) => this.#server.close(() => resolve()))
  }
}
