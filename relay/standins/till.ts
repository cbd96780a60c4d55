import { randomBytes } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import { letIn } from '@acolhida/core/schemas'
import { exactly, line, object, one, pattern, whole, yes } from '@acolhida/core/shape'
import { bookingName, currency, epochMs, tokenShape } from '@acolhida/core/shape/plain'
import { dateAt, zone } from '@acolhida/core/time'
import { type Express, type Request, type Response, raw, urlencoded } from 'express'
import type { Clock } from '../ground/clock.ts'
import { isSigned, signedHeaders } from '../ground/signature.ts'
import { failures, guarded } from '../http/security.ts'
import { listen, urlOf } from '../relay.ts'
import { expiryIn, isCardNumber } from '../till/card.ts'
import type { TillMessage } from '../till/hosted.ts'
import type { Charge, TillWants } from '../till/till.ts'
import { serveStyle } from './style.ts'
import { cardPage, donePage, paymentsPage, type StandinPayment, stepPage } from './till-pages.ts'

/** What a card of the stand-in does. All are numbers that card schemes publish for trials. */
type Does = 'pays' | 'step' | 'fails' | 'no-answer' | 'untold' | 'twice'
export const TRIAL_CARDS: Record<string, Does> = {
  '4111111111111111': 'pays',
  '4012888888881881': 'step',
  '5555555555554444': 'fails',
  '378282246310005': 'no-answer',
  '6011111111111117': 'untold',
  '30569309025904': 'twice',
}

interface Kept {
  number: string
  ends: string
  expires: string
}

const wantedShape = exactly<TillWants & { live: boolean }>()(
  object({
    payment: tokenShape,
    booking: bookingName,
    what: one('pay', 'check', 'keep'),
    amount: whole(0, 100_000_000_000),
    currency,
    title: line(300),
    until: epochMs,
    back: pattern(/^https?:\/\/\S{3,500}$/, 510),
    live: yes,
  }),
)
const chargeShape = exactly<Charge & { live: boolean }>()(
  object({
    payment: tokenShape,
    booking: bookingName,
    amount: whole(1, 100_000_000_000),
    currency,
    title: line(300),
    card: line(100),
    live: yes,
  }),
)
const backShape = object({ name: line(200), amount: whole(1, 100_000_000_000), live: yes })

/** How long after a try to tell the relay the next comes, in ms. */
const TELL_AGAIN = [0, 2_000, 10_000]

/**
 * The stand-in for a till with a page of its own: no money moves in it. It keeps payments by their names in memory, takes
 * trial cards alone, and tells the relay what became of them, each try signed anew.
 */
export class StandinTill {
  readonly payments = new Map<string, StandinPayment>()
  /** Where it tells; what lies before the relay's own path. */
  tellTo = ''
  readonly #cards = new Map<string, Kept>()
  readonly #clock: Clock
  readonly #secret: string
  #server: Server | undefined

  constructor(clock: Clock, secret: string) {
    this.#clock = clock
    this.#secret = secret
  }

  get url(): string {
    return urlOf(this.#server)
  }

  /** @param assets the folder of the built desk's files, for its fonts */
  async start({ port = 0, assets = '' }: { port?: number; assets?: string } = {}): Promise<string> {
    this.#server = await listen(createServer(this.#app(assets)), port, '127.0.0.1')
    return this.url
  }

  stop(): Promise<void> {
    return new Promise((resolve) => {
      if (!this.#server) return resolve()
      this.#server.close(() => resolve())
      this.#server.closeAllConnections()
    })
  }

  /** Tells the relay once how a payment stands. @returns the status that it answers with */
  async tell(payment: string): Promise<number> {
    const of = this.payments.get(payment)
    if (!of) return 404
    const body = JSON.stringify(this.#said(of))
    const answer = await fetch(`${this.tellTo}/api/till`, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        ...(await signedHeaders(
          { method: 'POST', path: '/api/till' },
          Buffer.from(body),
          this.#secret,
          this.#clock.now(),
        )),
      },
      body,
    })
    of.told++
    return answer.status
  }

  /** Tells it until the relay has taken it in, a few times. */
  #tellSoon(payment: string, tries = 0): void {
    const wait = TELL_AGAIN[tries]
    if (wait === undefined) return
    setTimeout(() => {
      this.tell(payment)
        .then((status) => {
          if (status >= 300) this.#tellSoon(payment, tries + 1)
        })
        .catch(() => this.#tellSoon(payment, tries + 1))
    }, wait).unref()
  }

  #said({ payment, booking, amount, currency, live, is, text, card }: StandinPayment): TillMessage {
    return {
      id: `${payment}-${is}`,
      payment,
      booking,
      amount,
      currency,
      live,
      is,
      text,
      ...(card ? { card } : {}),
    }
  }

  /** Its page stands for so long. */
  #lapse(of: StandinPayment): StandinPayment {
    if (of.is === 'open' && this.#clock.now() > of.until) of.is = 'over'
    return of
  }

  #app(assets: string): Express {
    const app = guarded({ clock: this.#clock, loopbackOnly: true })
    app.use(['/payments', '/charges'], raw({ type: () => true, limit: 10_000 }))
    this.#asked(app)
    this.#pages(app, assets)
    app.use(failures)
    return app
  }

  /** What the relay asks: everything signed. */
  #asked(app: Express): void {
    const body = async (req: Request): Promise<unknown> => {
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0)
      const { method, path, headers } = req
      return (await isSigned({ method, path, headers }, bytes, this.#secret, this.#clock.now()))
        ? JSON.parse(bytes.toString('utf8') || '{}')
        : undefined
    }
    app.post('/payments', async (req, res) => {
      const asked = await body(req)
      if (!asked) return void res.sendStatus(401)
      const wanted = letIn(wantedShape, asked, 'The till')
      const before = this.payments.get(wanted.payment)
      const of: StandinPayment = before ?? {
        ...{ ...wanted, token: randomBytes(24).toString('base64url'), is: 'open', text: '', told: 0 },
        backs: new Map(),
      }
      this.payments.set(wanted.payment, of)
      res.json({ page: `${this.url}/pay/${of.token}` })
    })
    app.get('/payments/:payment', async (req, res) => {
      if (!(await body(req))) return void res.sendStatus(401)
      const of = this.payments.get(String(req.params.payment))
      if (of) res.json(this.#said(this.#lapse(of)))
      else res.sendStatus(404)
    })
    app.post('/charges', async (req, res) => {
      const asked = await body(req)
      if (!asked) return void res.sendStatus(401)
      const { card: key, ...charge } = letIn(chargeShape, asked, 'The till')
      const card = this.#cards.get(key)
      const of: StandinPayment = this.payments.get(charge.payment) ?? {
        ...{ ...charge, what: 'pay', until: this.#clock.now(), back: '', token: '', told: 0 },
        ...this.#taken(card),
        backs: new Map(),
      }
      this.payments.set(charge.payment, of)
      res.json(this.#said(of))
      this.#tellSoon(of.payment)
    })
    app.post('/payments/:payment/back', async (req, res) => {
      const asked = await body(req)
      if (!asked) return void res.sendStatus(401)
      const { name, amount } = letIn(backShape, asked, 'The till')
      const of = this.payments.get(String(req.params.payment))
      if (of?.is !== 'paid') return void res.sendStatus(404)
      const given = [...of.backs].reduce((sum, [other, some]) => (other === name ? sum : sum + some), 0)
      if (given + amount > of.amount) return void res.sendStatus(409)
      of.backs.set(name, amount)
      res.json({})
    })
  }

  /** What becomes of a card that money is taken from without its owner there. */
  #taken(card: Kept | undefined): Pick<StandinPayment, 'is' | 'text' | 'card'> {
    if (!card) return { is: 'failed', text: 'This card is not kept any more.' }
    if (card.expires < this.#month()) return { is: 'failed', text: 'The card has expired.' }
    return TRIAL_CARDS[card.number] === 'fails'
      ? { is: 'failed', text: 'The card was refused.' }
      : { is: 'paid', text: '' }
  }

  #month(): string {
    return dateAt(zone('UTC'), this.#clock.now()).slice(0, 7)
  }

  #at(req: Request): StandinPayment | undefined {
    const token = String(req.params.token)
    const of = [...this.payments.values()].find((one) => one.token !== '' && one.token === token)
    return of && this.#lapse(of)
  }

  /** What the client sees. */
  #pages(app: Express, assets: string): void {
    const form = urlencoded({ extended: false, limit: 2_000 })
    const page = (res: Response, html: string): void => {
      res.type('html').send(html)
    }
    serveStyle(app, assets)
    app.get('/', (_req, res) =>
      page(res, paymentsPage([...this.payments.values()].map((of) => this.#lapse(of)))),
    )
    app.post('/tell/:payment', async (req, res) => {
      await this.tell(String(req.params.payment)).catch(() => undefined)
      res.redirect(303, '/')
    })
    app.get('/pay/:token', (req, res) => {
      const of = this.#at(req)
      if (!of) return void res.sendStatus(404)
      page(res, of.is === 'open' ? cardPage(of) : donePage(of))
    })
    app.post('/pay/:token', form, (req, res) => {
      const of = this.#at(req)
      if (!of) return void res.sendStatus(404)
      const said = req.body as Record<string, unknown>
      if (of.is === 'open') {
        const wrong = this.#take(of, said)
        if (wrong) return page(res, cardPage(of, wrong))
      }
      page(
        res,
        of.is === 'open' && said.step === undefined && this.#does(said) === 'step'
          ? stepPage(of, said)
          : donePage(of),
      )
    })
  }

  #does(said: Record<string, unknown>): Does | undefined {
    return TRIAL_CARDS[String(said.number ?? '').replace(/[ -]/g, '')]
  }

  /** Takes what was typed. @returns what is wrong with it */
  #take(of: StandinPayment, said: Record<string, unknown>): string | undefined {
    if (said.leave !== undefined) {
      Object.assign(of, { is: 'failed', text: 'It was left before anything was paid.' })
      this.#tellSoon(of.payment)
      return undefined
    }
    const number = String(said.number ?? '').replace(/[ -]/g, '')
    if (!isCardNumber(number)) return 'This is not the number of a card. Please look at it once more.'
    const expires = expiryIn(String(said.expires ?? ''), Number(this.#month().slice(0, 4)))
    if (!expires) return 'Please write until when the card is good as it stands on it, as in 05/28.'
    if (expires < this.#month()) return 'This card has expired.'
    if (!/^[0-9]{3,4}$/.test(String(said.code ?? ''))) return 'The code has three or four figures.'
    const does = TRIAL_CARDS[number]
    if (!does) return 'Only the trial cards below do something here. No money moves.'
    if (does === 'step' && said.step === undefined) return undefined
    if (does === 'no-answer') return undefined
    if (does === 'fails') Object.assign(of, { is: 'failed', text: 'The card was refused.' })
    else {
      const key = of.what === 'keep' ? randomBytes(18).toString('base64url') : undefined
      if (key) this.#cards.set(key, { number, ends: number.slice(-4), expires })
      const card = { ends: number.slice(-4), expires, ...(key ? { key } : {}) }
      Object.assign(of, of.what === 'pay' ? { is: 'paid' } : { is: 'kept', card })
    }
    if (does !== 'untold') this.#tellSoon(of.payment)
    if (does === 'twice') this.#tellSoon(of.payment)
    return undefined
  }
}
