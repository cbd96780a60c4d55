import { setTimeout } from 'node:timers/promises'
import type { EnquireBody, SendBody, WantedStart } from '@acolhida/core/contract'
import { provesAddress, sameKept, type Unheld } from '@acolhida/core/house'
import { countedMail } from '@acolhida/core/people'
import { Refused } from '@acolhida/core/request'
import { sha256Hex } from '@acolhida/core/terms'
import type { Request } from 'express'
import type { Here } from '../house/here.ts'
import { clientOf } from './client.ts'
import { Held, type HeldLimits } from './held.ts'
import { Hourly } from './hourly.ts'

/** What tells that a code, or a link, was guessed wrong. */
const WRONG_CODES = new Set(['code', 'wrong-code'])

/** How many messages an hour may be written: in one visit, from one address, by one client. */
const WRITES = { visit: 5, address: 5, client: 20 }
/** How many characters of answers a client may have remembered in an hour. */
const REMEMBERED = 4 * 1024 * 1024
/** How many wrong codes are answered at once; after that, each answer waits twice as long as the one before, in ms. */
const FREE_GUESSES = 5
const FIRST_WAIT = 1_000
const LONGEST_WAIT = 15_000
/** How many bytes of files a client may leave waiting for a request within an hour. */
const UPLOADED = 40 * 1024 * 1024
/** How many requests a client may send in an hour that it neither keeps a start for nor has proved. */
const ASKED = 30
/** How many places in line a client may ask for in an hour. */
const LINES = 10

/** What one client may hold, write and try; known by its address, or by a visit, in memory alone. */
export class Quotas {
  readonly #held: Held
  readonly #remembered: Hourly
  readonly #guessed: Hourly
  readonly #asked: Hourly
  readonly #lines: Hourly
  readonly #uploaded: Hourly
  readonly #writes: Record<keyof typeof WRITES, Hourly>
  readonly #wait: (ms: number) => Promise<unknown>

  /**
   * @param wait how an answer is put off, by ms
   * @param steady a count of ms that nobody sets back
   */
  constructor(
    held: HeldLimits,
    wait: (ms: number) => Promise<unknown> = setTimeout,
    steady: () => number = () => performance.now(),
  ) {
    this.#held = new Held(held)
    this.#remembered = new Hourly(REMEMBERED, steady)
    this.#guessed = new Hourly(Number.POSITIVE_INFINITY, steady)
    this.#asked = new Hourly(ASKED, steady)
    this.#lines = new Hourly(LINES, steady)
    this.#uploaded = new Hourly(UPLOADED, steady)
    this.#writes = {
      visit: new Hourly(WRITES.visit, steady),
      address: new Hourly(WRITES.address, steady),
      client: new Hourly(WRITES.client, steady),
    }
    this.#wait = wait
  }

  /** Attempts are remembered as far as there is room for this client's. @throws Refused */
  remember(req: Request): void {
    // By what has come: what a client says of its length it may leave out.
    if (!this.#remembered.spend(clientOf(req), JSON.stringify(req.body).length))
      throw new Refused(429, 'too-many-tries')
  }

  /** Answers what may hold a code, more slowly the more wrong ones have come from there. */
  async guess<A>(req: Request, work: () => A): Promise<A> {
    const client = clientOf(req)
    const over = this.#guessed.spentBy(client) - FREE_GUESSES
    if (over >= 0) await this.#wait(Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** over))
    try {
      return work()
    } catch (error) {
      if (error instanceof Refused && WRONG_CODES.has(error.problem.code)) this.#guessed.spend(client)
      throw error
    }
  }

  /** Keeps a start, where this client may hold another, or has this one already. @throws Refused */
  keeping<A>(req: Request, here: Here, body: Pick<WantedStart, 'visit'>, work: (unheld: Unheld) => A): A {
    const now = here.now()
    const { house } = here.keeper
    // Another pick of a visit takes the place of the one before.
    const held = house.keep(body.visit) !== undefined || this.#held.mayHold(house, now, clientOf(req))
    const kept = work(held ? {} : { unheld: true })
    this.#held.note(body.visit, clientOf(req))
    return kept
  }

  /** Takes a request: its start is kept already, its address is proved, or this client may hold another. @throws Refused */
  sending(
    req: Request,
    here: Here,
    body: SendBody,
    work: (unheld: Unheld) => { link: string } | { secret: string },
  ): { link: string } | { secret: string } {
    const client = clientOf(req)
    const now = here.now()
    const { house } = here.keeper
    const proved = provesAddress(house, body.with, body.person.email) || body.quote !== undefined
    const free = proved || sameKept(house, body, now) !== undefined || this.#said(req, here, 'send')
    const held = free || this.#held.mayHold(house, now, client)
    if (!free && !this.#asked.spend(client)) throw new Refused(429, 'too-many-held')
    const answer = work(held ? {} : { unheld: true })
    const secret = 'secret' in answer ? answer.secret : here.secrets.of(answer.link)
    const subject = house.link(sha256Hex(secret))?.subject
    if (subject && !proved) this.#held.note(subject.id, client)
    return answer
  }

  /** Takes a message, where not many have come of this visit, address and client within the hour. @throws Refused */
  writing(req: Request, here: Here, body: EnquireBody): void {
    if (this.#said(req, here, 'enquire')) return
    const { visit, address, client } = this.#writes
    const all = [
      [visit, body.visit],
      [address, countedMail(body.email)],
      [client, clientOf(req)],
    ] as const
    if (all.some(([hour, who]) => !hour.has(who))) throw new Refused(429, 'too-many-written')
    for (const [hour, who] of all) hour.spend(who)
  }

  /** Takes a file, where this client has not left much waiting. @throws Refused */
  uploading(req: Request, bytes: number): void {
    if (!this.#uploaded.spend(clientOf(req), bytes)) throw new Refused(422, 'file.no-room')
  }

  /** Takes a place in line, where this client has not asked for many. @throws Refused */
  joining(req: Request, here: Here): void {
    if (this.#said(req, here, 'line')) return
    if (!this.#lines.spend(clientOf(req))) throw new Refused(429, 'too-many-written')
  }

  /** Whether this has been said and answered before: then it is only said again. */
  #said(req: Request, here: Here, scope: string): boolean {
    const key = req.get('idempotency-key')
    return key !== undefined && here.keeper.house.answered(`${scope} ${key}`) !== undefined
  }
}
