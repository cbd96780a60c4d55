import { money } from '@acolhida/core/money'
import { decimals } from '@acolhida/core/money/currency'
import type { TillMessage } from '../till/hosted.ts'
import type { TillWants } from '../till/till.ts'
import { EMBLEM, safe } from './style.ts'

/** A payment as the stand-in has it. */
export interface StandinPayment extends TillWants {
  live: boolean
  token: string
  is: TillMessage['is']
  text: string
  card?: TillMessage['card']
  /** What was given back, by name. */
  backs: Map<string, number>
  told: number
}

const sum = ({ amount, currency }: Pick<StandinPayment, 'amount' | 'currency'>): string =>
  money(amount, { code: currency, decimals: decimals(currency) })

const page = (title: string, main: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${safe(title)} · Till</title><link rel="stylesheet" href="/style.css"></head><body>
<header class="rail"><div class="brand">${EMBLEM} The till</div><p>A stand-in: no money moves.</p></header>
<main><h1>${safe(title)}</h1>${main}</main></body></html>`

const CARDS = [
  ['4111 1111 1111 1111', 'pays'],
  ['4012 8888 8888 1881', 'asks for a second step'],
  ['5555 5555 5555 4444', 'is refused'],
  ['3782 822463 10005', 'gets no answer'],
  ['6011 1111 1111 1117', 'pays, and nobody is told'],
  ['3056 930902 5904', 'pays, and it is told twice'],
]

const asks = (of: StandinPayment): string =>
  of.what === 'pay' ? sum(of) : of.what === 'keep' ? 'A card to be kept' : 'A card to be looked at'

/** Where a card is typed. Its number is sent here and nowhere else. */
export const cardPage = (of: StandinPayment, wrong = ''): string =>
  page(
    asks(of),
    `<p class="lead">${safe(of.title)}</p>${wrong ? `<p class="wrong" role="alert">${safe(wrong)}</p>` : ''}
<form method="post" novalidate><label for="number">Number of the card</label><input id="number" name="number" inputmode="numeric" autocomplete="cc-number" maxlength="30">
<label for="expires">Good until</label><input id="expires" name="expires" placeholder="05/28" autocomplete="cc-exp" maxlength="9">
<label for="code">Code on the back</label><input id="code" name="code" inputmode="numeric" autocomplete="cc-csc" maxlength="4">
<button class="go">${of.what === 'pay' ? `Pay ${sum(of)}` : 'Leave this card'}</button></form>
<form method="post"><button name="leave" value="1">Back without paying</button></form>
<h2>Trial cards</h2><table>${CARDS.map(([number, does]) => `<tr><td>${number}</td><td>${does}</td></tr>`).join('')}</table>`,
  )

/** What a bank asks besides. */
export const stepPage = (of: StandinPayment, said: Record<string, unknown>): string =>
  page(
    'Is it you?',
    `<p class="lead">Your bank asks whether it is you who pays ${sum(of)}.</p><form method="post">${[
      'number',
      'expires',
      'code',
    ]
      .map((name) => `<input type="hidden" name="${name}" value="${safe(String(said[name] ?? ''))}">`)
      .join('')}<button name="step" value="1">Yes, it is me</button></form>`,
  )

const IS: Record<StandinPayment['is'], string> = {
  open: 'No answer',
  paid: 'Paid',
  failed: 'Not paid',
  over: 'This has run out',
  kept: 'Your card is here',
}

export const donePage = (of: StandinPayment): string =>
  page(
    IS[of.is],
    `<p class="lead">${safe(of.text || of.title)}</p>${of.is === 'open' ? '<p>The bank does not answer. Whether anything was paid is not known yet.</p>' : ''}
<p><a href="${safe(of.back)}">Back to where you came from</a></p>`,
  )

/** Everything that was asked, for whoever tries it. */
export const paymentsPage = (all: readonly StandinPayment[]): string =>
  page(
    'Payments',
    all.length === 0
      ? '<p>Nothing has been asked for yet.</p>'
      : `<table>${[...all]
          .reverse()
          .map(
            (of) =>
              `<tr><td>${safe(of.title)}</td><td>${asks(of)}</td><td>${IS[of.is]}${[...of.backs.values()].map((amount) => `, ${sum({ ...of, amount })} given back`).join('')}</td><td>told ${of.told} times</td><td><form method="post" action="/tell/${safe(of.payment)}"><button>Tell it once more</button></form></td></tr>`,
          )
          .join('')}</table>`,
  )
