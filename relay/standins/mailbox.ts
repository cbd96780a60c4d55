import { type AddressObject, type ParsedMail, simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'

export interface Received {
  id: number
  to: string
  from: string
  subject: string
  text: string
  /** When it was received, epoch ms. */
  at: number
  calendar?: string
  /** As its sender named it. */
  messageId: string
}

/** The stand-in for a mail host: real SMTP on a loopback port, kept in memory. */
export class Mailbox {
  readonly received: Received[] = []
  readonly #server: SMTPServer
  #count = 0

  constructor() {
    this.#server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      disableReverseLookup: true,
      onData: (stream, _session, done) => {
        simpleParser(stream)
          .then((mail) => {
            this.#keep(mail)
            done()
          })
          .catch(done)
      },
    })
    this.#server.on('error', (error) => console.error('The mail stand-in:', error.message))
  }

  #keep(mail: ParsedMail): void {
    const calendar = mail.attachments.find((attachment) => attachment.contentType === 'text/calendar')
    const named = (address: AddressObject | AddressObject[] | undefined): string =>
      [address ?? []]
        .flat()
        .map((address) => address.text)
        .join(', ')
    this.received.push({
      id: ++this.#count,
      to: named(mail.to),
      from: named(mail.from),
      subject: mail.subject ?? '',
      text: mail.text ?? '',
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
    return new Promise((resolve) => this.#server.close(() => resolve()))
  }
}
