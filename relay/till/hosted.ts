import { type CardFacts, cardShape } from '@acolhida/core/booking'
import type { TillSays } from '@acolhida/core/house'
import { BadData, letIn, type Schema } from '@acolhida/core/schemas'
import { line, maybe, object, one, pattern, text, whole, yes } from '@acolhida/core/shape'
import { bookingName, currency, tokenShape } from '@acolhida/core/shape/plain'
import type { Clock } from '../ground/clock.ts'
import { isSigned, signedHeaders } from '../ground/signature.ts'
import { type Charge, NotSigned, type Till, TillAway, type TillStands, type TillWants } from './till.ts'

/** What a till says of a payment: the body of its messages, and its answer when it is asked. */
export interface TillMessage {
  /** Of this message; the same when it is told again. */
  id: string
  payment: string
  booking: string
  amount: number
  currency: string
  /** Whether it is money, or a trial of the till. */
  live: boolean
  is: 'open' | 'paid' | 'failed' | 'over' | 'kept'
  /** Why, where it failed. */
  text: string
  card?: CardFacts
}

export const saidShape: Schema<TillMessage> = object({
  id: line(100),
  payment: tokenShape,
  booking: bookingName,
  amount: whole(0, 100_000_000_000),
  currency,
  live: yes,
  is: one('open', 'paid', 'failed', 'over', 'kept'),
  text: text(500),
  card: maybe(cardShape),
})
const pageShape = object({ page: pattern(/^https?:\/\/\S{3,1000}$/, 1_010) })

export interface HostedSettings {
  /** Where it is asked, without a path. */
  url: string
  /** Shared with it; signs both ways. */
  secret: string
  /** Whether money is meant. */
  live: boolean
}

/** How long an answer is waited for, in ms. */
const PATIENCE = 10_000
const MOST_BYTES = 20_000

/** A till with a page of its own, spoken to over HTTP; every call and every message is signed. */
export class HostedTill implements Till {
  readonly #settings: HostedSettings
  readonly #clock: Pick<Clock, 'now'>

  constructor(settings: HostedSettings, clock: Pick<Clock, 'now'>) {
    this.#settings = settings
    this.#clock = clock
  }

  get live(): boolean {
    return this.#settings.live
  }

  async ask(wanted: TillWants): Promise<{ page: string }> {
    return letIn(pageShape, await this.#call('POST', '/payments', wanted), 'The till')
  }

  async look(payment: string): Promise<TillStands> {
    const found = await this.#call('GET', `/payments/${payment}`)
    return found === undefined ? 'unknown' : this.#said(found)
  }

  async charge(charge: Charge): Promise<TillStands> {
    return this.#said(await this.#call('POST', '/charges', charge))
  }

  async giveBack({ payment, ...of }: { payment: string; name: string; amount: number }): Promise<void> {
    await this.#call('POST', `/payments/${payment}/back`, of)
  }

  async read(
    request: Parameters<Till['read']>[0],
    raw: Uint8Array,
    now: Parameters<Till['read']>[2],
  ): Promise<TillSays> {
    if (!(await isSigned(request, raw, this.#settings.secret, now))) throw new NotSigned()
    const said = this.#said(parsed(Buffer.from(raw).toString('utf8')))
    if (said === 'open') throw new NotSigned()
    return said
  }

  #said(value: unknown): Exclude<TillStands, 'unknown'> {
    const said = letIn(saidShape, value, 'The till')
    if (said.live !== this.#settings.live)
      throw new TillAway(`It says ${said.live ? 'money' : 'a trial'}, and is set up otherwise.`)
    const { id: message, live: _, is, ...rest } = said
    return is === 'open' ? is : { ...rest, message, says: is }
  }

  async #call(method: 'GET' | 'POST', path: string, of?: object): Promise<unknown> {
    const { url, secret, live } = this.#settings
    const body = of === undefined ? '' : JSON.stringify({ ...of, live })
    try {
      const answer = await fetch(`${url}${path}`, {
        method,
        headers: {
          'content-type': 'application/json',
          ...(await signedHeaders({ method, path }, Buffer.from(body), secret, this.#clock.now())),
        },
        ...(method === 'POST' ? { body } : {}),
        redirect: 'error',
        signal: AbortSignal.timeout(PATIENCE),
      })
      const said = await answer.text()
      if (answer.status === 404 && method === 'GET') return undefined
      if (!answer.ok || said.length > MOST_BYTES) throw new TillAway(`It answered ${answer.status}.`)
      return parsed(said)
    } catch (error) {
      if (error instanceof TillAway) throw error
      throw new TillAway((error as Error).message)
    }
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw new BadData('The till', [{ path: '', message: 'says no JSON' }])
  }
}
