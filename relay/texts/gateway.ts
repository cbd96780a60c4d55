import type { TextSaid } from '@acolhida/core/house'
import { BadData, letIn, type Schema } from '@acolhida/core/schemas'
import { line, object, text } from '@acolhida/core/shape'
import type { Instant } from '@acolhida/core/time'
import { isSigned, type Signed, signedHeaders } from '../ground/signature.ts'

/** One text message to a phone. */
export interface TextMessage {
  /** Names it: said again by the same name, it is the same message, and goes once. */
  id: string
  to: string
  text: string
}

/** The gateway has not taken a text. `final`: it never will. */
export class NotTaken extends Error {
  constructor(
    message: string,
    readonly final: boolean,
  ) {
    super(message)
  }
}
/** A message that is not the gateway's, or not a fresh one. */
export class NotTheGateway extends Error {}

/** What the relay needs of whoever sends texts. A provider is one file that does this. */
export interface Gateway {
  /** @throws NotTaken */
  send(message: TextMessage): Promise<void>
  /** Reads what somebody has answered. @param raw the body as it came @throws NotTheGateway */
  read(request: Signed, raw: Uint8Array, now: Instant): Promise<TextSaid>
  /** Hears what the gateway tells of a number. */
  close?(): void
}

export interface GatewaySettings {
  /** Where it is asked, without a path. */
  url: string
  /** Shared with it; signs both ways. */
  secret: string
}

/** How long an answer is waited for, in ms. */
const PATIENCE = 10_000

const saidShape: Schema<TextSaid> = object({ id: line(100), from: line(40), text: text(2_000) })

/** A gateway that is spoken to over HTTP; every call and every message is signed (RFC 9421). */
export class HttpGateway implements Gateway {
  readonly #settings: GatewaySettings
  readonly #now: () => Instant

  constructor(settings: GatewaySettings, now: () => Instant) {
    this.#settings = settings
    this.#now = now
  }

  async send(message: TextMessage): Promise<void> {
    const { url, secret } = this.#settings
    const path = '/texts'
    const body = JSON.stringify(message)
    let status: number
    try {
      const answer = await fetch(`${url}${path}`, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          'idempotency-key': message.id,
          ...(await signedHeaders({ method: 'POST', path }, Buffer.from(body), secret, this.#now())),
        },
        body,
        redirect: 'error',
        signal: AbortSignal.timeout(PATIENCE),
      })
      await answer.body?.cancel()
      status = answer.status
    } catch (error) {
      throw new NotTaken((error as Error).message, false)
    }
    if (status >= 200 && status < 300) return
    // What is too much or too early is worth another try; what is wrong never gets better.
    throw new NotTaken(
      `It answered ${status}.`,
      status >= 400 && status < 500 && status !== 408 && status !== 429,
    )
  }

  async read(request: Signed, raw: Uint8Array, now: Instant): Promise<TextSaid> {
    if (!(await isSigned(request, raw, this.#settings.secret, now))) throw new NotTheGateway()
    return letIn(saidShape, parsed(Buffer.from(raw).toString('utf8')), 'The gateway')
  }
}

function parsed(said: string): unknown {
  try {
    return JSON.parse(said)
  } catch {
    throw new BadData('The gateway', [{ path: '', message: 'says no JSON' }])
  }
}
